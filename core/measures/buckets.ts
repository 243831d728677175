import { findPeriod, periodsAround, type OffsetPeriod } from './zone';

/** By what stretch of time figures are put together. */
export type Unit = 'hour' | 'day' | 'week' | 'month' | 'quarter' | 'year';

const HOUR_MS = 3_600_000;
const DAY_MS = 86_400_000;
const DAYS_OF_WEEK = 7;
/** 1970-01-01 was a Thursday; weeks begin on Monday (ISO 8601). */
const MONDAY_OFFSET = 3;
const MONTHS: Partial<Record<Unit, number>> = { month: 1, quarter: 3, year: 12 };

const dayNumber = (year: number, month: number): number => {
  const date = new Date(0);
  date.setUTCFullYear(year, month, 1);
  return date.getTime() / DAY_MS;
};

/** The local day on which the n-th bucket from that of a day begins, as a day number. */
function firstDay(day: number, unit: Exclude<Unit, 'hour'>, n: number): number {
  if (unit === 'day') return day + n;
  if (unit === 'week')
    return (Math.floor((day + MONDAY_OFFSET) / DAYS_OF_WEEK) + n) * DAYS_OF_WEEK - MONDAY_OFFSET;
  const months = MONTHS[unit]!;
  const date = new Date(day * DAY_MS);
  return dayNumber(date.getUTCFullYear(), (Math.floor(date.getUTCMonth() / months) + n) * months);
}

/** The first instant at which the wall clock shows this local time or a later one. */
function firstInstant(zone: string, local: number): number {
  const periods = periodsAround(zone, local);
  for (let i = 0; ; i++) {
    const { at, offset } = periods[i]!;
    const instant = Math.max(at, local - offset);
    if (instant < (periods[i + 1]?.at ?? Infinity)) return instant;
  }
}

const localDay = (zone: string, at: number): number => {
  const periods = periodsAround(zone, at);
  return Math.floor((at + periods[findPeriod(periods, at)]!.offset) / DAY_MS);
};

/** Whether the wall clock's hour changes or goes back where a period begins. */
function isEdge({ offset }: OffsetPeriod, { at, offset: after }: OffsetPeriod): boolean {
  if (after < offset) return true;
  return Math.floor((at - 1 + offset) / HOUR_MS) !== Math.floor((at + after) / HOUR_MS);
}

function hourOf(zone: string, at: number): number {
  const periods = periodsAround(zone, at);
  let i = findPeriod(periods, at);
  for (let within = at; ; within = periods[i--]!.at - 1) {
    const { at: from, offset } = periods[i]!;
    const start = Math.floor((within + offset) / HOUR_MS) * HOUR_MS - offset;
    if (start >= from) return start;
    if (isEdge(periods[i - 1]!, periods[i]!)) return from;
  }
}

function hourAfter(zone: string, at: number): number {
  const periods = periodsAround(zone, at);
  for (let i = findPeriod(periods, at), within = at; ; i++) {
    const { offset } = periods[i]!;
    const next = (Math.floor((within + offset) / HOUR_MS) + 1) * HOUR_MS - offset;
    const change = periods[i + 1];
    if (!change || next < change.at) return next;
    if (isEdge(periods[i]!, change)) return change.at;
    within = change.at;
  }
}

/**
 * The instant at which the bucket of an instant begins, in the zone's wall time: weeks on Monday, a day whose midnight
 * does not exist with its first instant, an hour where the wall clock's hour changes or goes back.
 * @example bucketOf(Date.UTC(2026, 2, 4, 15), 'week', 'UTC') // Date.UTC(2026, 2, 2)
 */
export function bucketOf(at: number, unit: Unit, zone: string): number {
  if (unit === 'hour') return hourOf(zone, at);
  return firstInstant(zone, firstDay(localDay(zone, at), unit, 0) * DAY_MS);
}

/** The bucket after the one that an instant lies in. A date that a zone skipped has none. */
export function bucketAfter(at: number, unit: Unit, zone: string): number {
  if (unit === 'hour') return hourAfter(zone, at);
  const day = localDay(zone, at);
  for (let n = 1; ; n++) {
    const next = firstInstant(zone, firstDay(day, unit, n) * DAY_MS);
    if (next > at) return next;
  }
}

/** The beginnings of every bucket that [from, to) touches, rising; none where from ≥ to. */
export function listBuckets(from: number, to: number, unit: Unit, zone: string): number[] {
  if (!(from < to)) return [];
  const starts = [bucketOf(from, unit, zone)];
  for (;;) {
    const next = bucketAfter(starts.at(-1)!, unit, zone);
    if (next >= to) return starts;
    starts.push(next);
  }
}

/** The wall clock's weekday (Monday 0) and hour at an instant, as one number from 0 to 167. */
export function hourOfWeek(at: number, zone: string): number {
  const periods = periodsAround(zone, at);
  const local = at + periods[findPeriod(periods, at)]!.offset;
  const day = Math.floor(local / DAY_MS);
  const weekday = (((day + MONDAY_OFFSET) % DAYS_OF_WEEK) + DAYS_OF_WEEK) % DAYS_OF_WEEK;
  return weekday * 24 + Math.floor((local - day * DAY_MS) / HOUR_MS);
}
