export {
  AGED_AFTER_MS,
  DEFAULT_WEIGHTS,
  explainPlace,
  getHeadStart,
  getMoveBy,
  MOST_WEIGHT,
  type OrderReason,
  type OrderWeights,
  type Placed,
} from './order';
export { getListField, LIST_FIELDS, LIST_FIELD_NAMES, WORKS } from './fields';
export type { ListField, ListFieldName, Work } from './fields';
export { FALLS_DUE } from './due';
export { checkCondition, checkField, listOps, type ConditionProblem } from './checkCondition';
export { GIVEN_LISTS, GIVEN_NAMES, isGiven, PLAIN, type GivenName } from './given';
export { ME, MY_GROUPS, MY_TEAMS, resolveCondition, type ListReader } from './resolve';
export { BOARD_FIELDS, CARD_FACTS, COLUMNS, GROUPINGS, MARKS, ORDERS, VIEWS } from './types';
export type {
  BoardField,
  BoardSettings,
  CardFact,
  ColumnName,
  Grouping,
  Mark,
  MarkLook,
  Order,
  View,
  WorklistDefinition,
} from './types';
export { comparePlaces, directionOf, type Direction, type Place } from './places';
export { patchPages, renewInPlace, type ListPage, type Patch } from './patch';
export { planCardMove, type Card, type CardMove } from './board';
export { carriedBy, NOBODYS } from './carried';
