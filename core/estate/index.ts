export { availability } from './availability';
export { arrange, ARRANGEMENTS, type Arrangement, type Edge, type Mapped, type Spot } from './arrange';
export {
  fallsWith,
  fallsWithAll,
  indexNeeds,
  reach,
  type Direction,
  type Fallen,
  type NeedIndex,
  type Walked,
} from './around';
export { batches, type Batch, type Fared } from './batches';
export { codeAddress, readCode } from './code';
export { cutSets, loneFailures } from './cutSets';
export { findClashes } from './clashes';
export { BadEstate, TooEntangled, type EstateProblem, type EstateProblemCode } from './errors';
export { recurring, type Incident, type OpenProblem, type Recurring } from './recurring';
export { impactOf, likelihoodOf, RISK_TABLE, riskOf, wilson } from './risk';
export { serviceTime, type ServiceTime } from './serviceTime';
export { findSlot, type SlotRequest } from './slot';
export { standings } from './standings';
export {
  actOn,
  listActs,
  THING_ACTS,
  THING_STATES,
  works,
  type ActProblem,
  type Custody,
  type ThingAct,
  type ThingState,
} from './states';
export {
  checkThing,
  MATCHED_BY,
  matchThing,
  THING_TEXT_LIMITS,
  toMark,
  type KnownThings,
  type Matched,
  type MatchedBy,
  type ThingFacts,
  type ThingProblem,
} from './thing';
export {
  guessThingMapping,
  NEEDED_OF_THING,
  readAmount,
  readDay,
  readThingRow,
  THING_FIELDS,
  type ThingField,
  type ThingLookups,
  type ThingRowProblem,
  type ThingSaid,
} from './table';
export type { Clash, ClashKind, Freeze, Level, Need, Outage, Standing, Stands, Work } from './types';
export { monthsBetween, worthOn } from './worth';
