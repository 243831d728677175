import type { Answers, FormDefinition, KnownFacts } from './types';

/** The answers that are known before anything is asked. */
export function fillIn(form: FormDefinition, known: KnownFacts): Answers {
  const answers: Answers = {};
  for (const { name, filledFrom } of form.fields) {
    const value = filledFrom && known[filledFrom];
    if (value) answers[name] = value;
  }
  return answers;
}
