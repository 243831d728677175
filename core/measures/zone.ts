import { Temporal } from 'temporal-polyfill';

/** From `at` on, local time is UTC plus `offset` (both ms), until the next change. */
export type OffsetPeriod = { at: number; offset: number };

/** Offsets are looked up a stretch at a time, and kept: asking for them one by one is slow. */
const STRETCH = 20 * 365 * 86_400_000;
const known = new Map<string, Map<number, OffsetPeriod[]>>();

function readStretch(zone: string, index: number): OffsetPeriod[] {
  // A day of the year before, so that what holds at its beginning has begun in it.
  const [from, to] = [index * STRETCH, (index + 1) * STRETCH];
  let zoned = Temporal.Instant.fromEpochMilliseconds(from).toZonedDateTimeISO(zone);
  const periods = [{ at: -Infinity, offset: zoned.offsetNanoseconds / 1e6 }];
  for (;;) {
    const next = zoned.getTimeZoneTransition('next');
    if (!next || next.epochMilliseconds >= to) return periods;
    periods.push({ at: next.epochMilliseconds, offset: next.offsetNanoseconds / 1e6 });
    zoned = next;
  }
}

/** The periods of a zone's offsets that lie in a stretch of twenty years, the first without a beginning. */
function periodsOf(zone: string, index: number): OffsetPeriod[] {
  let stretches = known.get(zone);
  if (!stretches) known.set(zone, (stretches = new Map<number, OffsetPeriod[]>()));
  let periods = stretches.get(index);
  if (!periods) stretches.set(index, (periods = readStretch(zone, index)));
  return periods;
}

/** The periods of a zone's offsets around an instant, some months to both sides and more. */
export function periodsAround(zone: string, at: number): OffsetPeriod[] {
  const index = Math.floor(at / STRETCH);
  const reach = 400 * 86_400_000;
  const around = [index];
  if (Math.floor((at - reach) / STRETCH) < index) around.unshift(index - 1);
  if (Math.floor((at + reach) / STRETCH) > index) around.push(index + 1);
  if (around.length === 1) return periodsOf(zone, index);
  // What is said to begin at no time in a later stretch goes on from the one before.
  return around.flatMap((each, i) => periodsOf(zone, each).slice(i === 0 ? 0 : 1));
}

/** Which period an instant lies in. */
export function findPeriod(periods: OffsetPeriod[], at: number): number {
  let [low, high] = [0, periods.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >>> 1;
    if (periods[middle]!.at <= at) low = middle;
    else high = middle - 1;
  }
  return low;
}
