export { checkPlan } from './checkPlan';
export { nextSteps } from './nextSteps';
export { listStepMoves, STEP_MOVES, type StepMove } from './stepMoves';
export { putInPlace, rank, type Ranked } from './ranking';
export { expectAnswer, listUntimed, withApprovalTimes } from './approvalTime';
export {
  agreeFirst,
  approvalsOf,
  beginPlan,
  keyOfWords,
  moveLeg,
  nameKeys,
  newStep,
  orderSteps,
} from './drawing';
export { forecast } from './forecast';
export { findWaysBack, type WayBack } from './bringBack';
export {
  END_BLANKS,
  ROUND_THE_CLOCK,
  toPlan,
  withRoundTheClock,
  type AutomaticAction,
  type ServicePlan,
  type ServiceStep,
} from './servicePlan';
export { BadPlan, PlanError, UnknownStepCalendar } from './errors';
export { STEP_KINDS, type StepKind } from './types';
export type {
  Plan,
  PlanForecast,
  PlanProblem,
  PlanProblemCode,
  PlanStep,
  Progress,
  StepForecast,
  StepState,
} from './types';
