export { route, ROUTING_WAYS } from './route';
export type { Candidate, Need, PassedOver, Routed, RoutingWay } from './route';
export { checkRouting, MOST_LEVEL, needOf, ROUTED_BY_HAND } from './settings';
export type { RoutingProblem, RoutingSettings } from './settings';
export { parseSkills, writeSkills } from './skills';
export { erlangA, erlangB, erlangC, meanWait } from './erlang';
export { chooseForOffer, expectWait } from './line';
export type { ExpectedWait, LineFacts } from './line';
