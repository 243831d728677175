import { toSql, toTest, type Column, type Compiled, type Condition, type Test } from '../conditions';
import type { ClockReading } from './types';

/**
 * How a clock stands to its target at an instant, said once as conditions, so that memory and database read the same.
 *
 * - going: it runs or is held.
 * - past due: it is going and its due instant has passed. Work that ends exactly at the due instant is in time. A held
 *   clock has a due instant only once that was passed.
 * - missed: it ended past due, or is going past due.
 */
export type Standing = 'met' | 'missed' | 'running';

/** What the standing of a clock is read from, of a reading or of a stored clock. Instants in ms since 1970. */
export type JudgedClock = Pick<ClockReading, 'state' | 'dueAt' | 'breachedAt'>;

const GOING: Condition = { field: 'state', op: 'in', value: ['running', 'paused'] };
const pastDueAt = (now: number): Condition => ({ all: [GOING, { field: 'dueAt', op: 'lt', value: now }] });
const missedAt = (now: number): Condition => ({
  any: [
    { field: 'state', op: 'is', value: 'missed' },
    { all: [GOING, { field: 'breachedAt', op: 'notEmpty' }] },
    pastDueAt(now),
  ],
});
const MET: Condition = { field: 'state', op: 'is', value: 'met' };

const going = toTest(GOING);
const met = toTest(MET);
/** The tests of the instant that was asked for last: lists ask for one instant of many clocks. */
let latest: { now: number; pastDue: Test; missed: Test } | null = null;

function testsAt(now: number): { pastDue: Test; missed: Test } {
  if (latest?.now !== now) latest = { now, pastDue: toTest(pastDueAt(now)), missed: toTest(missedAt(now)) };
  return latest;
}

/** Whether a clock runs or is held. */
export function isGoing(clock: Pick<JudgedClock, 'state'>): boolean {
  return going(clock);
}

/** Whether a clock is going and its due instant has passed. @param now ms since 1970 */
export function isPastDue(clock: JudgedClock, now: number): boolean {
  return testsAt(now).pastDue(clock);
}

/** How a clock stands; null where it never began or was called off, and so promised nothing. @param now ms since 1970 */
export function standingOf(clock: JudgedClock, now: number): Standing | null {
  if (met(clock)) return 'met';
  if (testsAt(now).missed(clock)) return 'missed';
  return isGoing(clock) ? 'running' : null;
}

/**
 * `standingOf` as SQL: an expression that is 'met', 'missed', 'running' or NULL, with the values of its named places.
 * @param table the alias of the table of clocks
 */
export function standingSql(table: string, now: number): Compiled {
  const columns: Record<string, Column> = {
    state: { sql: `${table}.state`, type: 'text' },
    dueAt: { sql: `${table}.dueAt`, type: 'number' },
    breachedAt: { sql: `${table}.breachedAt`, type: 'number' },
  };
  const [ended, missed, runs] = [
    toSql(MET, columns, 'met'),
    toSql(missedAt(now), columns, 'missed'),
    toSql(GOING, columns, 'going'),
  ];
  return {
    sql: `CASE WHEN ${ended.sql} THEN 'met' WHEN ${missed.sql} THEN 'missed' WHEN ${runs.sql} THEN 'running' END`,
    values: { ...ended.values, ...missed.values, ...runs.values },
  };
}
