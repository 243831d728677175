import type { PlanProblem } from './types';

/** A plan that cannot be reckoned. */
export class PlanError extends Error {
  override name = 'PlanError';
}

/** The plan cannot be followed; `checkPlan` says why. */
export class BadPlan extends PlanError {
  override name = 'BadPlan';
  constructor(readonly problems: PlanProblem[]) {
    super(problems.map(({ message }) => message).join(' '));
  }
}

/** A step names a calendar that is not there. */
export class UnknownStepCalendar extends PlanError {
  override name = 'UnknownStepCalendar';
  constructor(calendarId: string, stepId: string) {
    super(`step '${stepId}' wanted the calendar '${calendarId}', which is not there`);
  }
}
