import type { Condition } from '../../../core/conditions';
import type { FactKind } from '../../../core/measures';

/** Shares that are asked for often, by what is counted; others are conditions of their own. */
export const SHARES: Partial<Record<FactKind, Record<string, Condition>>> = {
  tickets: {
    inTime: { field: 'promise', op: 'is', value: 'met' },
    reopened: { field: 'reopened', op: 'gt', value: 0 },
    passedOn: { field: 'teams', op: 'gt', value: 1 },
    ratedWell: { field: 'rating', op: 'gte', value: 4 },
    declined: { field: 'isDeclined', op: 'is', value: true },
  },
  approvals: { declined: { field: 'decision', op: 'in', value: ['declined'] } },
  steps: { late: { field: 'late', op: 'is', value: true } },
  articles: { helped: { field: 'use', op: 'in', value: ['helped'] } },
};

/** Which of them a condition is; null: one of its own. */
export function shareName(of: FactKind, condition: Condition): string | null {
  const found = Object.entries(SHARES[of] ?? {}).find(
    ([, share]) => JSON.stringify(share) === JSON.stringify(condition),
  );
  return found?.[0] ?? null;
}
