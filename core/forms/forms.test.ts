import { checkAnswers, fillIn, type Answers, type FormDefinition, type FormField } from './index';

const label = { en: 'Question', pt: 'Pergunta' };
const choices = [
  { value: 'new', label },
  { value: 'replacement', label },
];
const form: FormDefinition = {
  fields: [
    { name: 'site', kind: 'place', label, needed: true, filledFrom: 'site' },
    { name: 'which', kind: 'choice', label, needed: true, choices },
    {
      name: 'wrong',
      kind: 'longText',
      label,
      needed: true,
      shownWhen: { field: 'which', op: 'is', value: 'replacement' },
    },
  ],
};

function check(kind: FormField['kind'], value: Answers[string], more: Partial<FormField> = {}) {
  const field: FormField = { name: 'f', kind, label, needed: true, ...more };
  return checkAnswers({ fields: [field] }, { f: value });
}

test('what is known is filled in', () => {
  expect(fillIn(form, { site: 'Port Alder', vessel: 'Gannet' })).toEqual({ site: 'Port Alder' });
});

test('a question is asked and needed only while its condition holds', () => {
  const answers = { site: 'Port Alder', which: 'new', wrong: 'left over' };
  expect(checkAnswers(form, answers)).toEqual({
    answers: { site: 'Port Alder', which: 'new' },
    problems: [],
  });
  const { problems } = checkAnswers(form, { ...answers, which: 'replacement', wrong: '' });
  expect(problems).toEqual([{ field: 'wrong', code: 'missing' }]);
});

test.each<[FormField['kind'], Answers[string], string | null, Partial<FormField>?]>([
  ['text', '<script>alert(1)</script>', null],
  ['text', '\u202Eright to left', null],
  ['text', 'a ⛴ and a 🛳', null],
  ['text', 'a\u0000b', 'badCharacter'],
  ['text', 'a\uD800b', 'badCharacter'],
  ['text', 'x'.repeat(1_000_000), 'tooLong'],
  ['text', 3, 'malformed'],
  ['number', '12', null],
  ['number', 'twelve', 'notANumber'],
  ['number', 0, 'tooSmall', { least: 1 }],
  ['number', 9, 'tooLarge', { most: 8 }],
  ['choice', 'old', 'notAChoice', { choices }],
  ['date', '2028-02-29', null],
  ['date', '2027-02-29', 'notADate'],
  ['yesNo', false, null],
  ['links', [{ url: 'https://example.org/a', name: 'A' }], null],
  ['links', [{ url: 'javascript:alert(1)', name: 'A' }], 'notALink'],
])('%# %s', (kind, value, code, more = {}) => {
  const { answers, problems } = check(kind, value, more);
  expect(problems.map((problem) => problem.code)).toEqual(code === null ? [] : [code]);
  if (code === null && kind !== 'number') expect(answers.f).toEqual(value);
});
