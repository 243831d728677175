import { listFields, toTest, type Condition, type Test } from '../conditions';
import type { TargetDefinition } from './types';

/** A choice among limits or calendars: the first whose test holds is in force. */
export type Choice<T> = { test: Test | null; value: T };

/** A definition looked into once, so that reading its clocks many times is quick. */
export type CompiledTarget = {
  definition: TargetDefinition;
  starts: Test;
  pauses: Test;
  stops: Test;
  resets: Test;
  cancels: Test;
  limits: Choice<string>[];
  calendars: Choice<string>[];
  /** The percentages to warn at, each once, rising. */
  thresholds: number[];
  /** The fields that its conditions ask for; what else happens to the work is nothing to its clock. */
  asked: Set<string>;
};

const never: Test = () => false;
const compiled = new WeakMap<TargetDefinition, CompiledTarget>();

function toCancelTest({ cancelWhen }: TargetDefinition, starts: Test): Test {
  if (cancelWhen === 'never') return never;
  return cancelWhen === 'startNoLongerHolds' ? (fields) => !starts(fields) : toTest(cancelWhen);
}

function compile(definition: TargetDefinition): CompiledTarget {
  const { startWhen, pauseWhen, stopWhen, resetWhen, cancelWhen, limits, calendars } = definition;
  const starts = toTest(startWhen);
  const choices = <T>(when: Condition | undefined, value: T): Choice<T> => ({
    test: when ? toTest(when) : null,
    value,
  });
  const conditions = [
    ...[startWhen, pauseWhen, stopWhen, resetWhen, typeof cancelWhen === 'string' ? undefined : cancelWhen],
    ...[...limits, ...calendars].map(({ when }) => when),
  ];
  return {
    definition,
    starts,
    pauses: pauseWhen ? toTest(pauseWhen) : never,
    stops: toTest(stopWhen),
    resets: resetWhen ? toTest(resetWhen) : never,
    cancels: toCancelTest(definition, starts),
    limits: limits.map(({ when, duration }) => choices(when, duration)),
    calendars: calendars.map(({ when, calendarId }) => choices(when, calendarId)),
    thresholds: [...new Set(definition.warnAtPercent)].sort((a, b) => a - b),
    asked: new Set(conditions.flatMap((condition) => (condition ? listFields(condition) : []))),
  };
}

export function compileTarget(definition: TargetDefinition): CompiledTarget {
  let target = compiled.get(definition);
  if (!target) compiled.set(definition, (target = compile(definition)));
  return target;
}
