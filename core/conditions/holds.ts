import type { Condition, Fields } from './types';

type Leaf = Extract<Condition, { op: string }>;
type Comparison = Extract<Leaf, { op: 'lt' | 'lte' | 'gt' | 'gte' }>;
/** A condition made ready to be asked. */
export type Test = (fields: Fields) => boolean;

type Reader = (fields: Fields) => unknown;

/** Reads a field, null where it is absent; what every object inherits is not a field. */
function readerOf(field: string): Reader {
  if (field in Object.prototype)
    return (fields) => (Object.hasOwn(fields, field) ? (fields[field] ?? null) : null);
  return (fields) => fields[field] ?? null;
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

/** Makes ready to say whether a text has a word or phrase, whatever form it stands in. */
export type WordTest = (phrase: string) => (text: string) => boolean;

let wordTest: WordTest | null = null;

/**
 * Brings the reading of word forms. It needs stemmers, which are far larger than all else here and which a first page
 * has no use for, so only those who ask conditions about words bring it.
 */
export function setWordTest(test: WordTest): void {
  wordTest = test;
}

function compileWords({ op, value }: Extract<Leaf, { op: 'hasAny' | 'hasAll' }>, read: Reader): Test {
  if (!wordTest) throw new RangeError('nobody has brought the reading of words');
  const phrases = value.map(wordTest);
  return (fields) => {
    const actual = read(fields);
    if (typeof actual === 'string')
      return op === 'hasAny' ? phrases.some((has) => has(actual)) : phrases.every((has) => has(actual));
    const texts = Array.isArray(actual) ? actual.filter((each) => typeof each === 'string') : [];
    return op === 'hasAny'
      ? phrases.some((has) => texts.some((text) => has(text)))
      : phrases.every((has) => texts.some((text) => has(text)));
  };
}

function isEmpty(actual: unknown): boolean {
  return actual === null || actual === '' || (Array.isArray(actual) && actual.length === 0);
}

function compileLeaf(leaf: Leaf): Test {
  const read = readerOf(leaf.field);
  switch (leaf.op) {
    case 'is':
      return (fields) => read(fields) === leaf.value;
    case 'isNot':
      return (fields) => read(fields) !== leaf.value;
    case 'in':
      return (fields) => (leaf.value as unknown[]).includes(read(fields));
    case 'notIn':
      return (fields) => !(leaf.value as unknown[]).includes(read(fields));
    case 'contains':
      return (fields) => contains(read(fields), leaf.value);
    case 'empty':
      return (fields) => isEmpty(read(fields));
    case 'notEmpty':
      return (fields) => !isEmpty(read(fields));
    case 'hasAny':
    case 'hasAll':
      return compileWords(leaf, read);
    default:
      return (fields) => compares(leaf, read(fields));
  }
}

/** Conditions are values: each is looked into once, then asked many times. */
const compiled = new WeakMap<Condition, Test>();

/** The condition as a function, for those who ask it often. */
export function toTest(condition: Condition): Test {
  let test = compiled.get(condition);
  if (!test) compiled.set(condition, (test = compile(condition)));
  return test;
}

function compile(condition: Condition): Test {
  if ('all' in condition) {
    const parts = condition.all.map(toTest);
    return (fields) => {
      for (const part of parts) if (!part(fields)) return false;
      return true;
    };
  }
  if ('any' in condition) {
    const parts = condition.any.map(toTest);
    return (fields) => {
      for (const part of parts) if (part(fields)) return true;
      return false;
    };
  }
  if ('not' in condition) {
    const part = toTest(condition.not);
    return (fields) => !part(fields);
  }
  return compileLeaf(condition);
}

/**
 * Whether the fields meet the condition. An absent field is null; values of different types are never equal; a
 * list equals no value (ask it with `contains`); `lt` and its kin are false on null and across types. A condition
 * is a value, which is not changed after it was first asked.
 * @example holds({ field: 'priority', op: 'in', value: ['P1', 'P2'] }, { priority: 'P2' }) // true
 */
export function holds(condition: Condition, fields: Fields): boolean {
  return toTest(condition)(fields);
}
