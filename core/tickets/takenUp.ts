import type { MoveInput, MoveName, MoverRole } from './moves';

/** What a move says of whether a person has begun with a ticket; null: nothing. */
export type TakenUp = {
  /** Until the move: who moves it on has looked at it. */
  before: true | null;
  /** From the move on. */
  after: boolean | null;
};

/**
 * A ticket is taken up when a person of its team begins: takes it, writes on it, or moves it. What is merely given to
 * someone, by a person or by routing, waits until they begin.
 * @example takenUpBy({ name: 'give', by: 'system', actorId: null, input: {} }) // { before: null, after: false }
 */
export function takenUpBy(move: {
  name: MoveName;
  by: MoverRole;
  actorId: string | null;
  input: MoveInput;
}): TakenUp {
  const { name, by, actorId, input } = move;
  const before = by === 'agent' ? true : null;
  if (name === 'give') return { before, after: actorId !== null && input.assigneeId === actorId };
  return { before, after: before };
}
