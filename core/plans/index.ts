export { checkPlan } from './checkPlan';
export { nextSteps } from './nextSteps';
export { forecast } from './forecast';
export { BadPlan, PlanError, UnknownStepCalendar } from './errors';
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
