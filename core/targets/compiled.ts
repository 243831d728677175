import { listFields, toTest, type Condition, type Fields, type Test } from '../conditions';
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
  /** Which of its questions ask for a field, as bits; what else happens to the work is nothing to its clock. */
  asked: Record<string, number>;
  /** What it asks for, before anything is known. */
  blank: Fields;
};

/** The questions that a target asks, each a bit: those whose fields did not change are not asked again. */
export const QUESTION = { starts: 1, pauses: 2, stops: 4, resets: 8, cancels: 16, inForce: 32 } as const;
/** All questions of a target, as the bits of one number. */
export const EVERY_QUESTION = 63;

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
  const asked = Object.create(null) as Record<string, number>;
  function ask(question: number, ...conditions: (Condition | undefined)[]): void {
    for (const field of conditions.flatMap((condition) => (condition ? listFields(condition) : [])))
      asked[field] = (asked[field] ?? 0) | question;
  }
  ask(QUESTION.starts, startWhen);
  ask(QUESTION.pauses, pauseWhen);
  ask(QUESTION.stops, stopWhen);
  ask(QUESTION.resets, resetWhen);
  ask(QUESTION.cancels, typeof cancelWhen === 'string' ? startWhen : cancelWhen);
  ask(QUESTION.inForce, ...[...limits, ...calendars].map(({ when }) => when));
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
    asked,
    blank: Object.fromEntries(Object.keys(asked).map((field) => [field, null])),
  };
}

/** A target ready for reckoning many clocks. */
export function compileTarget(definition: TargetDefinition): CompiledTarget {
  let target = compiled.get(definition);
  if (!target) compiled.set(definition, (target = compile(definition)));
  return target;
}
