import type { Door } from '../tickets';

/** What someone can be to a ticket, as far as telling goes by it. */
export const READERS = [
  'requester',
  'alsoTold',
  'assignee',
  'team',
  'approver',
  'lead',
  'mentioned',
] as const;
/** What someone is to a ticket when they are told of it. */
export type Reader = (typeof READERS)[number];

/** What people are told of. */
export const TOLD_EVENTS = [
  'sent',
  'raisedFor',
  'taken',
  'answered',
  'noted',
  'held',
  'givenOn',
  'decided',
  'done',
  'reopened',
  'withdrawn',
  'warned',
  'late',
  'reminded',
  'outOfHours',
  'ruleSaid',
  'ruleTold',
  'asked',
  'questioned',
  'noApprover',
  'stepYours',
  'stepFailed',
  'slipped',
  'slipTold',
  'sameMatter',
  'noticeTold',
  'problemSolved',
  'problemBack',
  'mentioned',
] as const;
/** Something that people are told of. */
export type ToldEvent = (typeof TOLD_EVENTS)[number];

/**
 * Who is told what: the whole of it. `team` stands for everyone in the team as long as nobody holds the ticket;
 * once someone does, the assignee is told instead. `sent` reaches the team only if no approval is awaited; whoever
 * decides is told by being `asked`, once for each approval.
 */
export const TELLING: Record<ToldEvent, readonly Reader[]> = {
  sent: ['team'],
  raisedFor: ['requester'],
  taken: ['requester'],
  answered: ['requester', 'alsoTold', 'assignee', 'team'],
  noted: ['assignee'],
  held: ['requester', 'alsoTold'],
  givenOn: ['requester', 'assignee', 'team'],
  decided: ['requester', 'alsoTold', 'assignee', 'team', 'approver'],
  done: ['requester', 'alsoTold'],
  reopened: ['alsoTold', 'assignee', 'team', 'lead'],
  withdrawn: ['requester', 'alsoTold', 'assignee', 'team', 'approver'],
  warned: ['assignee', 'team'],
  late: ['assignee', 'team', 'lead'],
  reminded: ['assignee', 'team'],
  outOfHours: ['requester'],
  ruleSaid: ['requester', 'alsoTold'],
  // A rule may name others.
  ruleTold: ['assignee', 'team'],
  asked: ['approver'],
  questioned: ['requester', 'alsoTold'],
  noApprover: ['assignee', 'team', 'lead'],
  stepYours: ['team'],
  stepFailed: ['assignee', 'team', 'lead'],
  slipped: ['assignee', 'team', 'lead'],
  slipTold: ['requester', 'alsoTold'],
  sameMatter: ['requester', 'alsoTold'],
  noticeTold: ['requester', 'alsoTold'],
  problemSolved: ['requester', 'alsoTold', 'assignee'],
  problemBack: ['assignee', 'team', 'lead'],
  mentioned: ['mentioned'],
};

/**
 * Whether people hear that a ticket has come. What is brought over from a table is known already, and can be very much:
 * nobody is written to about each, and it is no surge. Whoever decides is asked all the same.
 */
export const isNews = ({ via }: { via: Door }): boolean => via !== 'table';

/** The people who stand in each relation to a ticket. */
export type Parties = Record<Reader, string[]> & { isAwaitingApproval: boolean };

/**
 * The people to tell of an event, each once, by the first relation that says so; nobody of their own act. A target
 * may name other readers of its warnings than the table does.
 * @example whoIsTold('taken', parties, 'bia') // [{ personId: 'tomas', as: 'requester' }]
 */
export function whoIsTold(
  event: ToldEvent,
  parties: Parties,
  actorId: string | null,
  readers: readonly Reader[] = TELLING[event],
): { personId: string; as: Reader }[] {
  const told = new Map<string, Reader>();
  for (const reader of readers) {
    if (reader === 'team' && (parties.assignee.length > 0 || parties.isAwaitingApproval)) continue;
    for (const personId of parties[reader])
      if (personId !== actorId && !told.has(personId)) told.set(personId, reader);
  }
  return [...told].map(([personId, as]) => ({ personId, as }));
}
