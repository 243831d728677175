import {
  EmptyWindow,
  HoursPerDayNotPositive,
  MalformedDate,
  MalformedTime,
  RepeatedException,
  UnknownTimeZone,
} from './errors';
import { WEEKDAYS, type CalendarSpec, type Window } from './types';

const TIME = /^(?:[01]\d|2[0-3]):[0-5]\d$/;
const DATE = /^(\d{4})-(\d\d)-(\d\d)$/;

function validateWindow({ from, to }: Window): void {
  if (!TIME.test(from)) throw new MalformedTime(from);
  if (to !== '24:00' && !TIME.test(to)) throw new MalformedTime(to);
  if (from === to) throw new EmptyWindow(from);
}

function validateDate(date: string): void {
  const match = DATE.exec(date);
  if (!match) throw new MalformedDate(date);
  const [year, month, day] = match.slice(1).map(Number) as [number, number, number];
  const real = new Date(0);
  real.setUTCFullYear(year, month - 1, day);
  if (real.getUTCMonth() !== month - 1 || real.getUTCDate() !== day) throw new MalformedDate(date);
}

function validateZone(timeZone: string): void {
  try {
    new Intl.DateTimeFormat('en', { timeZone });
  } catch {
    throw new UnknownTimeZone(timeZone);
  }
}

/** Refuses a spec that cannot be compiled, by the first thing wrong with it. */
export function validateCalendar(spec: CalendarSpec): void {
  validateZone(spec.timeZone);
  if (!(spec.hoursPerDay > 0) || !Number.isFinite(spec.hoursPerDay))
    throw new HoursPerDayNotPositive(spec.hoursPerDay);
  for (const day of WEEKDAYS) spec.weekly[day]?.forEach(validateWindow);
  const seen = new Set<string>();
  for (const { date, windows } of spec.exceptions) {
    validateDate(date);
    if (seen.has(date)) throw new RepeatedException(date);
    seen.add(date);
    windows.forEach(validateWindow);
  }
}
