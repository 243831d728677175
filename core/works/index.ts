export { toFeed, type FeedEvent } from './feed';
export {
  actsOf,
  adviseTemplate,
  BESIDE_MS,
  checkSubmitted,
  checkWindow,
  isBeside,
  needsReview,
  stageOf,
  WORK_ACTS,
  WORK_LIMITS,
  WORK_OUTCOMES,
  WORK_SORTS,
  WORK_STAGES,
} from './works';
export type {
  OfTicket,
  SaidWork,
  WorkAct,
  WorkFacts,
  WorkOutcome,
  WorkProblem,
  WorkSort,
  WorkStage,
} from './works';
