import {
  RATINGS,
  canMove,
  getMoveFields,
  type MovableTicket,
  type MoveInput,
  type MoveName,
  type MoverRole,
} from './moves';
import { HELD_FOR, type HeldFor, type TicketState } from './types';

/** The columns of a ticket that moves change. */
export type TicketChanges = Partial<{
  state: TicketState;
  heldFor: HeldFor | null;
  heldUntil: number | null;
  heldReason: string | null;
  assigneeId: string | null;
  teamId: string;
  groupId: string | null;
  solution: string | null;
  resolvedAt: number | null;
  closedAt: number | null;
  rating: number | null;
  ratingWord: string | null;
}>;

/** What is wrong with what was given for a move. */
export type MoveProblem = { field: string; code: 'missing' | 'notAllowed' | 'notPossible' };

/** What a move does to a ticket, or why it cannot be made. */
export type MovePlan =
  | { ok: true; changes: TicketChanges; message: string | null; note: string | null }
  | { ok: false; reason: 'notAllowed' }
  | { ok: false; reason: 'fields'; problems: MoveProblem[] };

type Move = { name: MoveName; by: MoverRole; actorId: string | null; input: MoveInput; now: number };

const NOT_HELD = { heldFor: null, heldUntil: null, heldReason: null } as const;

function text(value: MoveInput[keyof MoveInput]): string | null {
  return typeof value === 'string' && value.trim() !== '' ? value.trim() : null;
}

function problemsOf({ name, by, input, now }: Move): MoveProblem[] {
  const problems: MoveProblem[] = [];
  for (const { name: field, needed } of getMoveFields(name, by, input)) {
    const value = input[field];
    const isGiven = typeof value === 'number' || text(value) !== null;
    if (needed && !isGiven) problems.push({ field, code: 'missing' });
  }
  const { heldFor, until, rating } = input;
  if (
    name === 'hold' &&
    heldFor != null &&
    (heldFor === 'approval' || !HELD_FOR.includes(heldFor as HeldFor))
  )
    problems.push({ field: 'heldFor', code: 'notAllowed' });
  if (name === 'hold' && heldFor === 'date' && typeof until === 'number' && until <= now)
    problems.push({ field: 'until', code: 'notPossible' });
  if (rating != null && !RATINGS.some((each) => each === rating))
    problems.push({ field: 'rating', code: 'notAllowed' });
  return problems;
}

/** Where a ticket goes on when nothing holds it: in work with its assignee, else received. */
function goingOn(assigneeId: string | null): TicketChanges {
  return { state: assigneeId === null ? 'received' : 'inWork', ...NOT_HELD };
}

function changesOf({ name, actorId, input, now }: Move, ticket: MovableTicket): TicketChanges {
  switch (name) {
    case 'take':
      return { assigneeId: actorId, ...(ticket.state === 'received' && { state: 'inWork' as const }) };
    case 'hold':
      return {
        state: 'held',
        heldFor: input.heldFor as HeldFor,
        heldUntil: (input.until as number | null | undefined) ?? null,
        heldReason: text(input.message) ?? text(input.reason) ?? text(input.otherTicket),
      };
    case 'resume':
    case 'grant':
      return goingOn(ticket.assigneeId);
    case 'finish':
      return { state: 'done', ...NOT_HELD, solution: text(input.solution), resolvedAt: now };
    case 'confirm':
      return {
        state: 'closed',
        closedAt: now,
        rating: (input.rating as number | null | undefined) ?? null,
        ratingWord: text(input.ratingWord),
      };
    case 'reopen':
      return { ...goingOn(ticket.assigneeId), solution: null, resolvedAt: null };
    case 'close':
      return { state: 'closed', closedAt: now };
    case 'withdraw':
      return { state: 'withdrawn', ...NOT_HELD, closedAt: now };
    case 'decline':
      return { state: 'closed', ...NOT_HELD, closedAt: now };
    case 'give': {
      const assigneeId = text(input.assigneeId);
      const state = ticket.state === 'held' ? {} : { state: goingOn(assigneeId).state! };
      return { teamId: input.teamId as string, groupId: text(input.groupId), assigneeId, ...state };
    }
  }
}

/** What the requester reads of the move, and what only the team does. */
function wordsOf({ name, by, input }: Move): { message: string | null; note: string | null } {
  const message = text(input.message) ?? text(input.stillBroken);
  if (name === 'finish') return { message: text(input.message) ?? text(input.solution), note: null };
  if (name === 'withdraw' && by === 'agent') return { message: text(input.reason), note: null };
  return { message, note: name === 'give' || name === 'hold' ? text(input.reason) : null };
}

/**
 * Judges a move and says what it changes. Nothing is changed here.
 * @example planMove({ state: 'received', heldFor: null, assigneeId: null }, { name: 'take', by: 'agent', … })
 *   // { ok: true, changes: { assigneeId: 'bia', state: 'inWork' }, … }
 */
export function planMove(ticket: MovableTicket, move: Move): MovePlan {
  if (!canMove(move.name, ticket, move.by)) return { ok: false, reason: 'notAllowed' };
  const problems = problemsOf(move);
  if (problems.length > 0) return { ok: false, reason: 'fields', problems };
  return { ok: true, changes: changesOf(move, ticket), ...wordsOf(move) };
}
