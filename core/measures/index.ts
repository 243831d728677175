export { ageing, openAt, type Span } from './backlog';
export { bucketAfter, bucketOf, hourOfWeek, listBuckets, type Unit } from './buckets';
export {
  agentsFor,
  expectedArrivals,
  poissonQuantile,
  type Expected,
  type HourCount,
  type Staffing,
} from './expected';
export { narrowed, type BoardChart } from './narrowed';
export { points, seenBy, type Deed, type Place, type Scheme } from './points';
export { processChart, type ProcessChart, type SignalRule } from './processChart';
export { quantile, summarise, type Summary } from './summary';
export { timeToDone, type Length, type Survival } from './survival';
export {
  bucketsOf,
  checkChart,
  conditionsOf,
  isOfCourse,
  MOST_BUCKETS,
  oneOf,
  periodBefore,
  periodOf,
  reckonedBy,
  SHOWS,
  showsFor,
  type Chart,
  type ChartProblem,
  type Measure,
  type Show,
  type Stretch,
} from './chart';
export {
  FACT_FIELDS,
  FACT_KINDS,
  getFactField,
  isOfPeople,
  listFactFields,
  type FactField,
  type FactKind,
} from './fields';
export { HOLDS, ticketFactOf, type FactEntry, type TicketFact } from './facts';
export { figureOf, gatherAll, NO_FACTS, restsOnValues, spreadOf, type Gathered, type What } from './figure';
export { chartOf, getGivenBoard, GIVEN_BOARDS, listTeamsAsked, type GivenBoard } from './given';
