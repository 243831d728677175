import dayjs from 'dayjs';
import businessTime from 'dayjs-business-time';
import { DateTime } from 'luxon';
import OpeningHours from 'opening_hours';
import { compileCalendar, WEEKDAYS, type CalendarSpec } from '../core/calendar';
import { scanMinutes } from './minuteScan';
import { perSecond, report } from './report';

const [MINUTE, HOUR, DAY] = [60_000, 3_600_000, 86_400_000];
const CASES = 2_000;
/** The slow ones are given as many as fit. */
const JUDGED = 400;
const ZONE = 'Europe/Lisbon';
const FROM = Date.UTC(2024, 0, 1);
const TO = Date.UTC(2029, 6, 1);
/** Ten fixed holidays a year. */
const HOLIDAYS = ['01-01', '04-25', '05-01', '06-10', '08-15', '10-05', '11-01', '12-01', '12-08', '12-25'];
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const CLOSED = [2024, 2025, 2026, 2027, 2028, 2029].flatMap((year) =>
  HOLIDAYS.map((date) => `${year}-${date}`),
);
const spec: CalendarSpec = {
  name: 'Office',
  timeZone: ZONE,
  hoursPerDay: 10,
  weekly: Object.fromEntries(WEEKDAYS.slice(0, 5).map((day) => [day, [{ from: '08:00', to: '18:00' }]])),
  exceptions: CLOSED.map((date) => ({ date, windows: [] })),
};

type Candidate = { name: string; add(t: number, ms: number): number; between(a: number, b: number): number };

/** The plain way: day by day through a general date library. */
const dayLoop: Candidate = {
  name: 'a loop over days (luxon)',
  add(t, ms) {
    let left = ms;
    for (let day = DateTime.fromMillis(t, { zone: ZONE }).startOf('day'); ; day = day.plus({ days: 1 })) {
      const window = windowOf(day, t, Infinity);
      if (window <= 0) continue;
      const start = Math.max(t, day.set({ hour: 8 }).toMillis());
      if (window >= left) return start + left;
      left -= window;
    }
  },
  between(a, b) {
    let total = 0;
    for (
      let day = DateTime.fromMillis(a, { zone: ZONE }).startOf('day');
      day.toMillis() < b;
      day = day.plus({ days: 1 })
    )
      total += Math.max(0, windowOf(day, a, b));
    return total;
  },
};

function windowOf(day: DateTime, from: number, to: number): number {
  if (day.weekday > 5 || CLOSED.includes(day.toISODate()!)) return 0;
  return Math.min(to, day.set({ hour: 18 }).toMillis()) - Math.max(from, day.set({ hour: 8 }).toMillis());
}

/** It works in the process's zone, so the process is put into the calendar's. */
function createBusinessTime(): Candidate {
  dayjs.extend(businessTime);
  const day = [{ start: '08:00:00', end: '18:00:00' }];
  dayjs.setBusinessTime({
    ...{
      sunday: null,
      monday: day,
      tuesday: day,
      wednesday: day,
      thursday: day,
      friday: day,
      saturday: null,
    },
  } as never);
  dayjs.setHolidays(CLOSED);
  return {
    name: 'dayjs-business-time',
    add: (t, ms) =>
      dayjs(t)
        .addBusinessMinutes(ms / MINUTE)
        .valueOf(),
    between: (a, b) => dayjs(b).businessMinutesDiff(dayjs(a)) * MINUTE,
  };
}

/** 'Dec 25 off' */
function offRule(date: string): string {
  return `${MONTHS[Number(date.slice(0, 2)) - 1]!} ${date.slice(3)} off`;
}

function createOpeningHours(): Candidate {
  const hours = new OpeningHours(['Mo-Fr 08:00-18:00', ...HOLIDAYS.map(offRule)].join('; '));
  return {
    name: 'opening_hours',
    add(t, ms) {
      const iterator = hours.getIterator(new Date(t));
      let left = ms;
      for (let at = t; ;) {
        const isOpen = iterator.getState();
        iterator.advance();
        const next = iterator.getDate().getTime();
        if (isOpen && next - at >= left) return at + left;
        if (isOpen) left -= next - at;
        at = next;
      }
    },
    between: (a, b) => hours.getOpenDuration(new Date(a), new Date(b))[0],
  };
}

function rate(work: (i: number) => unknown, ms = 1_200): number {
  const start = performance.now();
  let i = 0;
  while (performance.now() - start < ms) for (let k = 0; k < 20; k++) work(i++ % CASES);
  return (i * 1000) / (performance.now() - start);
}

/** Working time: the compiled calendar beside the general libraries, each judged by a scan of every minute. */
export function benchCalendar(): Promise<void> {
  const zoneBefore = process.env.TZ;
  process.env.TZ = ZONE;
  const calendar = compileCalendar(spec);
  const compiled: Candidate = {
    name: 'compiled calendar',
    add: (t, ms) => calendar.addWorking(t, ms),
    between: (a, b) => calendar.workingBetween(a, b),
  };
  const cases = Array.from({ length: CASES }, (_, i) => ({
    t: FROM + ((i * 7_919_317) % 2_600_000) * MINUTE,
    ms: ((i % 400) + 1) * HOUR,
    length: ((i * 37) % 200) * DAY + (i % 24) * HOUR,
  })).map((each) => ({ ...each, t: Math.min(each.t, TO - 500 * DAY) }));
  const truth = scanMinutes(ZONE, { from: FROM, to: TO, closed: new Set(CLOSED) });
  const judged = cases.slice(0, JUDGED).map(({ t, ms, length }) => ({
    ...{ t, ms, length, added: truth.add(t, ms), between: truth.between(t, t + length) },
  }));
  const rates = [compiled, dayLoop, createBusinessTime(), createOpeningHours()].map((candidate) => ({
    candidate,
    add: rate((i) => candidate.add(cases[i]!.t, cases[i]!.ms)),
    between: rate((i) => candidate.between(cases[i]!.t, cases[i]!.t + cases[i]!.length)),
    wrongAdds: judged.filter(({ t, ms, added }) => candidate.add(t, ms) !== added).length,
    wrongBetweens: judged.filter(({ t, length, between }) => candidate.between(t, t + length) !== between)
      .length,
  }));
  const [ours, loop, ...libraries] = rates as [(typeof rates)[0], ...typeof rates];
  const bestOf = (what: 'add' | 'between'): number => Math.max(...libraries.map((each) => each[what]));
  for (const { candidate, add, between, wrongAdds, wrongBetweens } of [ours, loop!, ...libraries]) {
    report(`addWorking, ${candidate.name}`, perSecond(add), `${wrongAdds} / ${JUDGED} wrong`);
    report(`workingBetween, ${candidate.name}`, perSecond(between), `${wrongBetweens} / ${JUDGED} wrong`);
  }
  const times = (what: 'add' | 'between'): string =>
    `${Math.round(ours[what] / bestOf(what)).toLocaleString('en')} x the best library`;
  report('compiled calendar to the best library', 'add', times('add'));
  report('compiled calendar to the best library', 'between', times('between'));
  process.env.TZ = zoneBefore;
  return Promise.resolve();
}
