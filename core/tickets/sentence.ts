import type { HeldFor, TicketState } from './types';

/** What the sentence on a ticket's state is made of. */
export type SentenceFacts = {
  state: TicketState;
  heldFor: HeldFor | null;
  assigneeName: string | null;
  /** Whether a person has begun with it; false: it is merely given to its assignee. */
  isTakenUp?: boolean;
  teamName: string;
  approverNames: string[];
  heldUntil: number | null;
};

/**
 * Whether a service's own words can stand for the sentence: not where it says whom one waits for, or that it was not
 * agreed.
 */
export function takesOwnWords({
  heldFor,
  isDeclined,
}: {
  heldFor: HeldFor | null;
  isDeclined: boolean;
}): boolean {
  return !isDeclined && heldFor !== 'requester' && heldFor !== 'approval';
}

/** A state as one plain sentence for the requester: a code that the wording catalogue puts into words. */
export type StateSentence = { code: string; params: Record<string, string | number> };

/** Each state, worded by who must move next. */
export function getStateSentence(facts: SentenceFacts): StateSentence {
  const { state, heldFor, assigneeName, isTakenUp, teamName, approverNames, heldUntil } = facts;
  const params = {
    team: teamName,
    ...(assigneeName !== null && { person: assigneeName }),
    ...(approverNames.length > 0 && { approver: approverNames.join(', ') }),
    ...(heldUntil !== null && { until: heldUntil }),
  };
  if (state === 'held') return { code: `held.${heldFor ?? 'date'}`, params };
  const isGoing = state === 'received' || state === 'inWork';
  if (isGoing && assigneeName !== null && isTakenUp === false) return { code: 'given', params };
  if (state === 'received' && assigneeName !== null) return { code: 'inWork', params };
  return { code: state === 'inWork' && assigneeName === null ? 'received' : state, params };
}
