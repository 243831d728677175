export { availability } from './availability';
export { cutSets, loneFailures } from './cutSets';
export { findClashes } from './clashes';
export { BadEstate, TooEntangled, type EstateProblem, type EstateProblemCode } from './errors';
export { impactOf, likelihoodOf, RISK_TABLE, riskOf, wilson } from './risk';
export { serviceTime, type ServiceTime } from './serviceTime';
export { findSlot, type SlotRequest } from './slot';
export { standings } from './standings';
export type { Clash, ClashKind, Freeze, Level, Need, Outage, Standing, Stands, Work } from './types';
