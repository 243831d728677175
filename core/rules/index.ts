export { checkRule, findRings, type RuleFault } from './checkRule';
export { apply, fits, rulesFor, type Fired } from './rulesFor';
export { checkProvided, RULE_FIELDS, SET_FIELDS, type SetField } from './fields';
export {
  aroundRule,
  HEARD_KINDS,
  kindsOf,
  listFieldsAfter,
  rulesForEntry,
  toFieldChanges,
  type Occurrence,
  type RuledEntry,
} from './record';
export {
  compareOrders,
  effectsOn,
  explainOnTicket,
  tryOnTicket,
  type AskedAt,
  type OrderEffect,
  type PastTicket,
  type Trial,
  type WouldFire,
} from './trial';
export { dueAtOf, silences, type DueSilence, type RuleCalendars } from './silences';
export { timesOf } from './times';
export {
  EVENT_KINDS,
  type Effect,
  type EventKind,
  type FieldChange,
  type Happening,
  type Rule,
  type RuleDuration,
  type Trigger,
} from './types';
export { firstUnmet, whyOf, type Unmet, type Why } from './why';
export { hasPhrase } from './words';
