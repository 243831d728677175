import { parseDuration } from '../calendar';
import { holds, type Condition, type Fields } from '../conditions';
import type { TargetDefinition } from './types';

/** What is wrong with a target, and in which field. */
export type TargetProblem = {
  field: 'startWhen' | 'stopWhen' | 'limits' | 'calendars' | 'warnAtPercent';
  code: 'neverStarts' | 'neverStops' | 'missing' | 'malformed' | 'notPositive' | 'limitsGrow';
};

/** Beyond so many combinations of values nothing is claimed. */
const MOST_TRIED = 50_000;

type Values = Map<string, Set<unknown>>;

/** The values that an operator tells apart; a bound has two sides. */
function valuesOf(
  leaf: Exclude<Condition, { all: unknown } | { any: unknown } | { not: unknown }>,
): unknown[] {
  switch (leaf.op) {
    case 'in':
    case 'notIn':
      return leaf.value;
    case 'lt':
    case 'lte':
    case 'gt':
    case 'gte':
      return typeof leaf.value === 'number'
        ? [leaf.value - 1, leaf.value, leaf.value + 1]
        : [leaf.value, `${leaf.value}\u0000`, ''];
    case 'empty':
    case 'notEmpty':
      return [''];
    default:
      return [leaf.value];
  }
}

/** The values that a condition tells apart, by field: those it names, none, and one that it does not name. */
function collectValues(condition: Condition, values: Values): void {
  if ('all' in condition) condition.all.forEach((each) => collectValues(each, values));
  else if ('any' in condition) condition.any.forEach((each) => collectValues(each, values));
  else if ('not' in condition) collectValues(condition.not, values);
  else {
    const known = values.get(condition.field) ?? new Set([null, '\u0000another']);
    valuesOf(condition).forEach((value) => known.add(value));
    values.set(condition.field, known);
  }
}

/** Whether some values make it hold; null when there are too many to try. */
export function canHold(condition: Condition): boolean | null {
  const values: Values = new Map();
  collectValues(condition, values);
  const fields = [...values.keys()];
  const total = fields.reduce((product, field) => product * values.get(field)!.size, 1);
  if (total > MOST_TRIED) return null;

  function tryFrom(at: number, chosen: Fields): boolean {
    const field = fields[at];
    if (field === undefined) return holds(condition, chosen);
    for (const value of values.get(field)!) if (tryFrom(at + 1, { ...chosen, [field]: value })) return true;
    return false;
  }
  return tryFrom(0, {});
}

/** A working day as limits are compared by, where it is not said on whose calendar. */
const HOURS_PER_DAY = 10;

/** Whether something more urgent is given more time than something less urgent. */
function growsWithPriority(limits: TargetDefinition['limits']): boolean {
  const byPriority = limits.flatMap(({ when, duration }) => {
    const name = when && 'field' in when && when.field === 'priority' && when.op === 'is' ? when.value : null;
    if (when && typeof name !== 'string') return [];
    try {
      // Who is in none of the others is the least urgent.
      return [
        {
          name: typeof name === 'string' ? name : 'P9',
          ms: parseDuration(duration, { hoursPerDay: HOURS_PER_DAY }),
        },
      ];
    } catch {
      return [];
    }
  });
  const inOrder = byPriority.sort((a, b) => (a.name < b.name ? -1 : 1));
  return inOrder.some(({ ms }, i) => i > 0 && ms < inOrder[i - 1]!.ms);
}

/** Another target that begins, ends and is made to the same as this one: it promises the same twice. */
export function findDouble(
  { id, kind, startWhen, stopWhen }: TargetDefinition,
  others: readonly TargetDefinition[],
): TargetDefinition | null {
  const what = JSON.stringify([kind, startWhen, stopWhen]);
  return (
    others.find(
      (other) => other.id !== id && JSON.stringify([other.kind, other.startWhen, other.stopWhen]) === what,
    ) ?? null
  );
}

/** What keeps a target from ever being a promise, by field. Nothing found: an empty list. */
export function checkTarget(definition: TargetDefinition): TargetProblem[] {
  const { startWhen, stopWhen, cancelWhen, limits, calendars, warnAtPercent } = definition;
  const problems: TargetProblem[] = [];
  const isCalledOff: Condition =
    cancelWhen === 'never' || cancelWhen === 'startNoLongerHolds' ? { any: [] } : cancelWhen;
  if (canHold({ all: [startWhen, { not: stopWhen }, { not: isCalledOff }] }) === false)
    problems.push({ field: 'startWhen', code: 'neverStarts' });
  if (canHold(stopWhen) === false) problems.push({ field: 'stopWhen', code: 'neverStops' });
  if (limits.length === 0) problems.push({ field: 'limits', code: 'missing' });
  if (calendars.length === 0) problems.push({ field: 'calendars', code: 'missing' });
  for (const { duration } of limits) {
    try {
      parseDuration(duration, { hoursPerDay: 24 });
    } catch {
      problems.push({ field: 'limits', code: 'malformed' });
    }
  }
  if (growsWithPriority(limits)) problems.push({ field: 'limits', code: 'limitsGrow' });
  if (warnAtPercent.some((percent) => !(percent > 0)))
    problems.push({ field: 'warnAtPercent', code: 'notPositive' });
  return problems;
}
