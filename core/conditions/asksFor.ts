import type { Condition, Scalar } from './types';

/** Whether a condition asks anywhere, also where it says no, for a value of a field. */
export function asksFor(condition: Condition, field: string, value: Scalar): boolean {
  if ('all' in condition) return condition.all.some((part) => asksFor(part, field, value));
  if ('any' in condition) return condition.any.some((part) => asksFor(part, field, value));
  if ('not' in condition) return asksFor(condition.not, field, value);
  if (condition.field !== field || !('value' in condition)) return false;
  const asked: Scalar[] = Array.isArray(condition.value) ? condition.value : [condition.value];
  return asked.includes(value);
}
