import type { Reader, ToldEvent } from './telling';

/**
 * Who is told by mail too, of what: those who are not at the Desk all day. Teams and assignees are told in the
 * application; approvers by a mail that can be answered.
 */
const BY_MAIL: Partial<Record<ToldEvent, readonly Reader[]>> = {
  raisedFor: ['requester'],
  answered: ['requester', 'alsoTold'],
  held: ['requester', 'alsoTold'],
  decided: ['requester'],
  done: ['requester', 'alsoTold'],
  reopened: ['alsoTold'],
  withdrawn: ['requester', 'alsoTold'],
  late: ['lead'],
  asked: ['approver'],
  questioned: ['requester', 'alsoTold'],
  slipTold: ['requester', 'alsoTold'],
  ruleSaid: ['requester', 'alsoTold'],
  problemSolved: ['requester', 'alsoTold'],
  noticeTold: ['requester', 'alsoTold'],
};

/** @example isMailed('answered', 'requester') // true */
export function isMailed(event: ToldEvent, as: Reader): boolean {
  return BY_MAIL[event]?.includes(as) ?? false;
}
