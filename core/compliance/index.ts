export { changesSides, standingOf, tally, type Standing, type Tally } from './tally';
export { whereTimeWent, type TimeWent } from './timeWent';
