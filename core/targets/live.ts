import type { CompiledCalendar } from '../calendar';
import { showClock } from './shown';
import { isGoing, isPastDue, standingOf } from './standing';
import type { ClockReading } from './types';

/** A clock as it was kept at its last event; while it runs, what is left is the working time until `dueAt`. */
export type KeptClock = Pick<ClockReading, 'state' | 'elapsed' | 'limit' | 'dueAt' | 'breachedAt'>;

/** How near its due instant something is: there is time, time is getting short, or it is past due. */
export type Tone = 'plenty' | 'short' | 'past';

/** A clock as it stands at one instant. */
export type LiveClock<Clock extends KeptClock = KeptClock> = {
  clock: Clock;
  /** Working ms left; negative past due; null without a limit, or as long as its calendar is not known. */
  left: number | null;
  usedMinutes: number | null;
  leftMinutes: number | null;
  limitMinutes: number | null;
  tone: Tone;
  hoursPerDay: number | undefined;
};

/** From this share of the limit on, time is getting short. */
const SHORT_FROM = 0.75;

/** Working ms left: of a running clock the time until it is due, else what was left at its last event. */
function readLeft(
  { limit, elapsed, dueAt, state }: KeptClock,
  calendar: CompiledCalendar | undefined,
  now: number,
): number | null {
  if (limit === null) return null;
  if (state !== 'running' || dueAt === null) return limit - elapsed;
  return calendar ? calendar.workingBetween(now, dueAt) : null;
}

function toneOf(clock: KeptClock, left: number | null, now: number): Tone {
  if (!isGoing(clock)) return standingOf(clock, now) === 'missed' ? 'past' : 'plenty';
  if (isPastDue(clock, now) || (left !== null && left < 0)) return 'past';
  return clock.limit !== null && left !== null && left < clock.limit * (1 - SHORT_FROM) ? 'short' : 'plenty';
}

/**
 * A kept clock as it stands now.
 * @param calendar the calendar it runs by; undefined: not known yet, and nothing is said of the time that is left
 * @param now ms since 1970
 */
export function readLive<Clock extends KeptClock>(
  clock: Clock,
  calendar: CompiledCalendar | undefined,
  now: number,
): LiveClock<Clock> {
  const left = readLeft(clock, calendar, now);
  const shown = left === null ? null : showClock({ elapsed: clock.limit! - left, limit: clock.limit });
  return {
    clock,
    left,
    tone: toneOf(clock, left, now),
    hoursPerDay: calendar?.spec.hoursPerDay,
    usedMinutes: shown?.usedMinutes ?? null,
    leftMinutes: shown?.leftMinutes ?? null,
    limitMinutes: shown?.limitMinutes ?? null,
  };
}

/** The due instant of what is due first among the clocks that are going, in ms since 1970; null: none. */
export function tightestDue(clocks: Pick<KeptClock, 'state' | 'dueAt'>[]): number | null {
  const dues = clocks.flatMap((clock) => (isGoing(clock) && clock.dueAt !== null ? [clock.dueAt] : []));
  return dues.length === 0 ? null : Math.min(...dues);
}

/** The clock to show for a ticket: the one of `tightestDue`, else the held one for its resolution, else none. */
export function tightestClock<Clock extends KeptClock & { measures: string }>(clocks: Clock[]): Clock | null {
  const due = tightestDue(clocks);
  const first = due === null ? null : clocks.find((clock) => isGoing(clock) && clock.dueAt === due);
  return (
    first ?? clocks.find(({ state, measures }) => state === 'paused' && measures === 'resolution') ?? null
  );
}
