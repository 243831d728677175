import type { ListRow } from '../../contract/worklists';
import { COUNT_LIMIT } from '../../contract/names';
import type { Condition } from '../../core/conditions';
import type { LocalText } from '../../core/forms';
import { readsDesk } from '../../core/rights';
import {
  comparePlaces,
  directionOf,
  explainPlace,
  resolveCondition,
  WORKS,
  type Grouping,
  type Order,
  type Place,
  type WorklistDefinition,
} from '../../core/worklist';
import { toSql } from '../../core/conditions';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { NOTHING_DUE } from '../tickets/model';
import { completeRows, ROW_JOINS, ROW_SELECT, type RowRecord, type StepOfRow } from './rows';
import { COLUMNS_OF } from './columns';
import { countSql, createWorkQuery, fromSql, placesSql, type WorkQuery } from './query';
import { createReader } from './reader';
import { weightsOf } from '../tickets/weights';
import type { Viewing } from '../unitOfWork';

export type Seen = {
  definition: WorklistDefinition;
  /** Beside the list's own. */
  where: Condition | null;
  order?: Order | undefined;
  groupBy?: Grouping | 'none' | undefined;
};

type Found = RowRecord &
  Partial<StepOfRow> & {
    asked?: LocalText;
    sortKey: number | string;
    sortGroup: number | string;
    [mark: `mark${number}`]: number;
  };

/** A row as it was found, with its place in the list and the first of the list's marks that it carries. */
type Listed = { record: RowRecord & Partial<StepOfRow>; place: Place; mark: number | null };

/** One kind of work's rows, with what was asked for them. */
type Part = { query: WorkQuery; listed: Listed[] };

const toText = (place: Place): string => JSON.stringify(place);

function parsePlace(after: string | undefined): Place | null {
  if (after === undefined) return null;
  const refuse = () =>
    new ProblemError('fieldsNotValid', { fields: [{ field: 'after', code: 'malformed' }] });
  let place: unknown;
  try {
    place = JSON.parse(after);
  } catch {
    throw refuse();
  }
  const [group, key, number, part] = Array.isArray(place) ? (place as unknown[]) : [];
  const isKey = (value: unknown): boolean => typeof value === 'string' || Number.isSafeInteger(value);
  if (!isKey(group) || !isKey(key) || !Number.isSafeInteger(number) || typeof part !== 'string')
    throw refuse();
  return place as Place;
}

function toListed({ asked, sortKey, sortGroup, ...found }: Found): Listed {
  const marks = Object.keys(found).filter((name) => /^mark\d+$/.test(name));
  const carried = marks.filter((name) => found[name as 'mark0']).map((name) => Number(name.slice(4)));
  const record = Object.fromEntries(
    Object.entries(found).filter(([name]) => !marks.includes(name)),
  ) as Listed['record'];
  return {
    record: { ...record, ...(asked && { definition: { name: asked, kind: 'approval' as const } }) },
    place: [sortGroup, sortKey, found.number, found.stepId ?? ''],
    mark: carried.length > 0 ? Math.min(...carried) : null,
  };
}

/** The SQL that says which marks of the list a row carries. */
function marksSql(
  { marks }: WorklistDefinition,
  { work, query }: { work: WorkQuery['work']; query: WorkQuery },
  resolve: (condition: Condition) => Condition,
): string {
  return marks
    .map(({ condition }, i) => {
      const compiled = toSql(resolve(condition), COLUMNS_OF[work], `m${i}x`);
      Object.assign(query.values, compiled.values);
      return `, (${compiled.sql}) AS mark${i}`;
    })
    .join('');
}

/** What differs between the kinds of work in what is read of a row. */
const SELECTS: Record<WorkQuery['work'], string> = {
  ticket: ROW_SELECT,
  step: `${ROW_SELECT.replace('t.assigneeId, t.teamId', 'ps.assigneeId, ps.teamId')}, ps.stepId, ps.definition, ps.neededBy`,
  decision: `${ROW_SELECT.replace('t.assigneeId, t.teamId', 'a.askedId AS assigneeId, t.teamId')}, CONCAT('ask:', a.id) AS stepId, a.asked, a.neededBy`,
};
const JOINS: Record<WorkQuery['work'], string> = {
  ticket: ROW_JOINS,
  step: ROW_JOINS.replace('tm.id = t.teamId', 'tm.id = ps.teamId'),
  decision: ROW_JOINS,
};
const MEETS: Record<WorkQuery['work'], string> = {
  ticket: '',
  step: 'AND ps.stepId = k.part',
  decision: "AND CONCAT('ask:', a.id) = k.part",
};

async function readWork(
  listo: Listo,
  query: WorkQuery,
  {
    marks,
    order,
    isGrouped,
    limit,
    now,
  }: { marks: string; order: Order; isGrouped: boolean; limit: number; now: number },
): Promise<Listed[]> {
  const { work } = query;
  const direction = directionOf(order);
  const rows = await listo.db.select<Found>(
    `${SELECTS[work]}, k.sortKey, k.sortGroup${marks}
     FROM ${placesSql(query)} k STRAIGHT_JOIN ${fromSql(work)} ${JOINS[work]}
     WHERE t.number = k.n ${MEETS[work]} ORDER BY ${isGrouped ? 'k.sortGroup, ' : ''}k.sortKey ${direction}, k.n ${direction}, k.part`,
    { ...query.values, limit, now },
  );
  return rows.map(toListed);
}

