import type { ThingCard } from '../../contract/estate';
import type { api } from '../../contract';
import type { AnswerOf, QueryOf } from '../../contract/endpoint';
import { toMark } from '../../core/estate';
import { fromCursor, toCursor } from '../http/byName';
import { escapeLike } from '../database/like';
import type { Listo } from '../listo';
import type { Viewing } from '../unitOfWork';
import { toCards } from './cards';
import { findByMark } from './choices';
import { readSeenKinds } from './kinds';

type Query = QueryOf<typeof api.estate.list>;
const PAGE = 50;
const DAY_MS = 86_400_000;
/** What nobody has seen for so long may be gone; what runs out within so long is said. */
const LONG_MS = 90 * DAY_MS;

const dayOf = (at: number): string => new Date(at).toISOString().slice(0, 10);

const ONLY: Record<NonNullable<Query['only']>, string> = {
  claimed: 'a.claim IS NOT NULL',
  overdue: "a.state = 'lent' AND a.lentUntil < :now",
  unseen: "a.seenAt IS NOT NULL AND a.seenAt < :now - :long AND a.state <> 'retired'",
  watched: 'a.isWatched',
  warranty: "a.warrantyUntil BETWEEN :today AND :soon AND a.state <> 'retired'",
};

const NOTHING = { claimed: 0, overdue: 0, unseen: 0, warranty: 0 };

function toConditions({ q, kindId, state, siteId, holderId, only }: Omit<Query, 'after'>): string[] {
  return [
    'a.kindId IN (:kindIds)',
    ...(q.trim()
      ? [
          '(a.name LIKE :pattern OR a.tagMark LIKE :mark OR a.serialMark LIKE :mark OR a.model LIKE :pattern OR a.place LIKE :pattern OR a.holderId IN (SELECT p.id FROM people p WHERE p.name LIKE :pattern))',
        ]
      : []),
    ...(kindId ? ['a.kindId = :kindId'] : []),
    // What is retired is shown where it is asked for, or looked for by name.
    ...(state ? ['a.state = :state'] : q.trim() ? [] : ["a.state <> 'retired'"]),
    ...(siteId ? ['a.siteId = :siteId'] : []),
    ...(holderId ? ['a.holderId = :holderId'] : []),
    ...(only ? [ONLY[only]] : []),
  ];
}

/** How many things are worth a look, of the kinds that someone sees. */
async function countAttention(
  { db }: Listo,
  {
    kindIds,
    now,
    long,
    today,
    soon,
  }: { kindIds: string[]; now: number; long: number; today: string; soon: string },
): Promise<typeof NOTHING> {
  const counts = (Object.keys(NOTHING) as (keyof typeof NOTHING)[]).map(
    (only) => `(SELECT COUNT(*) FROM things a WHERE a.kindId IN (:kindIds) AND ${ONLY[only]}) AS ${only}`,
  );
  const [row] = await db.select<typeof NOTHING>(`SELECT ${counts.join(', ')}`, {
    ...{ kindIds, now, long, today, soon },
  });
  return row!;
}

/** Things by name, a page at a time. */
export async function listThings(
  { listo, viewer }: Viewing,
  { after, ...query }: Query,
): Promise<AnswerOf<typeof api.estate.list>> {
  const kinds = await readSeenKinds({ listo, viewer });
  if (kinds.size === 0) return { rows: [], after: null, count: 0, attention: NOTHING };
  const conditions = toConditions(query);
  const now = listo.clock.now();
  const values = {
    ...{ ...query, now, long: LONG_MS, today: dayOf(now), soon: dayOf(now + LONG_MS) },
    ...{ kindIds: [...kinds.keys()], pattern: `%${escapeLike(query.q.trim())}%` },
    mark: `%${escapeLike(toMark(query.q))}%`,
  };
  const [counted] = await listo.db.select<{ count: number }>(
    `SELECT COUNT(*) AS count FROM things a WHERE ${conditions.join(' AND ')}`,
    values,
  );
  const from = after === undefined ? null : fromCursor(after);
  const paged = from ? [...conditions, '(a.name > :name OR (a.name = :name AND a.id > :id))'] : conditions;
  const ids = await listo.db.select<{ id: string }>(
    `SELECT a.id FROM things a WHERE ${paged.join(' AND ')} ORDER BY a.name, a.id LIMIT :limit`,
    { ...values, ...from, limit: PAGE + 1 },
  );
  const page = ids.slice(0, PAGE).map(({ id }) => id);
  const rows = await listo.db.tables.things.find({ id: page });
  const ordered = page.map((id) => rows.find((row) => row.id === id)!);
  return {
    rows: await toCards({ listo, viewer }, ordered, (kindId) => kinds.get(kindId)!.name),
    after: ids.length > PAGE ? toCursor(ordered.at(-1)!) : null,
    count: counted!.count,
    attention: await countAttention(listo, values),
  };
}

/** The things that a scanned code or a tag names, of those that someone sees. */
export async function listByMark({ listo, viewer }: Viewing, mark: string): Promise<ThingCard[]> {
  const kinds = await readSeenKinds({ listo, viewer });
  const rows = (await findByMark({ listo }, mark)).filter(({ kindId }) => kinds.has(kindId));
  return toCards({ listo, viewer }, rows, (kindId) => kinds.get(kindId)!.name);
}
