import type { Condition } from '../conditions';
import { getListField, type ListField } from './fields';
import { isRelativeInstant, ME } from './resolve';

/** What is wrong with a condition, and in which field. */
export type ConditionProblem = {
  code: 'unknownField' | 'notAskable' | 'wrongValue' | 'tooDeep' | 'tooManyParts';
  field: string;
};

const MOST_PARTS = 60;
const MOST_DEPTH = 6;

type Op = Extract<Condition, { op: string }>['op'];

const COMPARING: Op[] = ['lt', 'lte', 'gt', 'gte'];
const EQUAL: Op[] = ['is', 'isNot', 'in', 'notIn'];
const THERE: Op[] = ['empty', 'notEmpty'];

/**
 * Which questions a field can be asked, in the order in which they are offered.
 * @param withWords whether texts may be asked for words in any form too, which only rules can read
 */
export function listOps({ kind }: ListField, withWords = false): Op[] {
  switch (kind) {
    case 'text':
      return [...(withWords ? (['hasAny', 'hasAll'] as const) : []), 'contains', 'is', 'isNot', ...THERE];
    case 'number':
      return ['is', 'isNot', ...COMPARING, ...THERE];
    case 'instant':
      return [...COMPARING, ...THERE];
    case 'flag':
      return ['is'];
    case 'people':
      return ['contains'];
    default:
      return [...EQUAL, ...THERE];
  }
}

function isValueOf({ kind }: ListField, value: unknown): boolean {
  switch (kind) {
    case 'number':
      return typeof value === 'number' || value === null;
    case 'instant':
      return typeof value === 'number' || isRelativeInstant(value);
    case 'flag':
      return typeof value === 'boolean';
    case 'people':
      return value === ME || typeof value === 'string';
    default:
      return typeof value === 'string' || value === null;
  }
}

/** What is wrong with what a field is asked; null: nothing. */
export function checkField(
  field: ListField,
  part: Extract<Condition, { op: string }>,
  withWords = false,
): 'notAskable' | 'wrongValue' | null {
  if (!listOps(field, withWords).includes(part.op)) return 'notAskable';
  const values: unknown[] = 'value' in part ? (Array.isArray(part.value) ? part.value : [part.value]) : [];
  return values.every((value) => isValueOf(field, value)) ? null : 'wrongValue';
}

/**
 * What is wrong with a condition of a worklist: fields that there are not (any more), questions that they cannot be
 * asked, values of another kind. `withWords`: texts may be asked for words in any form.
 */
export function checkCondition(
  condition: Condition,
  { withWords = false }: { withWords?: boolean } = {},
): ConditionProblem[] {
  const problems: ConditionProblem[] = [];
  let parts = 0;
  function checkAll(each: Condition[], depth: number): void {
    for (const part of each) check(part, depth);
  }
  function check(part: Condition, depth: number): void {
    if (++parts === MOST_PARTS) problems.push({ code: 'tooManyParts', field: '' });
    if (parts >= MOST_PARTS) return;
    if (depth > MOST_DEPTH) return void problems.push({ code: 'tooDeep', field: '' });
    if ('all' in part || 'any' in part || 'not' in part) {
      checkAll('all' in part ? part.all : 'any' in part ? part.any : [part.not], depth + 1);
      return;
    }
    const field = getListField(part.field);
    const code = field ? checkField(field, part, withWords) : 'unknownField';
    if (code) problems.push({ code, field: part.field });
  }
  check(condition, 0);
  return problems;
}
