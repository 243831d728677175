import { holds, type Condition } from '../conditions';
import type { HeldFor, TicketState } from './types';

/** In which capacity someone moves a ticket. */
export type MoverRole = 'requester' | 'agent' | 'system';

/** How well it was done, from bad to very good. */
export const RATINGS = [1, 2, 3, 4, 5] as const;

/** What moves may ask for. */
export const MOVE_FIELDS = [
  'heldFor',
  'until',
  'otherTicket',
  'reason',
  'message',
  'solution',
  'teamId',
  'groupId',
  'assigneeId',
  'rating',
  'ratingWord',
  'stillBroken',
] as const;
/** Something that a move asks for. */
export type MoveFieldName = (typeof MOVE_FIELDS)[number];

/** A field that a move asks for. Conditions read the move's own input. */
export type MoveField = { name: MoveFieldName; shownWhen?: Condition; needed: boolean };

/** What was given with a move. */
export type MoveInput = Partial<Record<MoveFieldName, string | number | null>>;

/** All moves. */
export const MOVE_NAMES = [
  'take',
  'hold',
  'resume',
  'finish',
  'confirm',
  'reopen',
  'close',
  'withdraw',
  'give',
  'grant',
  'decline',
] as const;
/** A move of a ticket. */
export type MoveName = (typeof MOVE_NAMES)[number];

/** What the rules need to know of a ticket to say what may be done with it. */
export type MovableTicket = { state: TicketState; heldFor: HeldFor | null; assigneeId: string | null };

/** A move: from which states, by whom, with what. */
export type MoveRule = {
  name: MoveName;
  from: readonly TicketState[];
  by: readonly MoverRole[];
  /** Held for an approval: only a decision or a withdrawal moves it. */
  duringApproval?: boolean;
  when?: (ticket: MovableTicket) => boolean;
  fields: (by: MoverRole) => MoveField[];
};

const open = ['received', 'inWork', 'held'] as const;
const is = (field: MoveFieldName, value: string): Condition => ({ field, op: 'is', value });
const none = (): MoveField[] => [];
const isHeldForApproval = (ticket: MovableTicket): boolean => ticket.heldFor === 'approval';

/** Who may move a ticket from where, and what the move asks for: the only place that says so. */
export const MOVES: readonly MoveRule[] = [
  { name: 'take', from: open, by: ['agent'], fields: none },
  {
    name: 'hold',
    from: ['received', 'inWork'],
    by: ['agent', 'system'],
    fields: (by) => [
      { name: 'heldFor', needed: true },
      { name: 'message', needed: by === 'agent', shownWhen: is('heldFor', 'requester') },
      { name: 'until', needed: true, shownWhen: is('heldFor', 'date') },
      { name: 'otherTicket', needed: true, shownWhen: is('heldFor', 'ticket') },
      { name: 'reason', needed: false, shownWhen: { not: is('heldFor', 'requester') } },
    ],
  },
  { name: 'resume', from: ['held'], by: ['agent', 'system'], fields: none },
  {
    name: 'finish',
    from: open,
    by: ['agent', 'system'],
    fields: () => [
      { name: 'solution', needed: true },
      { name: 'message', needed: false },
    ],
  },
  {
    name: 'give',
    from: open,
    by: ['agent', 'system'],
    fields: () => [
      { name: 'teamId', needed: true },
      { name: 'groupId', needed: false },
      { name: 'assigneeId', needed: false },
      { name: 'reason', needed: false },
    ],
  },
  {
    name: 'confirm',
    from: ['done'],
    by: ['requester'],
    fields: () => [
      { name: 'rating', needed: false },
      { name: 'ratingWord', needed: false },
    ],
  },
  {
    name: 'reopen',
    from: ['done'],
    by: ['requester', 'agent'],
    fields: () => [{ name: 'stillBroken', needed: true }],
  },
  { name: 'close', from: ['done'], by: ['system'], fields: none },
  {
    name: 'withdraw',
    from: open,
    by: ['requester', 'agent', 'system'],
    duringApproval: true,
    fields: (by) => [{ name: 'reason', needed: by !== 'requester' }],
  },
  {
    name: 'grant',
    from: ['held'],
    by: ['system'],
    duringApproval: true,
    when: isHeldForApproval,
    fields: none,
  },
  {
    name: 'decline',
    from: ['held'],
    by: ['system'],
    duringApproval: true,
    when: isHeldForApproval,
    fields: none,
  },
];

/** The rule of a move. */
export function getMoveRule(name: MoveName): MoveRule {
  const rule = MOVES.find((candidate) => candidate.name === name);
  if (!rule) throw new Error(`wanted a move, got '${name}'`);
  return rule;
}

/** Whether the rules let someone in this capacity make the move now. */
export function canMove(name: MoveName, ticket: MovableTicket, by: MoverRole): boolean {
  const rule = getMoveRule(name);
  if (!rule.by.includes(by) || !rule.from.includes(ticket.state)) return false;
  if (isHeldForApproval(ticket) && !rule.duringApproval) return false;
  return rule.when?.(ticket) ?? true;
}

/** The moves that someone can make on a ticket as it is. */
export function listMoves(ticket: MovableTicket, by: MoverRole): MoveName[] {
  return MOVES.filter(({ name }) => canMove(name, ticket, by)).map(({ name }) => name);
}

/** The fields that the move asks for, given what has been filled in so far. */
export function getMoveFields(name: MoveName, by: MoverRole, input: MoveInput): MoveField[] {
  const shown = getMoveRule(name).fields(by);
  return shown.filter(({ shownWhen }) => !shownWhen || holds(shownWhen, input));
}
