import { DateTime } from 'luxon';
import { compileCalendar, WEEKDAYS, type CalendarSpec } from '../core/calendar';
import { perSecond, report } from './report';

const HOUR = 3_600_000;
const CASES = 2_000;
const ZONE = 'Europe/Lisbon';
const spec: CalendarSpec = {
  name: 'Office',
  timeZone: ZONE,
  hoursPerDay: 10,
  weekly: Object.fromEntries(WEEKDAYS.slice(0, 5).map((day) => [day, [{ from: '08:00', to: '18:00' }]])),
  exceptions: [2024, 2025, 2026, 2027, 2028].map((year) => ({ date: `${year}-12-25`, windows: [] })),
};

/** The plain way: day by day through a general date library. */
function addByDays(t: number, ms: number): number {
  let left = ms;
  for (let day = DateTime.fromMillis(t, { zone: ZONE }).startOf('day'); ; day = day.plus({ days: 1 })) {
    if (day.weekday > 5 || spec.exceptions.some(({ date }) => date === day.toISODate())) continue;
    const start = Math.max(t, day.set({ hour: 8 }).toMillis());
    const end = day.set({ hour: 18 }).toMillis();
    if (end <= start) continue;
    if (end - start >= left) return start + left;
    left -= end - start;
  }
}

function rate(work: (i: number) => unknown, ms = 1_500): number {
  const start = performance.now();
  let i = 0;
  while (performance.now() - start < ms) for (let k = 0; k < 50; k++) work(i++ % CASES);
  return (i * 1000) / (performance.now() - start);
}

/** Adding working time: the compiled calendar against a loop over days, on the same cases. */
export function benchCalendar(): Promise<void> {
  const calendar = compileCalendar(spec);
  const from = Date.UTC(2024, 0, 1);
  const cases = Array.from({ length: CASES }, (_, i) => ({
    t: from + ((i * 7_919_317) % 157_000) * 1_000_000,
    ms: ((i % 400) + 1) * HOUR,
  }));
  const wrong = cases.filter(({ t, ms }) => calendar.addWorking(t, ms) !== addByDays(t, ms)).length;
  const compiled = rate((i) => calendar.addWorking(cases[i]!.t, cases[i]!.ms));
  const between = rate((i) => calendar.workingBetween(cases[i]!.t, cases[i]!.t + cases[i]!.ms * 3));
  const byDays = rate((i) => addByDays(cases[i]!.t, cases[i]!.ms));
  report(
    'addWorking, compiled calendar',
    perSecond(compiled),
    `${Math.round(compiled / byDays).toLocaleString('en')} x the day loop`,
  );
  report('workingBetween, compiled calendar', perSecond(between));
  report('the same through a loop over days (luxon)', perSecond(byDays));
  report('disagreements of the two', `${wrong} / ${CASES}`);
  return Promise.resolve();
}
