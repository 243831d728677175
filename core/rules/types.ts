import type { ProcessStep } from '../approvals';
import type { Condition, Scalar } from '../conditions';
import type { LocalText } from '../forms';
import type { PlanStep } from '../plans';
import type { Reader } from '../telling';
import type { HeldFor } from '../tickets';

/** What a rule can hear of: what happens to a ticket, one of a closed list. */
export const EVENT_KINDS = [
  'received',
  'raisedFor',
  'taken',
  'givenOn',
  'stateChanged',
  'fieldChanged',
  'answered',
  'noted',
  'wroteBack',
  'held',
  'resumed',
  'done',
  'reopened',
  'withdrawn',
  'closed',
  'decided',
  'stepBegan',
  'stepDone',
  'warned',
  'late',
  'rated',
  'tied',
  'fileAdded',
  'mailRefused',
] as const;
/** One of what a rule can hear of. */
export type EventKind = (typeof EVENT_KINDS)[number];

/** An ISO 8601 duration of days, hours, minutes and seconds. */
export type RuleDuration = string;

/**
 * When a rule is asked:
 * - by what happened; by a field that changed (`from`, `to` absent: any)
 * - by silence: so long after something, unless something else happened meanwhile; in working time of a calendar, or wall time
 * - by time: at the instants of a recurrence rule (RFC 5545) in a zone, for each open ticket that fits
 */
export type Trigger =
  | { on: EventKind }
  | { on: 'fieldChanged'; field: string; from?: Scalar; to?: Scalar }
  | { on: 'silence'; since: EventKind; unless: EventKind[]; after: RuleDuration; calendar: string | null }
  | { on: 'time'; every: string; zone: string };

/** What a rule does, one thing. */
export type Effect =
  | { do: 'set'; field: string; to: Scalar }
  | { do: 'give'; teamId: string; groupId?: string; personId?: string }
  | { do: 'hold'; for: HeldFor; until?: RuleDuration }
  | { do: 'tell'; whom: Reader[]; personIds?: string[]; words: LocalText }
  | { do: 'answer'; words: LocalText }
  | { do: 'note'; words: LocalText }
  | { do: 'alsoTell'; personIds: string[] }
  | { do: 'addStep'; step: PlanStep }
  | { do: 'askApproval'; process: ProcessStep[] }
  | { do: 'tie'; to: 'notice' | 'problem'; id: string }
  | { do: 'room'; roomId: string; words: LocalText }
  | { do: 'call'; address: string }
  | { do: 'device'; action: string }
  | { do: 'raise'; serviceId: string; answers: Record<string, unknown> }
  | { do: 'end'; as: 'done' | 'withdrawn'; words: LocalText };

/**
 * A rule: as soon as its trigger fits, provided its condition holds, its effects come about in turn. `teamId` null: it is
 * everyone's. `isLast`: when it fires, no later rule is asked.
 */
export type Rule = {
  id: string;
  order: number;
  isOn: boolean;
  teamId: string | null;
  trigger: Trigger;
  provided: Condition;
  effects: Effect[];
  isLast: boolean;
};

/** A field that an entry changed; absent is null. */
export type FieldChange = { field: string; before: Scalar; after: Scalar };

/** What rules are asked about: an entry of the journal, and in the chain of which rules it was written, the oldest first. */
export type Happening = {
  entryId: string;
  kind: EventKind;
  at: number;
  changes: FieldChange[];
  byRules: string[];
};
