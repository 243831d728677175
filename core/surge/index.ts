export { findSurges, LEAST_COUNT, poissonTail, usualOf, type Arrivals, type Surge } from './surge';
export { largestAlike } from './alike';
