import type { TicketEntryKind } from '../journal';
import type { Fields, Scalar } from '../conditions';
import { inOrder } from './order';
import { rulesFor, type Fired } from './rulesFor';
import type { EventKind, FieldChange, Happening, Rule } from './types';

/** What rules hear by each kind of entry of a ticket, beside that its fields change; null: nothing. */
const HEARD_BY: Record<TicketEntryKind, EventKind | null> = {
  ...{ sent: 'received', taken: 'taken', held: 'held', resumed: 'resumed', givenOn: 'givenOn', done: 'done' },
  ...{ confirmed: null, reopened: 'reopened', closed: 'closed', withdrawn: 'withdrawn', granted: 'received' },
  ...{ declined: null, takenUp: null, answered: 'answered', noted: 'noted', changed: null, refiled: null },
  ...{ requesterChanged: 'raisedFor', undone: null, followed: null, unfollowed: null, answersChanged: null },
  ...{ ticked: null, unticked: null, procedureTicked: null, procedureUnticked: null, putUnder: 'tied' },
  ...{ cameUnder: null, takenApart: null, routed: 'givenOn', wentOn: null, cameBack: null, leftBehind: null },
  ...{ conversation: null, reworded: null, takenBack: null, warned: 'warned', late: 'late', dueWarned: null },
  ...{ reminded: null, outOfHours: null, asked: null, askReminded: null, askPassedUp: null, askLeft: null },
  ...{ askAway: null, askWithdrawn: null, questionAnswered: null, questioned: null, noApprover: null },
  ...{ decided: 'decided', askedAgain: null, promised: null, slipped: null, slipTold: null, ranked: null },
  ...{ stepAdded: null, stepStarted: 'stepBegan', stepTicked: null, stepTaken: null, stepLeftBehind: null },
  ...{ stepDone: 'stepDone', stepNotNeeded: null, stepLeftOut: null, stepRedone: null, stepWithdrawn: null },
  ...{ thingTied: null, thingUntied: null, noticeTied: 'tied', noticeUntied: null, noticeTold: null },
  ...{ workSubmitted: null, workChanged: null, workBegan: null, workEnded: null, workReviewed: null },
  ...{ problemMoved: null, problemTied: 'tied', problemSolved: null, problemBack: null },
  ...{ stepFailed: null, ruleSaid: null, ruleNoted: null, ruleTold: null, ruleFailed: null },
};

/** The kinds of happenings that reach rules today. */
export const HEARD_KINDS = [
  ...new Set<EventKind>([
    ...Object.values(HEARD_BY).filter((kind) => kind !== null),
    ...(['raisedFor', 'wroteBack', 'stateChanged', 'fieldChanged', 'rated'] as const),
  ]),
];

/** An entry of the journal, as far as rules hear of it. */
export type RuledEntry = {
  type: TicketEntryKind;
  changes: Record<string, { from: unknown; to: unknown }>;
  /** Whether the words that came with it are the requester’s. */
  isByRequester?: boolean;
  /** Whether it was sent for somebody else. */
  isForOther?: boolean;
  /** Whether a decision is awaited before work begins. */
  awaitsApproval?: boolean;
};

const toScalar = (value: unknown): Scalar =>
  typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean' ? value : null;

/** The fields that an entry changed, whose values are plain; a value of several parts is none. */
export function toFieldChanges(changes: RuledEntry['changes']): FieldChange[] {
  return Object.entries(changes).map(([field, { from, to }]) => ({
    ...{ field, before: toScalar(from), after: toScalar(to) },
  }));
}

/** All that an entry is to rules, what it is above all first. @example kindsOf({ type: 'done', … }) // ['done', 'stateChanged', 'fieldChanged'] */
export function kindsOf(entry: RuledEntry): EventKind[] {
  const { type, changes, isByRequester, isForOther, awaitsApproval } = entry;
  const main =
    type === 'answered' && isByRequester
      ? 'wroteBack'
      : type === 'sent' && awaitsApproval
        ? null
        : HEARD_BY[type];
  const kinds: (EventKind | null)[] = [
    main,
    type === 'sent' && isForOther ? 'raisedFor' : null,
    changes.rating?.to != null ? 'rated' : null,
    changes.state ? 'stateChanged' : null,
    Object.keys(changes).length > 0 ? 'fieldChanged' : null,
  ];
  return [...new Set(kinds.filter((kind) => kind !== null))];
}

/** A happening that is of several kinds at once. */
export type Occurrence = Omit<Happening, 'kind'> & { kinds: EventKind[] };

/**
 * Which rules fire upon an entry that is of several kinds: those of all kinds together, in the one order of rules, each
 * at most once.
 */
export function rulesForEntry(rules: Rule[], { kinds, ...happening }: Occurrence, ticket: Fields): Fired[] {
  const [kind, ...others] = kinds;
  if (kind === undefined) return [];
  // What hears of another of its kinds hears of it under the first, so that all are asked in one run.
  const asked = rules.map((rule) => {
    const { trigger } = rule;
    const isOther = !('field' in trigger) && others.some((other) => other === trigger.on);
    return isOther ? { ...rule, trigger: { on: kind } } : rule;
  });
  return rulesFor(asked, { ...happening, kind }, ticket);
}

/**
 * The fields of a ticket as each of its entries left them, from the fields that it has now.
 * @param entries of one ticket, the oldest first
 * @example listFieldsAfter({ state: 'done' }, [sent, done]) // [{ state: 'received' }, { state: 'done' }]
 */
export function listFieldsAfter(now: Fields, entries: { changes: FieldChange[] }[]): Fields[] {
  const after: Fields[] = [];
  let fields: Fields = now;
  for (const { changes } of [...entries].reverse()) {
    after.push(fields);
    fields = { ...fields, ...Object.fromEntries(changes.map(({ field, before }) => [field, before])) };
  }
  return after.reverse();
}

/** Those of some rules that are asked before another, and after it, in their order. */
export function aroundRule(rules: Rule[], rule: Rule): { before: Rule[]; after: Rule[] } {
  const others = rules.filter(({ id }) => id !== rule.id).sort(inOrder);
  return {
    before: others.filter((other) => inOrder(other, rule) < 0),
    after: others.filter((other) => inOrder(other, rule) > 0),
  };
}
