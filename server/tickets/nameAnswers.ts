import type { Answers, FormDefinition, Named } from '../../core/forms';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { getOwn } from '../../core/records';

/** People and things that were chosen, as they are called here. @throws ProblemError where one is not there */
export async function nameAnswers(
  listo: Listo,
  { fields }: FormDefinition,
  answers: Answers,
): Promise<Answers> {
  const chosen = fields.filter(
    ({ kind, name }) => (kind === 'person' || kind === 'asset') && getOwn(answers, name),
  );
  if (chosen.length === 0) return answers;
  const { tables } = listo.db;
  const named: Answers = { ...answers };
  for (const { kind, name } of chosen) {
    const { id } = answers[name] as Named;
    const row =
      kind === 'person'
        ? await tables.people.findOne({ id, leftAt: null })
        : await tables.things.findOne({ id });
    if (!row)
      throw new ProblemError('fieldsNotValid', {
        fields: [{ field: `answers.${name}`, code: 'notAChoice' }],
      });
    named[name] = { id, name: row.name };
  }
  return named;
}
