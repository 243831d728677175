import type { KeptPerson } from '../../contract/organisation';
import { toWayIn } from '../../core/signOn';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import type { PersonRow } from '../people/model';
import { readFactor } from '../sessions/factor';
import { findInvitation } from './invitations';

/** So much of what was changed is shown. */
const MOST_HISTORY = 50;
/** The kinds of entries that are about one person. */
export const ABOUT_A_PERSON = [
  ...(['personMade', 'personChanged', 'personInvited', 'personArrived', 'personLeft', 'personBack'] as const),
  ...(['passwordForgotten', 'personLinked', 'factorSet', 'factorRemoved'] as const),
  ...(['memberSet', 'memberGone'] as const),
];

async function readTeams({ db: { tables } }: Listo, personId: string): Promise<KeptPerson['teams']> {
  const members = await tables.members.find({ personId });
  const teams = await tables.teams.find({ id: members.map(({ teamId }) => teamId) });
  return members.map(({ teamId, role, groupId }) => ({
    ...{ teamId, role, groupId },
    name: teams.find(({ id }) => id === teamId)!.name,
  }));
}

/** What an entry about a person carries of it. */
type Carried = { fields?: string[]; teamIds?: string[] };
type HistoryRow = { type: string; at: number; data: Carried | string; byName: string | null };

async function readHistory({ db }: Listo, personId: string): Promise<KeptPerson['history']> {
  const rows = await db.select<HistoryRow>(
    `SELECT j.type, j.at, j.data, p.name AS byName FROM journal j LEFT JOIN people p ON p.id = j.actorId
     WHERE j.aboutId = :personId AND j.type IN (:types)
     ORDER BY j.id DESC LIMIT :limit`,
    { types: ABOUT_A_PERSON, personId, limit: MOST_HISTORY },
  );
  const teams = await db.tables.teams.find({});
  return rows.map(({ type, at, byName, data }) => {
    const { fields = [], teamIds = [] } = typeof data === 'string' ? (JSON.parse(data) as Carried) : data;
    const isOfTeam = type === 'memberSet' || type === 'memberGone';
    const team = isOfTeam ? teams.find(({ id }) => id === teamIds[0]) : undefined;
    return { ...{ at, byName, type, fields }, team: team?.name ?? null };
  });
}

/** What is kept of a person, as it is written. */
export const toBody = ({
  name,
  email,
  phone,
  title,
  department,
  siteId,
  place,
  vessel,
  costCentre,
  managerId,
  language,
  isAdministrator,
  mayAskForOthers,
  goesFirst,
}: PersonRow) => ({
  ...{ name, email, phone, title, department, siteId, place: place ?? '', vessel: vessel ?? '' },
  ...{ costCentre, managerId, language, isAdministrator, mayAskForOthers, goesFirst },
});

/** A person with all that is kept of them. @throws ProblemError where there is none */
export async function readPerson(listo: Listo, id: string): Promise<KeptPerson> {
  const { tables } = listo.db;
  const person = await tables.people.findOne({ id });
  if (!person) throw new ProblemError('notFound');
  const now = listo.clock.now();
  const [manager, invitation, sessions, factor, subjects] = await Promise.all([
    person.managerId === null ? null : tables.people.findOne({ id: person.managerId }),
    findInvitation(listo, id),
    tables.sessions.find({ personId: id }),
    readFactor(listo, id),
    tables.signOnSubjects.find({ personId: id }),
  ]);
  const providers = await tables.signOnProviders.find({ id: subjects.map(({ providerId }) => providerId) });
  const by = invitation && (await tables.people.findOne({ id: invitation.byId }));
  return {
    ...{ id, version: person.version, leftAt: person.leftAt, ...toBody(person) },
    manager: manager && { id: manager.id, name: manager.name, goesFirst: manager.goesFirst },
    teams: await readTeams(listo, id),
    wayIn: toWayIn({
      hasPassword: person.passwordHash !== null,
      hasProvider: subjects.length > 0,
      isInvited: invitation !== null,
    }),
    hasFactor: factor.since !== null,
    providers: providers.map(({ name }) => name),
    invitation: invitation && { at: invitation.at, endsAt: invitation.endsAt, byName: by?.name ?? '' },
    sessions: sessions.filter(({ expiresAt }) => expiresAt > now).length,
    history: await readHistory(listo, id),
  };
}
