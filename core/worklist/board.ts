import { canMove, type MovableTicket, type MoveInput, type MoveName } from '../tickets';
import type { BoardField } from './types';

/** What dragging a card to a column does: a move (with what is known of its form), or a change of a fact. */
export type CardMove =
  | { kind: 'move'; name: MoveName; input: MoveInput }
  | { kind: 'fact'; fact: 'progressId' | 'priority'; value: string | null };

/** A ticket as a board needs it. */
export type Card = MovableTicket & { teamId: string };

const TO_STATE: Record<string, (card: Card) => MoveName> = {
  inWork: ({ state }) => (state === 'held' ? 'resume' : state === 'done' ? 'reopen' : 'take'),
  held: () => 'hold',
  done: () => 'finish',
};

/**
 * What would bring a card to a column, or null where nothing may.
 * @example planCardMove({ state: 'received', … }, 'state', 'held') // { kind: 'move', name: 'hold', input: {} }
 */
export function planCardMove(card: Card, by: BoardField, to: string | null): CardMove | null {
  const move = (name: MoveName, input: MoveInput = {}): CardMove | null =>
    canMove(name, card, 'agent') ? { kind: 'move', name, input } : null;
  switch (by) {
    case 'state': {
      const name = to === null ? undefined : TO_STATE[to]?.(card);
      return name ? move(name) : null;
    }
    case 'heldFor':
      if (to === null) return move('resume');
      return to === 'approval' ? null : move('hold', { heldFor: to });
    case 'teamId':
      return to === null ? null : move('give', { teamId: to, assigneeId: null });
    case 'assigneeId':
      return move('give', { teamId: card.teamId, assigneeId: to });
    case 'progressId':
      return { kind: 'fact', fact: 'progressId', value: to };
    case 'priority':
      return to === null ? null : { kind: 'fact', fact: 'priority', value: to };
  }
}
