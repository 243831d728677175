export { checkSpent, judgeEstimate, LEFT_ON_AFTER_MS, MOST_MINUTES, readTimer, SPENT_ON } from './spent';
export type { SpentOn, SpentProblem } from './spent';
