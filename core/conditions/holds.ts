import type { Condition, Fields } from './types';

type Comparison = Extract<Condition, { op: 'lt' | 'lte' | 'gt' | 'gte' }>;

function read(fields: Fields, field: string): unknown {
  return Object.hasOwn(fields, field) ? (fields[field] ?? null) : null;
}

function compares({ op, value }: Comparison, actual: unknown): boolean {
  if (typeof actual !== typeof value) return false;
  const left = actual as typeof value;
  switch (op) {
    case 'lt':
      return left < value;
    case 'lte':
      return left <= value;
    case 'gt':
      return left > value;
    case 'gte':
      return left >= value;
  }
}

function contains(actual: unknown, value: string): boolean {
  if (Array.isArray(actual)) return actual.includes(value);
  return typeof actual === 'string' && actual.toLowerCase().includes(value.toLowerCase());
}

function isEmpty(actual: unknown): boolean {
  return actual === null || actual === '' || (Array.isArray(actual) && actual.length === 0);
}

/**
 * Whether the fields meet the condition. An absent field is null; values of different types are never equal; a
 * list equals no value (ask it with `contains`); `lt` and its kin are false on null and across types.
 * @example holds({ field: 'priority', op: 'in', value: ['P1', 'P2'] }, { priority: 'P2' }) // true
 */
export function holds(condition: Condition, fields: Fields): boolean {
  if ('all' in condition) return condition.all.every((part) => holds(part, fields));
  if ('any' in condition) return condition.any.some((part) => holds(part, fields));
  if ('not' in condition) return !holds(condition.not, fields);
  const actual = read(fields, condition.field);
  switch (condition.op) {
    case 'is':
      return actual === condition.value;
    case 'isNot':
      return actual !== condition.value;
    case 'in':
      return (condition.value as unknown[]).includes(actual);
    case 'notIn':
      return !(condition.value as unknown[]).includes(actual);
    case 'contains':
      return contains(actual, condition.value);
    case 'empty':
      return isEmpty(actual);
    case 'notEmpty':
      return !isEmpty(actual);
    default:
      return compares(condition, actual);
  }
}
