import { setOwn } from '../records';
import type { Answers, AnswerValue, FormDefinition, KnownFacts } from './types';

/** The answers that are known before anything is asked: what is usual, and over it what is known of the person. */
export function fillIn(form: FormDefinition, known: KnownFacts): Answers {
  const answers: Answers = {};
  for (const { name, filledFrom, default: usual } of form.fields) {
    const value = (filledFrom && known[filledFrom]) ?? usual;
    if (value !== undefined && value !== '') setOwn<AnswerValue>(answers, name, value);
  }
  return answers;
}
