import type { Me } from '../../contract/session';
import { isAgent, readsDesk } from '../../core/rights';
import type { Listo } from '../listo';
import type { PersonRow, SiteRow } from '../people/model';
import type { SignedIn } from './viewer';

type KnownPerson = Pick<PersonRow, 'place' | 'vessel' | 'device' | 'phone' | 'department' | 'costCentre'>;

/** What forms can be filled with. */
export function getKnownFacts(person: KnownPerson, siteName: string): Me['known'] {
  const { place, vessel, device, phone, department, costCentre } = person;
  const facts = { site: siteName, place, vessel, device, phone, department, costCentre };
  return Object.fromEntries(Object.entries(facts).filter(([, value]) => value));
}

/** How much open work someone has, and can have at once. */
async function readCarried(listo: Listo, id: string): Promise<Me['carries']> {
  const [row] = await listo.db.select<{ load: number; capacity: number | null }>(
    `SELECT (SELECT COUNT(*) FROM tickets t WHERE t.assigneeId = :id AND t.state IN ('received', 'inWork')) AS \`load\`,
       (SELECT MAX(capacity) FROM team_members WHERE personId = :id) AS capacity`,
    { id },
  );
  return row!;
}

export async function readMe(listo: Listo, viewer: SignedIn): Promise<Me> {
  const { tables } = listo.db;
  const person = (await tables.people.findOne({ id: viewer.id }))!;
  const site = (await tables.sites.findOne({ id: person.siteId })) as SiteRow;
  const firstTeam = viewer.teams[0] && (await tables.teams.findOne({ id: viewer.teams[0].teamId }));
  return {
    id: viewer.id,
    name: viewer.name,
    title: person.title,
    language: viewer.language,
    timeZone: site.timeZone,
    calendarId: firstTeam?.calendarId ?? site.calendarId,
    isAdministrator: viewer.isAdministrator,
    mayAskForOthers: viewer.mayAskForOthers || isAgent(viewer),
    teams: viewer.teams,
    known: getKnownFacts(person, site.name),
    wantsMail: person.wantsMail,
    hasAssistant: await listo.ports.sessions.hasAssistant(listo),
    presence: isAgent(viewer) ? person.presence : null,
    carries: isAgent(viewer) ? await readCarried(listo, viewer.id) : null,
    areas: [
      'ask',
      ...(readsDesk(viewer) ? (['desk'] as const) : []),
      // Where the workplace chat is the stand-in.
      ...((await tables.settings.findOne({ name: 'demo' })) ? (['rooms'] as const) : []),
      ...(readsDesk(viewer) ? (['estate', 'knowledge', 'measures', 'workshop'] as const) : []),
    ],
  };
}
