import type { ProcessStep } from '../approvals';
import type { LocalText } from '../forms';
import { foldText } from '../text';
import type { ServicePlan, ServiceStep } from './servicePlan';

/** So many letters of a name make a key. */
const KEY_LETTERS = 40;

/**
 * A key of words, which no other has.
 * @example keyOfWords('Prepare the desk', ['prepareTheDesk']) // 'prepareTheDesk2'
 */
export function keyOfWords(words: string, taken: string[]): string {
  const [first = 'step', ...rest] = foldText(words).match(/[a-z0-9]+/g) ?? [];
  const key = [first, ...rest.map((word) => word[0]!.toUpperCase() + word.slice(1))]
    .join('')
    .slice(0, KEY_LETTERS);
  if (!taken.includes(key)) return key;
  return Array.from({ length: taken.length + 1 }, (_, i) => `${key}${i + 2}`).find(
    (each) => !taken.includes(each),
  )!;
}

/** A new step of a part: it has words and a key at once, both its own. */
export function newStep({ steps }: Pick<ServicePlan, 'steps'>, leg: string, teamId: string): ServiceStep {
  const names = steps.flatMap(({ name }) => [name.en, name.pt]);
  const nameOf = (n: number): LocalText => ({ en: `New step ${n}`, pt: `Novo passo ${n}` });
  const free = Array.from({ length: steps.length + 1 }, (_, i) => nameOf(i + 1)).find(
    ({ en, pt }) => !names.includes(en) && !names.includes(pt),
  )!;
  const id = keyOfWords(
    free.en,
    steps.map((step) => step.id),
  );
  return { id, leg, name: free, kind: 'task', teamId };
}

/** Approvals as the steps of a part, one after the other. */
function toSteps(approvals: ProcessStep[], leg: string, taken: string[]): ServiceStep[] {
  const agreed: ServiceStep[] = [];
  for (const { name, when, refs, needs, declineBy, silence } of approvals) {
    const before = agreed.at(-1);
    const id = keyOfWords(name.en, [...taken, ...agreed.map((step) => step.id)]);
    agreed.push({
      ...{ id, leg, kind: 'approval', name, refs, needs, declineBy },
      ...(before && { after: [before.id] }),
      ...(when && { when }),
      ...(silence && { silence }),
    });
  }
  return agreed;
}

/** A plan with approvals as a part before all others, one after the other; without approvals it stays. */
export function agreeFirst(plan: ServicePlan, approvals: ProcessStep[]): ServicePlan {
  if (approvals.length === 0) return plan;
  const id = keyOfWords(
    'agree',
    plan.legs.map((leg) => leg.id),
  );
  const taken = plan.steps.map((step) => step.id);
  return {
    ...plan,
    legs: [{ id, name: { en: 'Agree', pt: 'Acordar' } }, ...plan.legs],
    steps: [...toSteps(approvals, id, taken), ...plan.steps],
  };
}

/** The plan that a service begins with when one is drawn: its approvals first, then one step of its team. */
export function beginPlan(approvals: ProcessStep[], teamId: string): ServicePlan {
  const legs = [{ id: 'do', name: { en: 'Do', pt: 'Fazer' } }];
  return agreeFirst({ legs, steps: [newStep({ steps: [] }, 'do', teamId)] }, approvals);
}

/** The approvals of a plan, in its order, as they stand before the work where there is no plan any more. */
export function approvalsOf({ steps }: Pick<ServicePlan, 'steps'>): ProcessStep[] {
  return steps.flatMap((step) => {
    if (step.kind !== 'approval') return [];
    const { name, when, refs, needs, declineBy, silence } = step;
    return [{ name, refs, needs, declineBy, ...(when && { when }), ...(silence && { silence }) }];
  });
}

/** The same plan with the steps of one part in another order; those of other parts stay where they are. */
export function orderSteps(plan: ServicePlan, ids: string[]): ServicePlan {
  const moved = ids.map((id) => plan.steps.find((step) => step.id === id)!);
  let next = 0;
  return { ...plan, steps: plan.steps.map((step) => (ids.includes(step.id) ? moved[next++]! : step)) };
}

/** The same plan with a part one place earlier (-1) or later (1); at an end it stays. */
export function moveLeg(plan: ServicePlan, id: string, by: -1 | 1): ServicePlan {
  const from = plan.legs.findIndex((leg) => leg.id === id);
  const to = from + by;
  if (from === -1 || to < 0 || to >= plan.legs.length) return plan;
  const legs = [...plan.legs];
  [legs[from], legs[to]] = [legs[to]!, legs[from]!];
  return { ...plan, legs };
}

/** A key that was made of a name nobody has chosen yet. */
const UNNAMED = /^newStep\d*$/;

/** The same plan in which steps that have been named since have a key of their name; who waits for them waits for them still. */
export function nameKeys(plan: ServicePlan): ServicePlan {
  const keys = new Map<string, string>();
  for (const { id, name } of plan.steps) {
    if (!UNNAMED.test(id) || /^New step \d+$/.test(name.en) || name.en.trim() === '') continue;
    const taken = [...plan.steps.map((step) => step.id), ...keys.values()];
    keys.set(id, keyOfWords(name.en, taken));
  }
  if (keys.size === 0) return plan;
  const keyOf = (id: string): string => keys.get(id) ?? id;
  return {
    ...plan,
    steps: plan.steps.map((step) => ({
      ...step,
      id: keyOf(step.id),
      ...(step.after && { after: step.after.map(keyOf) }),
    })),
  };
}
