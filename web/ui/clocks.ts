import type { Clock } from '../../contract/clocks';
import type { CompiledCalendar } from '../../core/calendar';
import { showClock } from '../../core/targets';

export type Tone = 'plenty' | 'short' | 'past';
/** A clock as it stands at one instant. */
export type LiveClock = {
  clock: Clock;
  /** Working time left; negative past due; null without a limit. */
  left: number | null;
  usedMinutes: number | null;
  leftMinutes: number | null;
  limitMinutes: number | null;
  tone: Tone;
  hoursPerDay: number | undefined;
};

/** From this share of the limit on, time is getting short. */
const SHORT_FROM = 0.75;

function isGoing({ state }: Clock): boolean {
  return state === 'running' || state === 'paused';
}

/** What is left of a clock now: while it runs, the working time until it is due; else what was left at its event. */
export function readLive(clock: Clock, calendar: CompiledCalendar | undefined, now: number): LiveClock {
  const { limit, elapsed, dueAt, state } = clock;
  const runs = state === 'running' && dueAt !== null && calendar !== undefined;
  const left = limit === null ? null : runs ? calendar.workingBetween(now, dueAt) : limit - elapsed;
  const shown = left === null ? null : showClock({ elapsed: limit! - left, limit });
  const isPast = isGoing(clock)
    ? left !== null && (left < 0 || (dueAt !== null && now > dueAt))
    : state === 'missed';
  const tone = isPast
    ? 'past'
    : limit !== null && left !== null && left < limit * (1 - SHORT_FROM)
      ? 'short'
      : 'plenty';
  return {
    clock,
    left,
    tone: isGoing(clock) || isPast ? tone : 'plenty',
    hoursPerDay: calendar?.spec.hoursPerDay,
    usedMinutes: shown?.usedMinutes ?? null,
    leftMinutes: shown?.leftMinutes ?? null,
    limitMinutes: shown?.limitMinutes ?? null,
  };
}

/** The clock to show for a ticket: the running one that is due first, else a held one, else none. */
export function getTightest(clocks: Clock[]): Clock | null {
  let first: Clock | null = null;
  for (const clock of clocks)
    if (clock.state === 'running' && clock.dueAt !== null && (!first || clock.dueAt < first.dueAt!))
      first = clock;
  return (
    first ?? clocks.find(({ state, measures }) => state === 'paused' && measures === 'resolution') ?? null
  );
}

/** The clock that promises the end. */
export function getPromise(clocks: Clock[]): Clock | null {
  return clocks.find(({ measures }) => measures === 'resolution') ?? null;
}
