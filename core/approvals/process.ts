import { holds, type Condition, type Fields } from '../conditions';
import type { LocalText } from '../forms';
import type { ApproverRef, Needs } from './types';

/** Beside the others: who heads the site that the form names. */
export type StepApproverRef = ApproverRef | { headOfSite: string };

/** What happens when someone has said nothing for so long (an ISO 8601 duration of working time) since they were asked or last reminded. */
export type Silence = {
  after: string;
  then: 'remind' | 'passUp' | 'approve' | 'decline';
  /** How often one is reminded; absent: until it is decided. */
  most?: number;
};

/** One step of an approval process, as a service defines it. */
export type ProcessStep = {
  name: LocalText;
  /** Asked only where this holds of the answers, the cost (in cents, as `cost`) and the priority. */
  when?: Condition;
  refs: StepApproverRef[];
  needs: Needs;
  declineBy: 'any' | 'outOfReach';
  /** Who approved an earlier step counts here as having approved at once. */
  carry?: true;
  silence?: Silence;
};

/**
 * The next step of a process that is asked, from a place in it on; null where none is left: it is approved.
 * @example findNextStep(process, 0, { cost: 20_000 }) // 0, or the first whose condition holds
 */
export function findNextStep(process: ProcessStep[], from: number, fields: Fields): number | null {
  const index = process.findIndex((step, i) => i >= from && (!step.when || holds(step.when, fields)));
  return index === -1 ? null : index;
}
