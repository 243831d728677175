import type { Thing, ThingHistory } from '../../contract/estate';
import { listActs, worthOn } from '../../core/estate';
import { mayKeepThings } from '../../core/rights';
import { getOwn } from '../../core/records';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';
import { visibleTo } from '../tickets/visibility';
import type { Viewing } from '../unitOfWork';
import { toCards } from './cards';
import { readSeenKinds } from './kinds';
import type { ThingKindRow, ThingRow } from './model';

/** So much of what was changed, and so many tickets, are shown. */
const MOST_HISTORY = 50;
const MOST_TICKETS = 20;

type HistoryRow = {
  type: ThingHistory['type'];
  at: number;
  data: unknown;
  changes: unknown;
  byName: string | null;
};
type Carried = { act?: ThingHistory['act']; claim?: ThingHistory['claim'] };
type Changed = Record<string, { from: unknown; to: unknown }>;
const parsed = (json: unknown): unknown => (typeof json === 'string' ? JSON.parse(json) : json);

const NAMED: Record<string, 'people' | 'sites' | 'teams'> = {
  ...{ holderId: 'people', ownerId: 'people', siteId: 'sites', teamId: 'teams' },
};

/** What happened to a thing, the latest first; people, sites and teams by their names. */
async function readHistory({ db }: Listo, id: string): Promise<ThingHistory[]> {
  const rows = await db.select<HistoryRow>(
    `SELECT j.type, j.at, j.data, j.changes, p.name AS byName FROM journal j LEFT JOIN people p ON p.id = j.actorId
     WHERE j.aboutId = :id ORDER BY j.id DESC LIMIT :limit`,
    { id, limit: MOST_HISTORY },
  );
  const changed = rows.map((row) => Object.entries(parsed(row.changes) as Changed));
  const idsOf = (table: 'people' | 'sites' | 'teams'): string[] =>
    changed
      .flat()
      .flatMap(([field, { from, to }]) =>
        NAMED[field] === table ? [from, to].filter((each): each is string => typeof each === 'string') : [],
      );
  const { people, sites, teams } = db.tables;
  const names = new Map<unknown, unknown>();
  for (const { id: each, name } of await people.find({ id: idsOf('people') })) names.set(each, name);
  for (const { id: each, name } of await sites.find({ id: idsOf('sites') })) names.set(each, name);
  for (const { id: each, name } of await teams.find({ id: idsOf('teams') })) names.set(each, name);
  const say = (field: string, value: unknown): unknown => (NAMED[field] ? (names.get(value) ?? null) : value);
  return rows.map(({ type, at, byName, data }, i) => {
    const { act = null, claim = null } = parsed(data) as Carried;
    const changes = changed[i]!.map(([field, { from, to }]) => ({
      ...{ field, from: say(field, from), to: say(field, to) },
    }));
    return { at, byName, type, act, claim, changes };
  });
}

/** The tickets about things that someone may read: the latest of each, and how many there are. */
export async function readTicketsAbout(
  { listo, viewer }: Viewing,
  ids: string[],
  { most = MOST_TICKETS, except = 0 }: { most?: number; except?: number } = {},
): Promise<Map<string, { tickets: Thing['tickets']; count: number }>> {
  if (ids.length === 0) return new Map();
  const visible = visibleTo(viewer);
  const rows = await listo.db.select<
    Thing['tickets'][number] & { thingId: string; nth: number; count: number }
  >(
    `SELECT * FROM (SELECT x.thingId, t.number, t.title, t.state, t.createdAt AS at, x.how,
       ROW_NUMBER() OVER (PARTITION BY x.thingId ORDER BY t.number DESC) AS nth, COUNT(*) OVER (PARTITION BY x.thingId) AS count
     FROM ticket_things x JOIN tickets t ON t.number = x.ticketNumber
     WHERE x.thingId IN (:ids) AND x.ticketNumber <> :except AND ${visible.sql}) found WHERE nth <= :most ORDER BY thingId, nth`,
    { ...visible.values, ids, most, except },
  );
  return new Map(
    ids.map((id) => {
      const found = rows.filter(({ thingId }) => thingId === id);
      const tickets = found.map(({ number, title, state, at, how }) => ({ number, title, state, at, how }));
      return [id, { tickets, count: found[0]?.count ?? 0 }];
    }),
  );
}

/** What a thing is still worth; null: not known. */
function worthOf({ cost, boughtOn }: ThingRow, { months }: ThingKindRow, now: number): number | null {
  if (cost === null) return null;
  if (boughtOn === null || months === null) return cost;
  return worthOn({ cost, boughtOn, months }, new Date(now).toISOString().slice(0, 10));
}

const BODY_FIELDS = [
  ...(['ownerId', 'siteId', 'teamId', 'cost', 'boughtOn', 'contract', 'dependable', 'fields'] as const),
  ...(['version', 'handedAt', 'confirmedAt', 'seenAt'] as const),
];

/** A thing that someone sees, with its kind. @throws ProblemError where there is none for them */
export async function requireSeen(
  { listo, viewer }: Viewing,
  id: string,
): Promise<{ row: ThingRow; kind: ThingKindRow }> {
  const kinds = await readSeenKinds({ listo, viewer });
  const row = await listo.db.tables.things.findOne({ id });
  const kind = row && kinds.get(row.kindId);
  if (!row || !kind) throw new ProblemError('notFound');
  return { row, kind };
}

/** A thing with all that is known of it. */
export async function readThing({ listo, viewer }: Viewing, id: string): Promise<Thing> {
  const { row, kind } = await requireSeen({ listo, viewer }, id);
  const [[card], people, team, about, history] = await Promise.all([
    toCards({ listo, viewer }, [row], () => kind.name),
    readPeople(listo, [row.ownerId]),
    row.teamId === null ? null : listo.db.tables.teams.findOne({ id: row.teamId }),
    readTicketsAbout({ listo, viewer }, [id]),
    readHistory(listo, id),
  ]);
  const { tickets, count } = about.get(id)!;
  const mayKeep = mayKeepThings(viewer, kind.keptBy);
  return {
    ...card!,
    ...(Object.fromEntries(BODY_FIELDS.map((field) => [field, row[field]])) as Pick<
      Thing,
      (typeof BODY_FIELDS)[number]
    >),
    owner: row.ownerId === null ? null : (people.get(row.ownerId) ?? null),
    team: team && { id: team.id, name: team.name },
    answers: kind.form.fields
      .map((field) => ({
        field: field,
        value: getOwn(row.fields, field.name),
      }))
      .filter(({ value }) => value !== undefined && value !== null),
    ...{
      mayKeep,
      isHandedOut: kind.isHandedOut,
      acts: mayKeep ? listActs(row.state, kind.isHandedOut) : [],
      worth: worthOf(row, kind, listo.clock.now()),
    },
    ...{ tickets, ticketCount: count, history },
  };
}
