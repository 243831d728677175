/** A day of the calendar, as ISO 8601 writes it: 2026-03-01. */
type Day = string;

/** Whole months from one day to another; 0 where the second is not after the first. */
export function monthsBetween(from: Day, to: Day): number {
  const [y1, m1, d1] = from.split('-').map(Number) as [number, number, number];
  const [y2, m2, d2] = to.split('-').map(Number) as [number, number, number];
  // A month that began on the 31st is over on the last day of a shorter one.
  const last = new Date(Date.UTC(y2, m2, 0)).getUTCDate();
  const months = (y2 - y1) * 12 + (m2 - m1) - (d2 < Math.min(d1, last) ? 1 : 0);
  return Math.max(0, months);
}

/**
 * What a thing is still worth, in cents: its cost goes down by the same part every month until nothing is left
 * (straight-line depreciation, to nothing).
 * @param months over how many months; at least 1
 * @example worthOn({ cost: 120_000, boughtOn: '2026-01-15', months: 48 }, '2027-01-15') // 90 000
 */
export function worthOn(
  { cost, boughtOn, months }: { cost: number; boughtOn: Day; months: number },
  on: Day,
): number {
  const gone = Math.min(months, monthsBetween(boughtOn, on));
  return cost - Math.round((cost * gone) / months);
}
