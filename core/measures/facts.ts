import type { CompiledCalendar } from '../calendar';
import { getOwn } from '../records';
import { isOpen, type TicketState } from '../tickets';

/** An entry of a ticket's own journal, as far as figures rest on it. */
export type FactEntry = {
  id: number;
  at: number;
  type: string;
  via: string;
  changes: Record<string, { from: unknown; to: unknown }>;
};

/** For whom or what time was held, as figures keep it apart. */
export const HOLDS = ['heldForRequester', 'heldForSupplier', 'heldForApproval', 'heldForOther'] as const;
type Hold = (typeof HOLDS)[number];
const HOLD_OF: Record<string, Hold> = {
  ...{ requester: 'heldForRequester', supplier: 'heldForSupplier', approval: 'heldForApproval' },
};

/**
 * What figures count of a ticket: one narrow row, all of it from its journal. Instants in ms since the epoch, null where
 * it has not come to that. Lengths in ms: `toAnswer` and `toDone` by the clock on the wall, the others in the working
 * time of its team.
 */
export type TicketFact = Record<Hold, number> & {
  opened: number;
  answered: number | null;
  /** When it was marked done last; null while it is open again, or was withdrawn. */
  done: number | null;
  /** When it stopped being open: done or withdrawn. */
  ended: number | null;
  closed: number | null;
  kind: string;
  serviceId: string;
  teamId: string;
  groupId: string | null;
  assigneeId: string | null;
  requesterId: string;
  isConfidential: boolean;
  state: TicketState;
  heldFor: string | null;
  priority: string;
  impact: string;
  urgency: string;
  via: string;
  isDeclined: boolean;
  rating: number | null;
  /** By how many teams it went, its last one included. */
  teams: number;
  reopened: number;
  /** Words between its requester and its team. */
  messages: number;
  toAnswer: number | null;
  toDone: number | null;
  workToAnswer: number | null;
  workToDone: number | null;
  /** Someone had it. */
  own: number;
  /** Nobody had it yet. */
  waited: number;
  /** The newest entry that it rests on. */
  upTo: number;
};

/** The fields that an entry may set, with what they are before any did. */
const FIRST = {
  ...{ kind: 'request', serviceId: '', teamId: '', groupId: null, assigneeId: null, requesterId: '' },
  ...{ isConfidential: false, state: 'received', heldFor: null, priority: '', impact: '', urgency: '' },
  ...{ isDeclined: false, rating: null, answered: false },
};
type Set = { -readonly [Field in keyof typeof FIRST]: unknown };

/** What the time of an open ticket goes into. */
function spentOn({ state, heldFor, assigneeId }: Set): Hold | 'own' | 'waited' {
  if (state === 'held') return getOwn(HOLD_OF, String(heldFor)) ?? 'heldForOther';
  return assigneeId === null ? 'waited' : 'own';
}

/**
 * What figures count of a ticket, from its journal alone; null where there is none.
 * @param entries of the ticket itself, in their order
 * @param workingBetween ms of working time of its team between two instants
 */
export function ticketFactOf(
  entries: FactEntry[],
  workingBetween: CompiledCalendar['workingBetween'],
): TicketFact | null {
  const [first] = entries;
  if (!first) return null;
  const set: Set = { ...FIRST };
  const opened = first.at;
  const spent = { own: 0, waited: 0, ...Object.fromEntries(HOLDS.map((hold) => [hold, 0])) } as Record<
    Hold | 'own' | 'waited',
    number
  >;
  let [teams, reopened, messages, since] = [0, 0, 0, opened];
  const at: Record<'answered' | 'done' | 'ended' | 'closed', number | null> = {
    ...{ answered: null, done: null, ended: null, closed: null },
  };
  for (const { at: now, type, changes } of entries) {
    if (isOpen(set.state as TicketState)) spent[spentOn(set)] += workingBetween(since, Math.max(since, now));
    since = Math.max(since, now);
    if (type === 'answered') messages++;
    const { state, teamId } = changes;
    if (teamId && teamId.to !== set.teamId) teams++;
    if (state) {
      const [was, is] = [isOpen(set.state as TicketState), isOpen(state.to as TicketState)];
      if (is && !was) reopened++;
      if (is) Object.assign(at, { done: null, ended: null, closed: null });
      else if (was) at.ended = now;
      if (state.to === 'done' || state.to === 'closed') at[state.to] = now;
    }
    for (const field of Object.keys(FIRST) as (keyof Set)[])
      if (Object.hasOwn(changes, field)) set[field] = changes[field]!.to ?? FIRST[field];
    if (set.answered === true) at.answered ??= now;
  }
  // What is closed without having been marked done was done as it ended.
  if (at.closed !== null) at.done ??= at.ended;
  const lengths = (until: number | null): [number | null, number | null] =>
    until === null ? [null, null] : [until - opened, workingBetween(opened, until)];
  const [toAnswer, workToAnswer] = lengths(at.answered);
  const [toDone, workToDone] = lengths(at.done);
  const { answered: _, ...fields } = set;
  return {
    ...(fields as Omit<typeof FIRST, 'answered'> & Pick<TicketFact, 'state' | 'rating' | 'heldFor'>),
    ...{ opened, ...at, via: first.via, ...spent },
    ...{ teams: Math.max(1, teams), reopened, messages, toAnswer, toDone, workToAnswer, workToDone },
    upTo: entries.at(-1)!.id,
  };
}
