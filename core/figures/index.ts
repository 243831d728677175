export { dayEdges } from './dayEdges';
export { listBehind, TEAM_NUMBER_NAMES, type TeamNumber } from './teamNumbers';
