import { Temporal } from 'temporal-polyfill';

/** The instant that 'YYYY-MM-DDTHH:MM' is in a zone; null while it is not whole. */
export function zonedInstant(text: string, timeZone: string): number | null {
  try {
    return Temporal.PlainDateTime.from(text).toZonedDateTime(timeZone).epochMilliseconds;
  } catch {
    return null;
  }
}

/** How an instant is written in a zone, for fields of date and time. */
export function toZonedText(at: number, timeZone: string): string {
  const zoned = Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(timeZone);
  return zoned.toPlainDateTime().toString({ smallestUnit: 'minute' });
}
