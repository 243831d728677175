export { movesFor, reassign, type Reassignment } from './reassign';
export { changesSides, standingOf, tally, type Standing, type Tally } from './tally';
export { whereTimeWent, type TimeWent } from './timeWent';
