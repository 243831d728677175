import type { Ticket } from '../../contract/tickets';
import { sayAnswer, type Answers, type FormDefinition, type Language } from '../../core/forms';
import { getOwn } from '../../core/records';

/** What was answered, question by question. */
export function listAnswered({ fields }: FormDefinition, answers: Answers): Ticket['answers'] {
  return fields
    .filter(({ name }) => getOwn(answers, name) != null)
    .map((field) => ({ field, value: getOwn(answers, field.name)! }));
}

/** The answers of a form, a line each: what is needed to decide. */
export function factsOf({ fields }: FormDefinition, answers: Answers, language: Language): string {
  const lines = fields.flatMap((field) => {
    const said = sayAnswer(field, getOwn(answers, field.name), language);
    return said === null ? [] : [`${field.label[language].replace(/[?:]$/, '')}: ${said}`];
  });
  return lines.join('\n');
}
