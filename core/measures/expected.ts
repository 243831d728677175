import { erlangC } from '../routing';
import { poissonTail } from '../surge';
import { bucketAfter, hourOfWeek } from './buckets';

/** How many came in an hour that began then. */
export type HourCount = { at: number; count: number };
/** How many are expected in an hour: their mean, and the bounds within which nine of ten such hours lie. */
export type Expected = { at: number; mean: number; low: number; high: number };

/** So many of the same weekday and hour are looked at. */
const ALIKE = 8;
/** Four weeks of hours. */
const TREND_HOURS = 672;
const [LEAST_TREND, MOST_TREND] = [0.5, 2];
const [LOW, HIGH] = [0.05, 0.95];

/** The least whole number above `low` that is enough, where every greater one is too; looked for from `high` on. */
function leastEnough(isEnough: (count: number) => boolean, low: number, high: number): number {
  while (!isEnough(high)) [low, high] = [high, high * 2];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (isEnough(middle)) high = middle;
    else low = middle;
  }
  return high;
}

/** The least count that a Poisson count with this mean does not exceed with chance q. */
export function poissonQuantile(q: number, mean: number): number {
  if (mean <= 0) return 0;
  return leastEnough((count) => 1 - poissonTail(count + 1, mean) >= q, -1, Math.max(1, Math.ceil(mean)));
}

const sumOf = (counts: HourCount[]): number => counts.reduce((sum, { count }) => sum + count, 0);

/** How the last four weeks stand to the four before; 1 where too little is known. */
function trendOf(counts: HourCount[]): number {
  if (counts.length < 2 * TREND_HOURS) return 1;
  const now = sumOf(counts.slice(-TREND_HOURS));
  const before = sumOf(counts.slice(-2 * TREND_HOURS, -TREND_HOURS));
  if (now === 0 || before === 0) return 1;
  return Math.min(MOST_TREND, Math.max(LEAST_TREND, now / before));
}

/**
 * How many will come in each of the next hours: the mean of the last eight of the same weekday and hour of the zone's
 * wall time, times how the last four weeks stand to the four before.
 * @param counts by hour, rising, without gaps
 */
export function expectedArrivals(counts: HourCount[], ahead: number, zone: string): Expected[] {
  const last = counts.at(-1);
  if (!last) return [];
  const trend = trendOf(counts);
  const alike = new Map<number, number[]>();
  for (const { at, count } of counts) {
    const hour = hourOfWeek(at, zone);
    const list = alike.get(hour);
    if (list) list.push(count);
    else alike.set(hour, [count]);
  }
  const expected: Expected[] = [];
  for (let at = last.at; expected.length < ahead;) {
    at = bucketAfter(at, 'hour', zone);
    const same = (alike.get(hourOfWeek(at, zone)) ?? []).slice(-ALIKE);
    const mean = same.length > 0 ? (same.reduce((sum, count) => sum + count, 0) / same.length) * trend : 0;
    expected.push({ at, mean, low: poissonQuantile(LOW, mean), high: poissonQuantile(HIGH, mean) });
  }
  return expected;
}

/** What comes in an hour, how long one takes, and how many of them are to wait at most how long. */
export type Staffing = {
  perHour: number;
  handlingSeconds: number;
  withinSeconds: number;
  /** Between 0 and 1. */
  share: number;
};

/**
 * The fewest agents with which at least that share waits at most so long (A. K. Erlang's formula C); 0 where nobody comes.
 * @throws RangeError where the share is not between 0 and 1
 */
export function agentsFor({ perHour, handlingSeconds, withinSeconds, share }: Staffing): number {
  if (!(share > 0 && share < 1)) throw new RangeError(`${share}: a share lies between 0 and 1`);
  if (!(perHour > 0)) return 0;
  const load = (perHour * handlingSeconds) / 3_600;
  const isEnough = (agents: number): boolean => {
    if (agents <= load) return false;
    const late = Math.exp((-(agents - load) * withinSeconds) / handlingSeconds);
    return 1 - erlangC(agents, load) * late >= share;
  };
  if (handlingSeconds <= 0) return 1;
  return leastEnough(isEnough, 0, Math.max(1, Math.ceil(load)));
}
