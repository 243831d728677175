import { isNever, simplify, toSql, type Compiled, type Condition } from '../../core/conditions';
import type { Viewer } from '../../core/rights';
import {
  directionOf,
  getListField,
  type Direction,
  type Grouping,
  type Order,
  type Place,
  type Work,
} from '../../core/worklist';
import { visibleTo } from '../tickets/visibility';
import { COLUMNS_OF, valueSql } from './columns';

type Sorting = { key: string; direction: Direction; group: string | null };

const DUE: Record<Work, string> = { ticket: 't.tightestDueAt', step: 'ps.neededBy', decision: 'a.neededBy' };
/** A step's or an approval's own place: by when it is needed, with the head start of its ticket. */
const NEXT: Record<Work, string> = {
  ticket: 't.moveBy',
  step: 'ps.neededBy - t.headStart',
  decision: 'a.neededBy - t.headStart',
};

function keyOf(order: Order, work: Work, isFinished: boolean): string {
  switch (order) {
    case 'next':
      return NEXT[work];
    case 'tightest':
      return DUE[work];
    case 'newest':
    case 'oldest':
      return 't.number';
    case 'changed':
      return 't.changedAt';
    case 'closed':
      return isFinished ? 't.closedAt' : 'COALESCE(t.closedAt, 0)';
    case 'priority':
      return 't.priority';
  }
}

/** How SQL orders by a group: choices in their own order, nothing first. */
function groupSql(groupBy: Grouping, work: Work): string {
  const sql = valueSql(work, groupBy);
  const field = getListField(groupBy);
  return field?.kind === 'choice'
    ? `FIELD(${sql}, ${field.choices.map((choice) => `'${choice}'`).join()})`
    : `COALESCE(${sql}, '')`;
}

/** Whether all that a condition lets through belongs to the viewer's teams, which may read all of it. */
function isOfTheirTeams(condition: Condition, viewer: Viewer): boolean {
  const own = new Set<unknown>(viewer.teams.map(({ teamId }) => teamId));
  if ('any' in condition) return condition.any.every((part) => isOfTheirTeams(part, viewer));
  return partsOf(condition).some(
    (part) =>
      ('any' in part && part.any.length > 0 && isOfTheirTeams(part, viewer)) ||
      ('op' in part &&
        part.field === 'teamId' &&
        ((part.op === 'is' && own.has(part.value)) ||
          (part.op === 'in' && part.value.every((value) => own.has(value))))),
  );
}

const SPLIT_FIELDS = ['teamId', 'state'];
const MOST_BRANCHES = 40;

const partsOf = (condition: Condition): Condition[] => ('all' in condition ? condition.all : [condition]);
const both = (one: Condition, other: Condition): Condition => ({ all: [...partsOf(one), ...partsOf(other)] });

/** Alternatives as parts that exclude each other: each without what the ones before let through. */
function splitAny(alternatives: Condition[]): Condition[] {
  return alternatives.map((part, i) =>
    alternatives.slice(0, i).reduce((all, before) => both(all, { not: before }), part),
  );
}

/** One part of a condition as several that exclude each other, where an index can tell them apart. */
function splitPart(part: Condition): Condition[] {
  if ('any' in part && part.any.length > 1) return splitAny(part.any).flatMap(splitBranches);
  if ('op' in part && part.op === 'in' && SPLIT_FIELDS.includes(part.field) && part.value.length > 0)
    return [...new Set(part.value)].map((value) => ({ field: part.field, op: 'is' as const, value }));
  return [part];
}

/**
 * A condition as several that exclude each other, each on single teams, states and alternatives: so each is one stretch
 * of an index in the order of the list, where `IN` or `OR` would have all of it sorted.
 */
export function splitBranches(condition: Condition): Condition[] {
  let branches: Condition[] = [{ all: [] }];
  for (const part of partsOf(condition)) {
    const splits = splitPart(part);
    const isFew = branches.length * splits.length <= MOST_BRANCHES;
    branches = isFew
      ? branches.flatMap((branch) => splits.map((split) => both(branch, split)))
      : branches.map((branch) => both(branch, part));
  }
  return branches;
}

/** What falls due before an instant moves before it too, as no head start is negative: so the order's index is left there. */
function boundOf(branch: Condition): number | null {
  for (const part of partsOf(branch))
    if (
      'op' in part &&
      part.field === 'dueAt' &&
      (part.op === 'lt' || part.op === 'lte') &&
      typeof part.value === 'number'
    )
      return part.value;
  return null;
}

function isFinished(branch: Condition): boolean {
  return (
    'all' in branch &&
    branch.all.some(
      (part) =>
        'op' in part &&
        part.op === 'is' &&
        part.field === 'state' &&
        (part.value === 'closed' || part.value === 'withdrawn'),
    )
  );
}

