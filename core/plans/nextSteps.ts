import { getOwn, hasOwn } from '../records';
import { holds, type Fields } from '../conditions';
import { orderPlan } from './order';
import type { Plan, Progress } from './types';

/**
 * The steps whose turn it is: to begin, or to be left out because their `when` does not hold. One left out counts at
 * once for those after it.
 * @throws BadPlan
 */
export function nextSteps(
  plan: Plan,
  progress: Progress,
  fields: Fields,
  now: number,
): { start: string[]; skip: string[]; finished: boolean } {
  const { inOrder, placed } = orderPlan(plan);
  const start = new Set<string>();
  const skip = new Set<string>();
  const isOver = (id: string): boolean => {
    const state = getOwn(progress, id)?.state;
    return state === 'done' || state === 'skipped' || skip.has(id);
  };
  /** The first leg that is not over: steps beyond it have not come up. */
  let leg = 0;
  for (const { step, leg: own, before } of inOrder) {
    if (own > leg) {
      if (!placed.every((each) => each.leg >= own || isOver(each.step.id))) break;
      leg = own;
    }
    if (hasOwn(progress, step.id) || !before.every((place) => isOver(placed[place]!.step.id))) continue;
    if (step.when && !holds(step.when, fields)) skip.add(step.id);
    else if (step.notBefore === undefined || step.notBefore <= now) start.add(step.id);
  }
  const inPlace = (set: Set<string>): string[] => plan.steps.map(({ id }) => id).filter((id) => set.has(id));
  return { start: inPlace(start), skip: inPlace(skip), finished: plan.steps.every(({ id }) => isOver(id)) };
}
