import type { Condition } from '../conditions';

/** How a step comes to be done; `ranking`: a lead says when it is its turn among the other large requests. */
export const STEP_KINDS = ['task', 'approval', 'ranking', 'automatic'] as const;
/** What a step is: work, a yes, a place in an order, or something that happens by itself. */
export type StepKind = (typeof STEP_KINDS)[number];

/** One thing to be done for a request. `effort` is in working ms of the calendar; `after` names steps of the same leg. */
export type PlanStep = {
  id: string;
  leg: string;
  kind: StepKind;
  after?: string[];
  /** Left out where this does not hold when it comes up. */
  when?: Condition;
  effort: number;
  calendarId: string;
  notBefore?: number;
};

/** Legs follow one another; the steps of one go side by side unless one names another in `after`. */
export type Plan = { legs: string[]; steps: PlanStep[] };

/** Where a step stands; one without a state has yet to come up. */
export type StepState = 'done' | 'skipped' | 'active' | 'failed';

/** How far steps are, by id; absent: waiting. Instants are past. */
export type Progress = Record<string, { state: StepState; startedAt?: number; finishedAt?: number }>;

/** What can be wrong with a plan, by code. */
export type PlanProblemCode =
  | 'cycle'
  | 'unknownStep'
  | 'acrossLegs'
  | 'unknownLeg'
  | 'emptyLeg'
  | 'duplicateLeg'
  | 'duplicateStep'
  | 'badEffort';

/** A problem of a plan, and the steps that it concerns. */
export type PlanProblem = { code: PlanProblemCode; steps: string[]; message: string };

/** When a step can begin and end, and when it must so that the plan ends as early as it can. Slack in working ms. */
export type StepForecast = {
  earliestStart: number;
  earliestFinish: number;
  latestStart: number;
  latestFinish: number;
  slack: number;
  critical: boolean;
};

/** `driving`: the unfinished steps that decide the finish, the first of them first. */
export type PlanForecast = { steps: Record<string, StepForecast>; finish: number; driving: string[] };
