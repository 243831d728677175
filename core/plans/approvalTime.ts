import type { Silence } from '../approvals';
import { quantile } from '../measures';
import type { ServicePlan } from './servicePlan';

/** So many answers have to be known before their time counts as usual. */
const LEAST_KNOWN = 5;
/** How long an answer is expected to take where nothing is known of it: a working day. */
const UNKNOWN = 'P1D';
const MINUTE_MS = 60_000;

/**
 * How long an approval is expected to take, as an ISO 8601 duration of working time: the median of how long it took
 * before (working ms), where that is known of at least five; else its silence period; else a working day.
 * @example expectAnswer([60_000, 120_000, 180_000, 240_000, 300_000], undefined) // 'PT3M'
 */
export function expectAnswer(taken: number[], silence: Silence | undefined): string {
  if (taken.length < LEAST_KNOWN) return silence?.after ?? UNKNOWN;
  return `PT${Math.max(1, Math.ceil(quantile(taken, 0.5)! / MINUTE_MS))}M`;
}

/** The approvals of a plan of which nobody said how long they take. */
export function listUntimed({ steps }: Pick<ServicePlan, 'steps'>): string[] {
  return steps.flatMap(({ id, kind, effort }) => (kind === 'approval' && effort === undefined ? [id] : []));
}

/**
 * A plan whose every approval takes its time, so that its end counts them; what was said by hand stays. `taken`: by step,
 * how long answers took before, in working ms.
 */
export function withApprovalTimes(plan: ServicePlan, taken: ReadonlyMap<string, number[]>): ServicePlan {
  const untimed = listUntimed(plan);
  return {
    ...plan,
    steps: plan.steps.map((step) =>
      step.kind === 'approval' && untimed.includes(step.id)
        ? { ...step, effort: expectAnswer(taken.get(step.id) ?? [], step.silence) }
        : step,
    ),
  };
}
