import { holds } from './holds';
import type { Condition, Fields } from './types';

/** The condition that everything meets. */
export const ALWAYS: Condition = { all: [] };
/** The condition that nothing meets. */
export const NEVER: Condition = { any: [] };

/** Whether a condition is plainly met by everything. */
export const isAlways = (condition: Condition): boolean => 'all' in condition && condition.all.length === 0;
/** Whether a condition is plainly met by nothing. */
export const isNever = (condition: Condition): boolean => 'any' in condition && condition.any.length === 0;

/**
 * What is left of a condition once some fields are known.
 * @example simplify({ any: [{ field: 'work', op: 'is', value: 'step' }, other] }, { work: 'ticket' }) // other
 */
export function simplify(condition: Condition, known: Fields): Condition {
  if ('not' in condition) {
    const part = simplify(condition.not, known);
    if (isAlways(part)) return NEVER;
    return isNever(part) ? ALWAYS : { not: part };
  }
  if ('op' in condition) {
    if (!Object.hasOwn(known, condition.field)) return condition;
    return holds(condition, known) ? ALWAYS : NEVER;
  }
  const isAll = 'all' in condition;
  const isNeutral = isAll ? isAlways : isNever;
  const isDecisive = isAll ? isNever : isAlways;
  const parts = (isAll ? condition.all : condition.any)
    .map((part) => simplify(part, known))
    .filter((part) => !isNeutral(part));
  const decisive = parts.find(isDecisive);
  if (decisive) return decisive;
  if (parts.length === 1) return parts[0]!;
  return isAll ? { all: parts } : { any: parts };
}
