import { OPEN_STATES } from '../tickets';
import type { Condition } from '../conditions';

const OPEN: Condition = { field: 'state', op: 'in', value: [...OPEN_STATES] };

/** What nobody has yet. */
export const NOBODYS: Condition = { field: 'assigneeId', op: 'is', value: null };

/** All that some people carry: their open work of every kind, whatever list it stands in. */
export function carriedBy(personIds: readonly string[]): Condition {
  return { all: [{ field: 'assigneeId', op: 'in', value: [...personIds] }, OPEN] };
}
