import fc from 'fast-check';
import { checkAnswers, type Answers, type FormDefinition, type FormField } from '../forms';
import { listNotInChat, readValues, toChatFields, type Listed } from './questions';

const field = (name: string, kind: FormField['kind'], more: Partial<FormField> = {}): FormField => ({
  ...{ name, kind, label: { en: name, pt: name }, needed: false },
  ...more,
});
const choices = ['red', 'green', 'blue'].map((value) => ({ value, label: { en: value, pt: value } }));
const form: FormDefinition = {
  fields: [
    field('head', 'heading'),
    field('what', 'longText', { needed: true }),
    field('weight', 'number', { unit: { en: 'kilograms', pt: 'quilos' } }),
    field('cost', 'money'),
    field('colour', 'choice', { choices, needed: true }),
    field('extras', 'choices', { choices }),
    field('isSure', 'yesNo'),
    field('why', 'text', {
      shownWhen: { field: 'isSure', op: 'is', value: false },
      neededWhen: { field: 'colour', op: 'is', value: 'red' },
    }),
    field('on', 'date'),
    field('at', 'time'),
    field('away', 'dateRange'),
    field('till', 'asset'),
    field('pictures', 'files'),
  ],
};
const listed: Listed = { till: [{ id: 'T-1', name: 'Till 1' }] };

const day = fc
  .date({ min: new Date('2026-01-01'), max: new Date('2026-12-31'), noInvalidDate: true })
  .map((date) => date.toISOString().slice(0, 10));
const answersArb: fc.Arbitrary<Answers> = fc.record({
  what: fc.stringMatching(/^[a-z]{1,9}( [a-zõ,.\n]{1,9})?[a-z]$/u),
  weight: fc.oneof(fc.integer({ min: -999, max: 999_999 }), fc.constantFrom(0.5, 12.25)),
  cost: fc.nat(10_000_000),
  colour: fc.constantFrom('red', 'green', 'blue'),
  extras: fc.subarray(['red', 'green', 'blue'], { minLength: 1 }),
  isSure: fc.constant(false),
  why: fc.constant('because'),
  on: day,
  at: fc.constantFrom('00:00', '08:30', '23:59'),
  away: fc.tuple(day, day).map((days) => {
    const [from, to] = days.sort();
    return { from: from!, to: to! };
  }),
  till: fc.constant({ id: 'T-1', name: 'Till 1' }),
});

test('what is shown in chat comes back as the same answers', () => {
  fc.assert(
    fc.property(answersArb, fc.constantFrom('en' as const, 'pt' as const), (answers, language) => {
      const fields = toChatFields(form, answers, language, listed);
      const values = Object.fromEntries(fields.map(({ name, value }) => [name, value]));
      const back = readValues(form, values, listed);
      expect(back).toEqual(answers);
      expect(checkAnswers(form, back).problems).toEqual([]);
    }),
  );
});

test('questions come with their choices, their unit and whether they are needed now', () => {
  const named = Object.fromEntries(
    toChatFields(form, { isSure: false, colour: 'red' }, 'pt', listed).map((each) => [each.name, each]),
  );
  expect(named).not.toHaveProperty('head');
  expect(named.weight).toMatchObject({ kind: 'line', note: 'em quilos' });
  expect(named.colour!.choices).toHaveLength(3);
  expect(named.isSure!.choices!.map(({ label }) => label)).toEqual(['–', 'sim', 'não']);
  expect(named.why).toMatchObject({ needed: true });
  expect(named['away.to']).toMatchObject({ kind: 'date', label: 'away: até' });
  expect(toChatFields(form, { isSure: true }, 'en').some(({ name }) => name === 'why')).toBe(false);
});

test('numbers are read as people write them; what is none is refused by its name', () => {
  expect(readValues(form, { weight: '1 250,5', cost: '12,50' })).toEqual({ weight: 1250.5, cost: 1250 });
  const odd = readValues(form, { what: 'x', colour: 'red', weight: 'a lot', isSure: 'yes' });
  expect(checkAnswers(form, odd).problems).toEqual([{ field: 'weight', code: 'notANumber' }]);
});

test('a form that may need what chat cannot ask for is not for chat', () => {
  expect(listNotInChat(form)).toEqual([]);
  const table = field('who', 'table', { needed: true });
  const person = field('boss', 'person', { neededWhen: { field: 'colour', op: 'is', value: 'red' } });
  expect(listNotInChat({ fields: [...form.fields, table, person] })).toEqual([table, person]);
});
