import { getOwn, hasOwn } from '../records';
import { checkAnswers } from './checkAnswers';
import type { Answers, FormDefinition } from './types';

/**
 * What was answered to one form, as far as another asks for the same: under the same name, in the same way, and with an
 * answer that it takes. The rest is named, so that it can be kept elsewhere.
 */
export function carryAnswers(
  from: FormDefinition,
  to: FormDefinition,
  answers: Answers,
): { carried: Answers; left: string[] } {
  const same = from.fields.filter(({ name, kind }) =>
    to.fields.some((field) => field.name === name && field.kind === kind),
  );
  const taken = Object.fromEntries(
    same
      .filter(({ name }) => getOwn(answers, name) != null)
      .map(({ name }) => [name, getOwn(answers, name)!]),
  );
  const { answers: checked, problems } = checkAnswers(to, taken);
  const refused = new Set(problems.map(({ field }) => field));
  const carried = Object.fromEntries(
    Object.entries(checked).filter(([name]) => hasOwn(taken, name) && !refused.has(name)),
  );
  const left = from.fields
    .map(({ name }) => name)
    .filter((name) => getOwn(answers, name) != null && !hasOwn(carried, name));
  return { carried, left };
}
