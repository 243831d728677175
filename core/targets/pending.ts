import { dueIn } from './inForce';
import type { Calendars, ClockReading, ClockStretch, TargetDefinition } from './types';

/** What a clock says at an instant (ms since 1970): 'late', its breach, or a warning by its percentage. */
export type ClockNotice = [what: string, at: number];

/** What a breach is called among the notices of a clock. */
export const LATE = 'late';

/** The calendar by which a clock runs, or ran last; null: none. */
export function calendarOf(stretches: ClockStretch[]): string | null {
  const last = stretches.findLast(({ mode }) => mode !== 'idle') ?? stretches.at(-1);
  return last?.calendarId ?? null;
}

/** The spans in which a clock was held since it began to count, adjoining ones as one; the last is open (null) while it is held. */
export function heldSpans(
  stretches: ClockStretch[],
  { state, countedFrom }: Pick<ClockReading, 'state' | 'countedFrom'>,
): [from: number, to: number | null][] {
  const spans: [number, number | null][] = [];
  for (const { from, to, mode } of stretches) {
    if (mode !== 'paused' || (countedFrom !== null && from < countedFrom)) continue;
    const last = spans.at(-1);
    if (last && last[1] === from) last[1] = to;
    else spans.push([from, to]);
  }
  if (state === 'paused' && spans.length > 0) spans.at(-1)![1] = null;
  return spans;
}

/**
 * The notices of a clock, past and to come if nothing else happens, in their order: its breach and its warnings.
 * @param calendarId the calendar by which it runs
 * @param readAt the instant of the reading, in ms since 1970
 */
export function listNotices(
  { warnAtPercent }: Pick<TargetDefinition, 'warnAtPercent'>,
  calendars: Calendars,
  { reading, calendarId, readAt }: { reading: ClockReading; calendarId: string | null; readAt: number },
): ClockNotice[] {
  const { state, limit, elapsed, dueAt, breachedAt, warnings } = reading;
  const notices: ClockNotice[] = warnings.map(({ percent, at }) => [`${percent}`, at]);
  const lateAt = breachedAt ?? (state === 'running' ? dueAt : null);
  if (lateAt !== null) notices.unshift([LATE, lateAt]);
  if (state === 'running' && calendarId !== null && limit !== null && dueAt !== null) {
    const crossed = new Set(warnings.map(({ percent }) => percent));
    const inForce = { calendarId, calendar: calendars[calendarId]!, limit };
    for (const percent of new Set(warnAtPercent)) {
      const missing = Math.ceil((percent * limit) / 100) - elapsed;
      const at = crossed.has(percent) || missing <= 0 ? null : dueIn(inForce, readAt, missing);
      if (at !== null) notices.push([`${percent}`, at]);
    }
  }
  return notices.sort(([, one], [, other]) => one - other);
}

/**
 * Whether a notice counts as delivered: at that instant or, where it lies in the past, at another since the clock began to
 * count. A changed calendar moves what was crossed long ago, and nobody is to be told of it twice.
 * @param delivered the notices that were given
 */
export function isDelivered(
  [what, at]: ClockNotice,
  delivered: ClockNotice[],
  { countedFrom, readAt }: { countedFrom: number | null; readAt: number },
): boolean {
  return delivered.some(
    ([name, given]) =>
      name === what && (given === at || (at <= readAt && countedFrom !== null && given >= countedFrom)),
  );
}
