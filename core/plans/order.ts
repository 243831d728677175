import { checkPlan } from './checkPlan';
import { BadPlan } from './errors';
import type { Plan, PlanStep } from './types';

/** A step with its place in the plan and the places of those of its leg that come just before and just after it. */
export type Placed = { step: PlanStep; place: number; leg: number; before: number[]; next: number[] };

/** A plan looked into once. `inOrder`: every step after all that it waits for. */
export type Ordered = { placed: Placed[]; inOrder: Placed[] };

const known = new WeakMap<Plan, Ordered>();

function order(plan: Plan): Ordered {
  const problems = checkPlan(plan);
  if (problems.length > 0) throw new BadPlan(problems);
  const places = new Map(plan.steps.map(({ id }, place) => [id, place]));
  const placed = plan.steps.map((step, place): Placed => {
    const before = [...new Set(step.after)].map((id) => places.get(id)!);
    return { step, place, leg: plan.legs.indexOf(step.leg), before, next: [] };
  });
  for (const { place, before } of placed) for (const other of before) placed[other]!.next.push(place);
  const inOrder: Placed[] = [];
  const isIn = new Set<Placed>();
  function put(each: Placed): void {
    if (isIn.has(each)) return;
    isIn.add(each);
    for (const other of each.before) put(placed[other]!);
    inOrder.push(each);
  }
  for (const each of [...placed].sort((a, b) => a.leg - b.leg)) put(each);
  return { placed, inOrder };
}

/**
 * The order in which a plan's steps can be taken. A plan is a value, which is not changed after it was first asked.
 * @throws BadPlan
 */
export function orderPlan(plan: Plan): Ordered {
  let ordered = known.get(plan);
  if (!ordered) known.set(plan, (ordered = order(plan)));
  return ordered;
}
