import { holds, NEVER, simplify, type Condition } from '../conditions';
import type { TicketState } from '../tickets';

/**
 * What is late and what is due today, of tickets, steps and approvals. Each counts by its tightest due instant: of its
 * clocks that are going, its due instant by hand, or of a step the instant at which its plan needs it.
 *
 * - late: its due instant has passed, and it waits for no one else.
 * - due today: its due instant is to come before the reader's day ends, and it waits for no one else.
 * What is held waits for others, and is neither. What is done, closed or withdrawn has no due instant.
 *
 * These are the states in which a due instant counts.
 */
export const FALLS_DUE: TicketState[] = ['received', 'inWork'];
const NOT_HELD: Condition = { field: 'state', op: 'in', value: FALLS_DUE };

/** The due instant has passed. */
export const LATE: Condition = { all: [NOT_HELD, { field: 'dueAt', op: 'lt', value: '@now' }] };

/** The due instant is to come, within the reader's day. */
export const DUE_TODAY: Condition = {
  all: [
    NOT_HELD,
    { field: 'dueAt', op: 'gte', value: '@now' },
    { field: 'dueAt', op: 'lt', value: '@dayEnd' },
  ],
};

const MEANINGS: Record<string, Condition> = { isLate: LATE, isDueToday: DUE_TODAY };

/** What a condition on the field `isLate` or `isDueToday` means; null: it is on another field. */
export function sayDue(leaf: Condition): Condition | null {
  if (!('op' in leaf) || !Object.hasOwn(MEANINGS, leaf.field)) return null;
  const meaning = MEANINGS[leaf.field]!;
  const isTrue: Condition = holds({ ...leaf, field: 'flag' }, { flag: true }) ? meaning : NEVER;
  const isFalse: Condition = holds({ ...leaf, field: 'flag' }, { flag: false }) ? { not: meaning } : NEVER;
  return simplify({ any: [isTrue, isFalse] }, {});
}

/** Late, or due today. */
export const LATE_OR_DUE_TODAY: Condition = {
  all: [NOT_HELD, { field: 'dueAt', op: 'lt', value: '@dayEnd' }],
};
