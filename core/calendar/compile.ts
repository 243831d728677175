import { NoWorkingTime } from './errors';
import type { CalendarSpec, CompiledCalendar } from './types';
import { validateCalendar } from './validate';
import { createWindowBuilder, type Edges } from './windows';

const DAY_MS = 86_400_000;
const REACH = 3_653 * DAY_MS;
/** How far the built range grows at a time, and how much of its rim may still be cut by zone and midnight. */
const GROWTH_DAYS = 400;
const RIM = 3 * DAY_MS;

/**
 * Turns a calendar's spec into working-time arithmetic.
 *
 * Working time is kept as sorted edges with running sums, built lazily around the instants asked for: `covered`
 * says for which instants the edges are complete. Every answer is then a look-up by day and at most one binary search.
 * @throws a CalendarError that names what is wrong with the spec
 */
export function compileCalendar(spec: CalendarSpec): CompiledCalendar {
  validateCalendar(spec);
  const build = createWindowBuilder(spec);
  let edges: Edges = { starts: new Float64Array(0), ends: new Float64Array(0), before: new Float64Array(1) };
  let firstDay = 0;
  let endDay = 0;
  let covered = { from: Infinity, to: -Infinity };
  /** For each day of the built range, how many windows start before it: where a search begins. */
  let startedBefore = new Int32Array(0);

  function cover(from: number, to: number): void {
    if (from >= covered.from && to <= covered.to) return;
    const wantedFirst = Math.floor(from / DAY_MS) - GROWTH_DAYS;
    const wantedEnd = Math.ceil(to / DAY_MS) + GROWTH_DAYS;
    firstDay = endDay === firstDay ? wantedFirst : Math.min(firstDay, wantedFirst);
    endDay = Math.max(endDay, wantedEnd);
    edges = build(firstDay, endDay);
    covered = { from: firstDay * DAY_MS + RIM, to: endDay * DAY_MS - RIM };
    startedBefore = new Int32Array(endDay - firstDay);
    for (let day = 0, i = 0; day < startedBefore.length; day++) {
      while (i < edges.starts.length && edges.starts[i]! < (firstDay + day) * DAY_MS) i++;
      startedBefore[day] = i;
    }
  }

  /** The number of windows that start at or before `t`, which lies in what is covered. */
  function startedBy(t: number): number {
    const { starts } = edges;
    let i = startedBefore[Math.floor(t / DAY_MS) - firstDay]!;
    while (i < starts.length && starts[i]! <= t) i++;
    return i;
  }

  /** The last window before which less than `sum` (or, inclusive, at most `sum`) has been worked. */
  function windowAtSum(sum: number, inclusive: boolean): number {
    const { before, starts } = edges;
    let low = 0;
    let high = starts.length;
    while (low < high) {
      const middle = (low + high) >>> 1;
      const worked = before[middle]!;
      if (inclusive ? worked <= sum : worked < sum) low = middle + 1;
      else high = middle;
    }
    return low - 1;
  }

  /** Working time from the beginning of the built range until `t`. */
  function workedUntil(t: number): number {
    const i = startedBy(t) - 1;
    if (i < 0) return 0;
    return edges.before[i]! + Math.min(t, edges.ends[i]!) - edges.starts[i]!;
  }

  function workingBetween(a: number, b: number): number {
    if (b < a) return -workingBetween(b, a) || 0;
    cover(a, b);
    return workedUntil(b) - workedUntil(a);
  }

  function isWorking(t: number): boolean {
    cover(t, t);
    const i = startedBy(t) - 1;
    return i >= 0 && t < edges.ends[i]!;
  }

  function addForward(t: number, ms: number): number {
    const total = workedUntil(t) + ms;
    if (total > edges.before[edges.starts.length]!) return Infinity;
    const i = windowAtSum(total, false);
    return edges.starts[i]! + total - edges.before[i]!;
  }

  function addBackward(t: number, ms: number): number {
    const total = workedUntil(t) + ms;
    if (total < 0) return -Infinity;
    const i = windowAtSum(total, true);
    return edges.starts[i]! + total - edges.before[i]!;
  }

  function addWorking(t: number, ms: number): number {
    if (ms === 0) return t;
    const step = ms > 0 ? addForward : addBackward;
    cover(t, t);
    let answer = step(t, ms);
    for (let reach = GROWTH_DAYS * DAY_MS; !isCovered(answer); reach *= 2) {
      const end = ms > 0 ? t + Math.min(reach, REACH) : t - Math.min(reach, REACH);
      cover(Math.min(t, end), Math.max(t, end));
      answer = step(t, ms);
      if (reach >= REACH) break;
    }
    if (Math.abs(answer - t) > REACH) throw new NoWorkingTime(spec.name);
    return answer;
  }

  function nextWorking(t: number): number {
    if (isWorking(t)) return t;
    for (let reach = GROWTH_DAYS * DAY_MS; ; reach *= 2) {
      const start = edges.starts[startedBy(t)] ?? Infinity;
      if (isCovered(start) && start - t <= REACH) return start;
      if (covered.to - t > REACH) throw new NoWorkingTime(spec.name);
      cover(t, t + Math.min(reach, REACH));
    }
  }

  function windowsBetween(a: number, b: number): { from: number; to: number }[] {
    cover(a, b);
    const windows: { from: number; to: number }[] = [];
    for (let i = Math.max(0, startedBy(a) - 1); i < edges.starts.length && edges.starts[i]! < b; i++) {
      const [from, to] = [Math.max(a, edges.starts[i]!), Math.min(b, edges.ends[i]!)];
      if (to > from) windows.push({ from, to });
    }
    return windows;
  }

  function isCovered(t: number): boolean {
    return t >= covered.from && t <= covered.to;
  }

  return { spec, isWorking, workingBetween, addWorking, nextWorking, windowsBetween };
}
