import { compileCalendar } from './compile';
import {
  CalendarError,
  EmptyWindow,
  HoursPerDayNotPositive,
  MalformedDate,
  MalformedTime,
  NoWorkingTime,
  RepeatedException,
  UnknownTimeZone,
} from './errors';
import { WEEKDAYS, type CalendarSpec } from './types';

/** What can be wrong with a calendar, by code. */
export type CalendarFault =
  | 'unknownZone'
  | 'notPositive'
  | 'moreThanADay'
  | 'malformedTime'
  | 'emptyWindow'
  | 'malformedDate'
  | 'repeatedDate'
  | 'noWorkingTime';
/** `field` is a path such as 'weekly.mon' or 'exceptions.2'. */
export type CalendarProblem = { field: string; code: CalendarFault };

const CODES: [new (...given: never[]) => CalendarError, CalendarFault][] = [
  [UnknownTimeZone, 'unknownZone'],
  [HoursPerDayNotPositive, 'notPositive'],
  [MalformedTime, 'malformedTime'],
  [EmptyWindow, 'emptyWindow'],
  [MalformedDate, 'malformedDate'],
  [RepeatedException, 'repeatedDate'],
  [NoWorkingTime, 'noWorkingTime'],
];

function codeOf(work: () => unknown): CalendarFault | null {
  try {
    work();
    return null;
  } catch (error) {
    const found = CODES.find(([kind]) => error instanceof kind);
    if (!found) throw error;
    return found[1];
  }
}

/** Everything that is wrong with a calendar, each at its field; one that never works from `now` on is wrong too. */
export function checkCalendar(spec: CalendarSpec, now: number): CalendarProblem[] {
  const sound: CalendarSpec = { name: '', timeZone: 'UTC', hoursPerDay: 8, weekly: {}, exceptions: [] };
  const problems: CalendarProblem[] = [];
  const check = (field: string, work: () => unknown): void => {
    const code = codeOf(work);
    if (code) problems.push({ field, code });
  };
  check('timeZone', () => compileCalendar({ ...sound, timeZone: spec.timeZone }));
  check('hoursPerDay', () => compileCalendar({ ...sound, hoursPerDay: spec.hoursPerDay }));
  if (spec.hoursPerDay > 24) problems.push({ field: 'hoursPerDay', code: 'moreThanADay' });
  for (const day of WEEKDAYS)
    check(`weekly.${day}`, () => compileCalendar({ ...sound, weekly: { [day]: spec.weekly[day] ?? [] } }));
  const seen = new Set<string>();
  spec.exceptions.forEach((exception, i) => {
    check(`exceptions.${i}`, () => compileCalendar({ ...sound, exceptions: [exception] }));
    if (seen.has(exception.date)) problems.push({ field: `exceptions.${i}`, code: 'repeatedDate' });
    seen.add(exception.date);
  });
  if (problems.length === 0) check('weekly', () => compileCalendar(spec).nextWorking(now));
  return problems;
}
