/** A local wall-clock time, 'HH:MM' from '00:00' to '24:00'; '24:00' is only allowed as an end. */
export type LocalTime = string;

/** A stretch of one local day. With `to` before `from` it runs over midnight and belongs to the date it starts on. */
export type Window = { from: LocalTime; to: LocalTime };

/** The days of a week, Monday first as in ISO 8601. */
export const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;
/** A day of the week. */
export type Weekday = (typeof WEEKDAYS)[number];

/** When a team or a site works. Exceptions replace the windows that start on their date; `[]` is closed. */
export type CalendarSpec = {
  name: string;
  /** IANA name, e.g. 'Atlantic/Azores'. */
  timeZone: string;
  /** What "1 working day" means when a duration is written in days. */
  hoursPerDay: number;
  weekly: Partial<Record<Weekday, Window[]>>;
  /** `date` is local, 'YYYY-MM-DD'. */
  exceptions: { date: string; name?: string; windows: Window[] }[];
};

/** Working-time arithmetic. All instants are epoch milliseconds, all durations milliseconds. */
export interface WorkingCalendar {
  /** Whether `t` lies inside working time (starts are inside, ends are not). */
  isWorking(t: number): boolean;
  /** Working time in [a, b); negative of the swapped call when b < a. */
  workingBetween(a: number, b: number): number;
  /**
   * For ms > 0 the least instant by which that much working time has passed (it lands on a window's end),
   * for ms < 0 the greatest instant from which that much still passes until `t`, for 0 `t` itself.
   * @throws NoWorkingTime when the answer would lie more than 3,653 days away.
   */
  addWorking(t: number, ms: number): number;
  /** The least working instant >= t. @throws NoWorkingTime as for addWorking. */
  nextWorking(t: number): number;
}

/** A calendar ready for reckoning; made once by `compileCalendar`, shared by all that use it. */
export type CompiledCalendar = WorkingCalendar & {
  spec: CalendarSpec;
  /** The merged working windows that meet [a, b), cut to it, in order. */
  windowsBetween(a: number, b: number): { from: number; to: number }[];
};
