import { Temporal } from 'temporal-polyfill';

const DAY_MS = 86_400_000;

/** Maps local dates and times of one zone to instants, by the runtime's IANA data. */
export interface ZoneClock {
  /**
   * The instant of a local minute of a day. A minute that does not exist is read with the offset before the
   * change, one that occurs twice means its first occurrence ('compatible' in ECMA-262's Temporal).
   * @param epochDay days since 1970-01-01, of the local date
   */
  toInstant(epochDay: number, minuteOfDay: number): number;
  /** Whether the local date has any instant at all (Pacific/Apia skipped 2011-12-30). */
  hasDate(epochDay: number): boolean;
}

/** From `at` on, local time is UTC plus `offset`, until the next change. */
type Offset = { at: number; offset: number };

function listOffsets(timeZone: string, from: number, to: number): Offset[] {
  let zoned = Temporal.Instant.fromEpochMilliseconds(from).toZonedDateTimeISO(timeZone);
  const offsets = [{ at: -Infinity, offset: zoned.offsetNanoseconds / 1e6 }];
  for (;;) {
    const next = zoned.getTimeZoneTransition('next');
    if (!next || next.epochMilliseconds > to) return offsets;
    offsets.push({ at: next.epochMilliseconds, offset: next.offsetNanoseconds / 1e6 });
    zoned = next;
  }
}

/** A clock for the local dates from `firstDay` to `endDay` (epoch days); asks should come in rising order. */
export function createZoneClock(timeZone: string, firstDay: number, endDay: number): ZoneClock {
  const offsets = listOffsets(timeZone, (firstDay - 2) * DAY_MS, (endDay + 2) * DAY_MS);
  let start = 0;

  function toInstant(epochDay: number, minuteOfDay: number): number {
    const local = epochDay * DAY_MS + minuteOfDay * 60_000;
    while (start > 0 && local - 2 * DAY_MS < offsets[start]!.at) start--;
    while (start + 1 < offsets.length && local - 2 * DAY_MS >= offsets[start + 1]!.at) start++;
    let i = start;
    // Past the next change by both readings, so beyond its gap or overlap.
    while (i + 1 < offsets.length) {
      const { at, offset } = offsets[i + 1]!;
      if (local - offsets[i]!.offset < at || local - offset < at) break;
      i++;
    }
    return local - offsets[i]!.offset;
  }

  function hasDate(epochDay: number): boolean {
    const [midnight, nextMidnight] = [epochDay * DAY_MS, (epochDay + 1) * DAY_MS];
    return !offsets.some(({ at, offset }, i) => {
      const before = offsets[i - 1]?.offset ?? offset;
      return at + before <= midnight && at + offset >= nextMidnight;
    });
  }

  return { toInstant, hasDate };
}