/** What comes after a place, by the order's direction; groups always rise. */
function beyond({ key, direction, group }: Sorting, place: Place | null, part: string): string {
  if (!place) return '';
  const sign = direction === 'ASC' ? '>' : '<';
  const within = `(${key} ${sign} :afterKey OR (${key} = :afterKey AND (t.number ${sign} :afterNumber OR (t.number = :afterNumber AND ${part} > :afterPart))))`;
  // Also said plainly, so that an index is entered at the place.
  const entered = `${key} ${sign}= :afterKey AND ${within}`;
  return group ? `AND (${group} > :afterGroup OR (${group} = :afterGroup AND ${within}))` : `AND ${entered}`;
}

const FROM: Record<Work, string> = {
  ticket: 'tickets t',
  step: "plan_steps ps JOIN tickets t ON t.number = ps.ticketNumber AND t.state IN ('received', 'inWork', 'held')",
  decision: `(SELECT a0.id, a0.ticketNumber, a0.askedId, ap.name AS asked,
      COALESCE((SELECT MIN(c.dueAt) FROM clocks c WHERE c.ticketNumber = a0.ticketNumber AND c.work = CONCAT('approval:', ap.id) AND c.state = 'running'),
        a0.askedAt + :decideMs) AS neededBy
    FROM asks a0 JOIN approvals ap ON ap.id = a0.approvalId AND ap.outcome = 'open'
    WHERE a0.askedId = :viewerId AND a0.decision IS NULL) a JOIN tickets t ON t.number = a.ticketNumber`,
};
const PART: Record<Work, string> = { ticket: "''", step: 'ps.stepId', decision: "CONCAT('ask:', a.id)" };
const ALWAYS_SQL: Record<Work, string> = { ticket: 'TRUE', step: "ps.state = 'active'", decision: 'TRUE' };

export type ListQuery = {
  viewer: Viewer;
  /** With what stands for something said outright. */
  condition: Condition;
  order: Order;
  groupBy: Grouping | null;
  after: Place | null;
  /** Only these tickets. */
  numbers?: number[];
};

type Branch = { sql: string; sorting: Sorting };
export type WorkQuery = { work: Work; branches: Branch[]; where: string; values: Record<string, unknown> };

/** Where no promise says by when, a decision is wanted within two days. */
const DECIDE_MS = 2 * 86_400_000;

/** One kind of work's part of a list, or null where the condition leaves none of it. */
export function createWorkQuery(work: Work, query: ListQuery): WorkQuery | null {
  const { viewer, order, groupBy, after, numbers } = query;
  const condition = simplify(query.condition, { work });
  if (isNever(condition)) return null;
  const visible = visibleTo(viewer);
  const isOpenToThem = work === 'decision' || (work === 'ticket' && isOfTheirTeams(condition, viewer));
  const values: Record<string, unknown> = {
    ...visible.values,
    decideMs: DECIDE_MS,
    ...(numbers && { numbers }),
    ...(after && { afterGroup: after[0], afterKey: after[1], afterNumber: after[2], afterPart: after[3] }),
  };
  const group = groupBy && groupSql(groupBy, work);
  const rest = [
    ALWAYS_SQL[work],
    ...(isOpenToThem ? [] : [visible.sql]),
    ...(numbers ? ['t.number IN (:numbers)'] : []),
  ].join(' AND ');
  const split = work === 'ticket' && group === null ? splitBranches(condition) : [condition];
  const compile = (part: Condition, prefix: string): Compiled => toSql(part, COLUMNS_OF[work], prefix);
  const branches = split.map((branch, i) => {
    const compiled = compile(branch, `c${i}x`);
    Object.assign(values, compiled.values);
    const sorting = { key: keyOf(order, work, isFinished(branch)), direction: directionOf(order), group };
    const bound = work === 'ticket' && order === 'next' ? boundOf(branch) : null;
    if (bound !== null) values[`bound${i}`] = bound;
    const bounded = bound === null ? '' : `AND t.moveBy <= :bound${i}`;
    return { sorting, sql: `${compiled.sql} AND ${rest} ${bounded} ${beyond(sorting, after, PART[work])}` };
  });
  const whole = compile(condition, 'w');
  Object.assign(values, whole.values);
  return { work, branches, where: `${whole.sql} AND ${rest}`, values };
}

/** The places of a part's first rows, as a derived table `k`: each branch off its index, then merged. */
export function placesSql({ work, branches }: WorkQuery): string {
  const one = ({ sql, sorting: { key, direction, group } }: Branch): string =>
    `(SELECT t.number AS n, ${PART[work]} AS part, ${key} AS sortKey, ${group ?? "''"} AS sortGroup FROM ${FROM[work]}
      WHERE ${sql} ORDER BY ${group ? `${group}, ` : ''}${key} ${direction}, t.number ${direction} LIMIT :limit)`;
  const { direction } = branches[0]!.sorting;
  if (branches.length === 1) return one(branches[0]!);
  return `(SELECT * FROM (${branches.map(one).join(' UNION ALL ')}) u
    ORDER BY sortGroup, sortKey ${direction}, n ${direction} LIMIT :limit)`;
}

/** Counts a part, up to `:most`. */
export function countSql({ work, where }: WorkQuery): string {
  return `(SELECT COUNT(*) FROM (SELECT 1 FROM ${FROM[work]} WHERE ${where} LIMIT :most) x)`;
}

export const fromSql = (work: Work): string => FROM[work];
