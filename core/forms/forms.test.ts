import fc from 'fast-check';
import {
  carryAnswers,
  checkAnswers,
  checkForm,
  fillIn,
  listMissing,
  listPages,
  type Answers,
  type FormDefinition,
  type FormField,
} from './index';

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

test('what is needed and has no answer is missing, as long as it is asked', () => {
  expect(listMissing(form, {})).toEqual(['site', 'which']);
  expect(listMissing(form, { site: 'Port Alder', which: 'replacement' })).toEqual(['wrong']);
  expect(listMissing(form, { site: 'Port Alder', which: 'new' })).toEqual([]);
});

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
  ['text', 'PA-12', null, { pattern: '[A-Z]{2}-\\d+' }],
  ['text', 'PA-12 and more', 'doesNotMatch', { pattern: '[A-Z]{2}-\\d+' }],
  ['text', '⛴⛴', null, { most: 2 }],
  ['text', 'ab', 'tooShort', { least: 3 }],
  ['money', 34_000, null],
  ['money', 340.5, 'notANumber'],
  ['choices', ['replacement'], null, { choices }],
  ['choices', ['replacement', 'old'], 'notAChoice', { choices }],
  ['choices', ['new', 'replacement'], 'tooMany', { choices, most: 1 }],
  ['dateRange', { from: '2028-02-28', to: '2028-02-29' }, null],
  ['dateRange', { from: '2028-02-29', to: '2028-02-28' }, 'endsTooSoon'],
  ['time', '23:59', null],
  ['time', '24:00', 'notATime'],
  ['person', { id: 'mara', name: 'Mara' }, null],
  ['asset', { id: '', name: 'Nothing' }, 'malformed'],
])('%# %s', (kind, value, code, more = {}) => {
  const { answers, problems } = check(kind, value, more);
  expect(problems.map((problem) => problem.code)).toEqual(code === null ? [] : [code]);
  if (code === null && kind !== 'number') expect(answers.f).toEqual(value);
});

const columns = [
  { name: 'what', kind: 'text' as const, label },
  { name: 'many', kind: 'number' as const, label },
];

test('rows of nothing are left out of a table, and a row is judged cell by cell', () => {
  const rows = [{ what: 'rope', many: '3', colour: 'red' }, { what: '' }];
  expect(check('table', rows, { columns }).answers.f).toEqual([{ what: 'rope', many: 3 }]);
  expect(check('table', [{ many: 'three' }], { columns }).problems).toEqual([
    { field: 'f', code: 'notANumber' },
  ]);
  expect(check('table', [{ what: '' }], { columns }).problems).toMatchObject([{ code: 'missing' }]);
  expect(check('table', [{ what: '' }], { columns, needed: false }).problems).toEqual([]);
});

test('what does not match is told in the form’s own words', () => {
  const patternWords = { en: 'Two letters and a number.', pt: 'Duas letras e um número.' };
  const { problems } = check('text', '12', { pattern: '[A-Z]{2}-\\d+', patternWords });
  expect(problems).toEqual([{ field: 'f', code: 'doesNotMatch', words: patternWords }]);
});

test('a question may be needed only while something holds', () => {
  const picture: FormField = {
    ...{ name: 'picture', kind: 'text', label, needed: false },
    neededWhen: { field: 'which', op: 'is', value: 'replacement' },
  };
  const asked = { fields: [form.fields[1]!, picture] };
  expect(checkAnswers(asked, { which: 'new' }).problems).toEqual([]);
  expect(checkAnswers(asked, { which: 'replacement' }).problems).toEqual([
    { field: 'picture', code: 'missing' },
  ]);
});

test('a heading begins a page, unless nothing stands before it', () => {
  const heading = (name: string, startsPage?: true): FormField => ({
    ...{ name, kind: 'heading', label, needed: false },
    ...(startsPage && { startsPage }),
  });
  const pages = listPages(
    { fields: [heading('a', true), form.fields[0]!, heading('b'), heading('c', true), form.fields[1]!] },
    {},
  );
  expect(pages.map((page) => page.map(({ name }) => name))).toEqual([
    ['a', 'site', 'b'],
    ['c', 'which'],
  ]);
});

test('what is usual stands there already, under what is known', () => {
  const field: FormField = { name: 'site', kind: 'place', label, needed: true, default: 'Port Alder' };
  expect(fillIn({ fields: [field] }, { site: 'Tarn Quay' })).toEqual({ site: 'Port Alder' });
  expect(fillIn({ fields: [{ ...field, filledFrom: 'site' }] }, { site: 'Tarn Quay' })).toEqual({
    site: 'Tarn Quay',
  });
});

const bare: FormField = { name: 'f', kind: 'text', label, needed: true };
test.each<[string, Partial<FormField>[], string[]]>([
  ['as it should be', [{}, { name: 'g', shownWhen: { field: 'f', op: 'is', value: 'a' } }], []],
  ['two of one name', [{}, {}], ['sameName']],
  ['a name that cannot be stored', [{ name: 'What is it?' }], ['badName']],
  ['no words in one language', [{ label: { en: 'What?', pt: ' ' } }], ['noLabel']],
  ['nothing to choose', [{ kind: 'choice' }], ['noChoices']],
  ['one choice twice', [{ kind: 'choice', choices: [choices[0]!, choices[0]!] }], ['sameChoice']],
  ['a table of nothing', [{ kind: 'table' }], ['noColumns']],
  ['a condition on what is not asked', [{ shownWhen: { field: 'x', op: 'notEmpty' } }], ['unknownField']],
  ['a condition on itself', [{ shownWhen: { field: 'f', op: 'notEmpty' } }], ['asksForLater']],
  ['an expression that is none', [{ pattern: '(' }], ['badPattern']],
  ['an expression that goes back to what it found', [{ pattern: '(a)\\1' }], ['badPattern']],
  ['bounds the wrong way round', [{ least: 3, most: 2 }], ['leastOverMost']],
])('a form is judged as it is built: %s', (_, fields, codes) => {
  const problems = checkForm({ fields: fields.map((field) => ({ ...bare, ...field })) });
  expect(problems.map(({ code }) => code)).toEqual(codes);
});

describe('answers carried from one form to another', () => {
  const other: FormDefinition = {
    fields: [
      { name: 'site', kind: 'place', label, needed: true },
      { name: 'which', kind: 'choice', label, needed: true, choices: [choices[0]!] },
      { name: 'wrong', kind: 'text', label, needed: false },
      { name: 'more', kind: 'text', label, needed: true },
    ],
  };

  test('what both ask for in the same way, and the other takes; the rest is named', () => {
    const answers = { site: 'Port Alder', which: 'replacement', wrong: 'Dark' };
    // One asks for a choice that the other does not offer, and for a long text where the other takes a short one.
    expect(carryAnswers(form, other, answers)).toEqual({
      carried: { site: 'Port Alder' },
      left: ['which', 'wrong'],
    });
    expect(carryAnswers(form, other, { which: 'new' })).toEqual({ carried: { which: 'new' }, left: [] });
  });

  test('to the same form, all that was answered and shown stays', () => {
    fc.assert(
      fc.property(
        fc.record(
          {
            site: fc.string({ minLength: 1 }),
            which: fc.constantFrom('new', 'replacement'),
            wrong: fc.string({ minLength: 1 }),
          },
          { requiredKeys: [] },
        ),
        (given) => {
          const { answers, problems } = checkAnswers(form, given as Answers);
          const isBad = problems.some(({ code }) => code !== 'missing');
          if (!isBad) expect(carryAnswers(form, form, answers)).toEqual({ carried: answers, left: [] });
        },
      ),
    );
  });
});
