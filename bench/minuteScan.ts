/** The truth that calendars are judged by: a minute-by-minute scan of an office's week through Intl. */
export type MinuteScan = { add(t: number, ms: number): number; between(a: number, b: number): number };

const MINUTE = 60_000;
const WEEKDAYS = new Set(['Mon', 'Tue', 'Wed', 'Thu', 'Fri']);

/** Working minutes are those of weekdays from 8:00 to 18:00 in the zone, outside the closed dates. */
export function scanMinutes(
  timeZone: string,
  { from, to, closed }: { from: number; to: number; closed: Set<string> },
): MinuteScan {
  const format = new Intl.DateTimeFormat('en-GB', {
    ...{ timeZone, hourCycle: 'h23', weekday: 'short', year: 'numeric', month: '2-digit', day: '2-digit' },
    ...{ hour: '2-digit', minute: '2-digit' },
  } as Intl.DateTimeFormatOptions);
  const count = Math.round((to - from) / MINUTE);
  const works = new Uint8Array(count);
  for (let i = 0; i < count; i++) {
    // 'Wed, 25/11/2026, 10:24'
    const [weekday, date, time] = format.format(from + i * MINUTE).split(', ') as [string, string, string];
    const hour = Number(time.slice(0, 2));
    const iso = date.split('/').reverse().join('-');
    works[i] = Number(WEEKDAYS.has(weekday) && hour >= 8 && hour < 18 && !closed.has(iso));
  }
  const indexOf = (t: number): number => (t - from) / MINUTE;
  return {
    add(t, ms) {
      let left = ms / MINUTE;
      for (let i = indexOf(t); ; i++) if (works[i] && --left === 0) return from + (i + 1) * MINUTE;
    },
    between(a, b) {
      let minutes = 0;
      for (let i = indexOf(a); i < indexOf(b); i++) minutes += works[i]!;
      return minutes * MINUTE;
    },
  };
}
