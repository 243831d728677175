/** What all calendar errors have in common; the message says what to do. */
export class CalendarError extends Error {
  constructor(message: string) {
    super(message);
    this.name = new.target.name;
  }
}

/** A time zone that the IANA database does not have. */
export class UnknownTimeZone extends CalendarError {
  constructor(readonly timeZone: string) {
    super(`'${timeZone}' is not a known time zone. Use an IANA name such as 'Europe/Lisbon'.`);
  }
}

/** A time that is not `HH:MM` of a day. */
export class MalformedTime extends CalendarError {
  constructor(readonly time: string) {
    super(`'${time}' is not a time of day. Write it as HH:MM, from 00:00 to 23:59 ('24:00' only as an end).`);
  }
}

/** A date that is not `YYYY-MM-DD`, or is on no calendar. */
export class MalformedDate extends CalendarError {
  constructor(readonly date: string) {
    super(`'${date}' is not a date that exists. Write it as YYYY-MM-DD.`);
  }
}

/** A duration that is not as ISO 8601 has it. */
export class MalformedDuration extends CalendarError {
  constructor(readonly duration: string) {
    super(`'${duration}' is not a duration. Write days, hours, minutes and seconds like P1DT8H or PT90M.`);
  }
}

/** A duration of nothing or less. */
export class DurationNotPositive extends CalendarError {
  constructor(readonly duration: string) {
    super(`'${duration}' lasts no time. Give a duration longer than zero.`);
  }
}

/** Two exceptions on one date. */
export class RepeatedException extends CalendarError {
  constructor(readonly date: string) {
    super(`${date} has two exceptions. Put all hours of that date into one.`);
  }
}

/** A window of work that ends before it begins. */
export class EmptyWindow extends CalendarError {
  constructor(readonly time: string) {
    super(`A window from ${time} to ${time} has no length. For a whole day write 00:00 to 24:00.`);
  }
}

/** A working day of no hours. */
export class HoursPerDayNotPositive extends CalendarError {
  constructor(readonly hoursPerDay: number) {
    super(`A working day of ${hoursPerDay} hours is not possible. Give a number above zero.`);
  }
}

/** A calendar in which nobody ever works. */
export class NoWorkingTime extends CalendarError {
  constructor(calendarName: string) {
    super(`The calendar '${calendarName}' has no working time within ten years. Give it working hours.`);
  }
}
