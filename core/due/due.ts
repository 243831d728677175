import { Temporal } from 'temporal-polyfill';

/** When someone said that work is due: at an instant, or on a bare date, which is due at its end. */
export type DueByHand = { at: number } | { date: string };

/** How work stands to its due instant; finished exactly at it is in time. */
export type DueStanding = 'toCome' | 'past' | 'inTime' | 'late';

/**
 * The due instant. A bare date ends in the zone of whoever holds the work.
 * @example dueInstant({ date: '2026-10-31' }, 'Atlantic/Azores') // 2026-11-01T00:00-01:00
 */
export function dueInstant(due: DueByHand, timeZone: string): number {
  if ('at' in due) return due.at;
  const end = Temporal.PlainDate.from(due.date).add({ days: 1 }).toZonedDateTime(timeZone);
  return end.epochMilliseconds;
}

/**
 * What is wrong with a reminder of a due instant, both in ms since 1970; null: nothing. It belongs to a due instant, before
 * it, and to come.
 */
export function checkReminder(
  remindAt: number,
  dueAt: number | null,
  now: number,
): 'needsDue' | 'notPossible' | 'afterDue' | null {
  if (dueAt === null) return 'needsDue';
  if (remindAt <= now) return 'notPossible';
  return remindAt < dueAt ? null : 'afterDue';
}

/** From so many working ms before its due instant on, time is getting short for work without a limit. */
const SHORT_MS = 7_200_000;

/** Whether a due instant has passed; work that ends exactly at it is in time. Both in ms since 1970. */
export function isPast(dueAt: number, now: number): boolean {
  return now > dueAt;
}

/** How near work is to its due instant. @param left working ms until then; null: not known yet */
export function toneOfDue(dueAt: number, left: number | null, now: number): 'plenty' | 'short' | 'past' {
  if (isPast(dueAt, now)) return 'past';
  return left !== null && left < SHORT_MS ? 'short' : 'plenty';
}

/** How something stands to its due instant, all in ms since 1970. @param finishedAt null: not yet */
export function judgeDue(dueAt: number, finishedAt: number | null, now: number): DueStanding {
  if (finishedAt !== null) return finishedAt <= dueAt ? 'inTime' : 'late';
  return isPast(dueAt, now) ? 'past' : 'toCome';
}
