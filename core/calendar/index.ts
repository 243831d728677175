export type { CalendarSpec, CompiledCalendar, LocalTime, Weekday, Window, WorkingCalendar } from './types';
export { WEEKDAYS } from './types';
export { checkCalendar, type CalendarFault, type CalendarProblem } from './check';
export { DAY_MINUTES, fromSpans, paintWeek, toSpans, WEEK_MINUTES, type WeekSpan } from './week';
export { compileCalendar } from './compile';
export { DURATION_SHAPE, parseDuration, readDuration, type Duration } from './duration';
export {
  CalendarError,
  DurationNotPositive,
  EmptyWindow,
  HoursPerDayNotPositive,
  MalformedDate,
  MalformedDuration,
  MalformedTime,
  NoWorkingTime,
  RepeatedException,
  UnknownTimeZone,
} from './errors';
