import type { Plan, PlanProblem, PlanProblemCode, PlanStep } from './types';

type Add = (code: PlanProblemCode, steps: string[], message: string) => void;

/** Those that occur more than once, each once. */
function repeated(values: string[]): string[] {
  const seen = new Set<string>();
  const again = new Set<string>();
  for (const value of values) (seen.has(value) ? again : seen).add(value);
  return [...again];
}

function checkLegs({ legs, steps }: Plan, add: Add): void {
  for (const leg of repeated(legs)) add('duplicateLeg', [], `Two legs are called ${leg}.`);
  const used = new Set(steps.map(({ leg }) => leg));
  for (const leg of new Set(legs)) if (!used.has(leg)) add('emptyLeg', [], `The leg ${leg} has no step.`);
}

function checkSteps({ legs, steps }: Plan, add: Add): void {
  for (const id of repeated(steps.map((step) => step.id)))
    add('duplicateStep', [id], `Two steps are called ${id}.`);
  const byId = new Map(steps.map((step) => [step.id, step]));
  const known = new Set(legs);
  for (const { id, leg, after = [], effort } of steps) {
    if (!known.has(leg)) add('unknownLeg', [id], `${id} is in the leg ${leg}, which is not there.`);
    if (!(effort >= 0)) add('badEffort', [id], `${id} takes less than no time.`);
    for (const other of after.length > 1 ? new Set(after) : after) {
      const before = byId.get(other);
      if (!before) add('unknownStep', [id], `${id} waits for ${other}, which is not there.`);
      else if (before.leg !== leg)
        add(
          'acrossLegs',
          [id, other],
          `${id} waits for ${other} of another leg: legs follow one another anyway.`,
        );
    }
  }
}

/** A step on the way through the graph: its number, the lowest it reaches, and whether its set is still open. */
type Visited = { step: PlanStep; number: number; lowest: number; isOpen: boolean };

/** Tarjan's strongly connected components: the sets of steps that wait for one another. */
function findCycles(steps: PlanStep[]): string[][] {
  const byId = new Map(steps.map((step) => [step.id, step]));
  const visited = new Map<string, Visited>();
  const stack: Visited[] = [];
  const cycles: string[][] = [];
  function visit(step: PlanStep): Visited {
    const own: Visited = { step, number: visited.size, lowest: visited.size, isOpen: true };
    visited.set(step.id, own);
    stack.push(own);
    for (const id of step.after ?? []) {
      if (byId.get(id)?.leg !== step.leg) continue;
      const before = visited.get(id);
      if (!before) own.lowest = Math.min(own.lowest, visit(byId.get(id)!).lowest);
      else if (before.isOpen) own.lowest = Math.min(own.lowest, before.number);
    }
    if (own.lowest !== own.number) return own;
    const set = stack.splice(stack.lastIndexOf(own));
    for (const each of set) each.isOpen = false;
    if (set.length > 1 || step.after?.includes(step.id)) cycles.push(set.map((each) => each.step.id));
    return own;
  }
  for (const step of byId.values()) if (!visited.has(step.id)) visit(step);
  return cycles;
}

/** What keeps a plan from being followed, in words. An empty plan is none. */
export function checkPlan(plan: Plan): PlanProblem[] {
  const problems: PlanProblem[] = [];
  const add: Add = (code, steps, message) => problems.push({ code, steps, message });
  checkLegs(plan, add);
  checkSteps(plan, add);
  for (const steps of findCycles(plan.steps))
    add('cycle', steps, `${steps.join(', ')} wait for one another.`);
  return problems;
}
