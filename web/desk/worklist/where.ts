import type { Condition } from '../../../core/conditions';
import { checkCondition } from '../../../core/worklist';

/** A condition as it stands in an address; null where there is none, or none that can be asked. */
export function conditionOf(text: string | null): Condition | null {
  if (text === null) return null;
  try {
    const condition = JSON.parse(text) as Condition;
    return checkCondition(condition).length === 0 ? condition : null;
  } catch {
    return null;
  }
}

/** Both, as one that demands all of their parts. */
export function narrow(one: Condition | null, other: Condition): Condition {
  const parts = (condition: Condition | null): Condition[] =>
    condition === null ? [] : 'all' in condition ? condition.all : [condition];
  return { all: [...parts(one), ...parts(other)] };
}

/** The parts that narrow a list, each to be taken away alone. */
export function partsOf(where: Condition | null): Condition[] {
  if (where === null) return [];
  return 'all' in where ? where.all : [where];
}

export function withoutPart(where: Condition | null, part: Condition): Condition | null {
  const rest = partsOf(where).filter((each) => each !== part);
  return rest.length === 0 ? null : { all: rest };
}
