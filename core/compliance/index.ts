export { movesFor, reassign, type Reassignment } from './reassign';
export { changesSides, tally, toTally, type Tally } from './tally';
export { whereTimeWent, type TimeWent } from './timeWent';
