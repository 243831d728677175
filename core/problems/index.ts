export {
  BACK_COUNT,
  BACK_WITHIN_MS,
  backAt,
  checkStage,
  PROBLEM_LIMITS,
  PROBLEM_STAGES,
  PROBLEM_TIES,
  rateRatio,
} from './problems';
export type { Known, ProblemFault, ProblemStage, ProblemTie, Rate } from './problems';
