import { checkAnswers, fillIn, type FormDefinition } from './index';

const label = { en: 'Why', pt: 'Porquê' };

/** Names of fields are free text: those that every object inherits are names like others. */
test.each(['constructor', 'valueOf', '__proto__'])('a field called %s', (name) => {
  const form: FormDefinition = { fields: [{ name, kind: 'text', label, needed: true }] };
  expect(checkAnswers(form, {}).problems).toEqual([{ field: name, code: 'missing' }]);
  const { answers, problems } = checkAnswers(form, Object.fromEntries([[name, 'Because']]));
  expect([problems, Object.entries(answers)]).toEqual([[], [[name, 'Because']]]);
  const usual = { fields: [{ ...form.fields[0]!, default: 'As ever' }] };
  expect(Object.entries(fillIn(usual, {}))).toEqual([[name, 'As ever']]);
});
