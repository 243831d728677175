/** Minutes after midnight, where the person works; over midnight where `from` is later than `to`. */
export type QuietHours = { from: number; to: number };

/**
 * Whether an instant falls into someone's quiet hours.
 * @example isQuiet(Date.parse('2026-11-25T23:30:00Z'), { from: 1320, to: 420 }, 'UTC') // true
 */
export function isQuiet(at: number, hours: QuietHours | null, timeZone: string): boolean {
  if (!hours || hours.from === hours.to) return false;
  const parts = new Intl.DateTimeFormat('en-GB', {
    ...{ hour: '2-digit', minute: '2-digit', hourCycle: 'h23', timeZone },
  }).formatToParts(at);
  const partOf = (type: string): number => Number(parts.find((part) => part.type === type)?.value);
  const minute = partOf('hour') * 60 + partOf('minute');
  return hours.from < hours.to
    ? minute >= hours.from && minute < hours.to
    : minute >= hours.from || minute < hours.to;
}
