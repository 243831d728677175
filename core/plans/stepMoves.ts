import type { PlanStep, StepState } from './types';

/** What may be done with one step on one ticket. */
export const STEP_MOVES = ['take', 'tick', 'finish', 'leaveOut', 'redo'] as const;
/** What can be done with a step. */
export type StepMove = (typeof STEP_MOVES)[number];

type MovableStep = { kind: PlanStep['kind']; state: StepState | 'waiting'; isTicketOpen: boolean };

/** Tasks are taken and done by people, what is ranked goes ahead; what has not been done can be left out, what has been can be done anew. */
export function listStepMoves({ kind, state, isTicketOpen }: MovableStep): StepMove[] {
  if (!isTicketOpen) return [];
  if (state === 'active') {
    if (kind === 'task') return ['take', 'tick', 'finish', 'leaveOut'];
    if (kind === 'ranking') return ['finish', 'leaveOut'];
    return kind === 'automatic' ? ['leaveOut'] : [];
  }
  if (state === 'waiting') return ['leaveOut'];
  if (state === 'failed') return ['redo', 'leaveOut'];
  return kind === 'approval' ? [] : ['redo'];
}
