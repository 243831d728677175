export type { CalendarSpec, CompiledCalendar, LocalTime, Weekday, Window, WorkingCalendar } from './types';
export { WEEKDAYS } from './types';
export { compileCalendar } from './compile';
export { parseDuration } from './duration';
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
