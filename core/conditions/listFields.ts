import type { Condition } from './types';

/** The fields that a condition asks for, each as often as it does. */
export function listFields(condition: Condition): string[] {
  if ('all' in condition) return condition.all.flatMap(listFields);
  if ('any' in condition) return condition.any.flatMap(listFields);
  if ('not' in condition) return listFields(condition.not);
  return [condition.field];
}
