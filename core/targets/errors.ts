export class TargetError extends Error {
  constructor(message: string) {
    super(message);
    this.name = new.target.name;
  }
}

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

export class PercentNotPositive extends TargetError {
  constructor(
    readonly percent: number,
    targetName: string,
  ) {
    super(`The target '${targetName}' warns at ${percent} %. Give a percentage above zero.`);
  }
}
