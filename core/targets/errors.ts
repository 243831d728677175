/** A target that cannot be reckoned. */
export class TargetError extends Error {
  constructor(message: string) {
    super(message);
    this.name = new.target.name;
  }
}

/** A target names a calendar that is not there. */
export class UnknownCalendar extends TargetError {
  constructor(
    readonly calendarId: string,
    targetName: string,
  ) {
    super(
      `The target '${targetName}' names the calendar '${calendarId}', which does not exist. Choose another.`,
    );
  }
}

/** A target warns at a share that is not above 0 percent. */
export class PercentNotPositive extends TargetError {
  constructor(
    readonly percent: number,
    targetName: string,
  ) {
    super(`The target '${targetName}' warns at ${percent} %. Give a percentage above zero.`);
  }
}
