import { Temporal } from 'temporal-polyfill';

/**
 * The beginnings of the last days in a zone, the earliest first, and the end of today: `count` + 1 instants in epoch
 * ms. A day on which clocks change is as long as it is.
 * @example dayEdges(now, 'Europe/Lisbon', 2) // [yesterday 00:00, today 00:00, tomorrow 00:00]
 */
export function dayEdges(now: number, timeZone: string, count: number): number[] {
  const today = Temporal.Instant.fromEpochMilliseconds(now).toZonedDateTimeISO(timeZone).toPlainDate();
  return Array.from(
    { length: count + 1 },
    (_, i) => today.add({ days: i + 1 - count }).toZonedDateTime({ timeZone }).epochMilliseconds,
  );
}