type More = ListRow['more'];

/** What columns may show beside of some tickets. */
async function readMore({ db }: Listo, numbers: number[]): Promise<Map<number, More>> {
  if (numbers.length === 0) return new Map();
  const rows = await db.select<Omit<More, 'spent'> & { number: number; spent: number | string }>(
    `SELECT t.number, p.email AS mail, p.phone, p.department, t.estimateMinutes AS estimate,
       (SELECT COALESCE(SUM(s.minutes), 0) FROM time_spent s WHERE s.ticketNumber = t.number) AS spent
     FROM tickets t JOIN people p ON p.id = t.requesterId WHERE t.number IN (:numbers)`,
    { numbers },
  );
  return new Map(rows.map(({ number, spent, ...more }) => [number, { ...more, spent: Number(spent) }]));
}

async function toRows(listo: Listo, listed: Listed[], isNext: boolean): Promise<ListRow[]> {
  const now = listo.clock.now();
  const records = listed.map(({ record }) => record);
  const [rows, more] = await Promise.all([
    completeRows(listo, records),
    readMore(
      listo,
      records.map(({ number }) => number),
    ),
  ]);
  return Promise.all(
    rows.map(async (row, i) => {
      const { record, place, mark } = listed[i]!;
      const dueAt = record.neededBy ?? (record.tightestDueAt === NOTHING_DUE ? null : record.tightestDueAt);
      const placed = { ...record, dueAt, goesFirst: row.requester.goesFirst };
      const reasons = isNext ? explainPlace(await weightsOf(listo, row.team.id), placed, now) : [];
      return { ...row, at: toText(place), mark, reasons, more: more.get(row.number)! };
    }),
  );
}

async function readRows(
  { listo, viewer }: Viewing,
  seen: Seen,
  { after = null, limit, numbers }: { after?: Place | null; limit: number; numbers?: number[] },
): Promise<{ records: Listed[]; parts: Part[]; now: number }> {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  const { definition, where } = seen;
  const reader = await createReader(listo, viewer);
  const resolve = (condition: Condition) => resolveCondition(condition, reader);
  const order = seen.order ?? definition.order;
  const groupBy = seen.groupBy === 'none' ? null : (seen.groupBy ?? definition.groupBy);
  const own = resolve(definition.condition);
  const condition = where ? joined(own, resolve(where)) : own;
  const queries = WORKS.flatMap(
    (work) =>
      createWorkQuery(work, { viewer, condition, order, groupBy, after, ...(numbers && { numbers }) }) ?? [],
  );
  const parts = await Promise.all(
    queries.map(async (query) => ({
      query,
      listed: await readWork(listo, query, {
        marks: marksSql(definition, { work: query.work, query }, resolve),
        ...{ order, isGrouped: groupBy !== null, limit, now: reader.now },
      }),
    })),
  );
  const records = parts
    .flatMap(({ listed }) => listed)
    .sort((one, other) => comparePlaces(order, one.place, other.place));
  return { records, parts, now: reader.now };
}

/** Both, with what both demand at the top, where it can be split. */
function joined(one: Condition, other: Condition): Condition {
  const parts = (condition: Condition) => ('all' in condition ? condition.all : [condition]);
  return { all: [...parts(one), ...parts(other)] };
}

/** How many there are, up to the limit of counting: those read where they are all, else counted. */
async function countAll(listo: Listo, parts: Part[], { limit, now }: { limit: number; now: number }) {
  const counts = await Promise.all(
    parts.map(async ({ query, listed }) => {
      if (listed.length < limit) return listed.length;
      const [row] = await listo.db.select<{ count: number }>(`SELECT ${countSql(query)} AS count`, {
        ...query.values,
        most: COUNT_LIMIT + 1,
        now,
      });
      return row!.count;
    }),
  );
  const count = counts.reduce((sum, each) => sum + each, 0);
  return { count: Math.min(count, COUNT_LIMIT), isMore: count > COUNT_LIMIT };
}

/** A page of a worklist in its order, and a bounded count of all of it. */
export async function readPage(
  { listo, viewer }: Viewing,
  seen: Seen,
  { after, limit }: { after?: string | undefined; limit: number },
) {
  const place = parsePlace(after);
  const { records, parts, now } = await readRows({ listo, viewer }, seen, { after: place, limit: limit + 1 });
  const shown = records.slice(0, limit);
  const isNext = (seen.order ?? seen.definition.order) === 'next';
  const [rows, total] = await Promise.all([
    toRows(listo, shown, isNext),
    place ? { count: 0, isMore: false } : countAll(listo, parts, { limit: limit + 1, now }),
  ]);
  return { rows, total, next: records.length > limit ? toText(shown.at(-1)!.place) : null };
}

/** The rows of some tickets, as far as they stand in the list. */
export async function readRowsOf(
  { listo, viewer }: Viewing,
  seen: Seen,
  numbers: number[],
): Promise<ListRow[]> {
  const { records } = await readRows({ listo, viewer }, seen, { limit: 1000, numbers });
  return toRows(listo, records, (seen.order ?? seen.definition.order) === 'next');
}
