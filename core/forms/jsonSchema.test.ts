import { Ajv2020 } from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import fc from 'fast-check';
import { draft4, type SuiteFile } from 'json-schema-test-suite';
import type { Condition } from '../conditions';
import {
  checkAnswers,
  fromJsonSchema,
  toJsonSchema,
  type Answers,
  type FieldKind,
  type FormDefinition,
  type FormField,
} from './index';

// Its types know it as a CommonJS module only.
const { default: withFormats } = addFormats as unknown as { default: (ajv: Ajv2020) => Ajv2020 };
const ajv = withFormats(new Ajv2020({ strict: false, allErrors: true }));
const label = { en: 'Question', pt: 'Pergunta' };
const choices = ['a', 'b', 'c'].map((value) => ({ value, label }));
const columns = [
  { name: 'what', kind: 'text' as const, label },
  { name: 'many', kind: 'number' as const, label },
];

const KINDS: FieldKind[] = [
  ...(['text', 'number', 'money', 'choice', 'choices', 'yesNo'] as const),
  ...(['date', 'dateRange', 'time', 'person', 'table', 'heading'] as const),
];
const NAMES = ['one', 'two', 'three', 'four'];
const values: fc.Arbitrary<Answers[string]> = fc.oneof(
  fc.constantFrom('a', 'b', 'z', '', 'abc', 'AB-12', '2028-02-29', '2027-02-29', '09:30', '24:00'),
  fc.integer({ min: -3, max: 12 }),
  fc.constantFrom(1.5, 2.25),
  fc.boolean(),
  fc.constant(null),
  fc.subarray(['a', 'b', 'c', 'd']),
  fc.constantFrom({ from: '2028-01-01', to: '2028-01-03' }, { from: '2028-13-01', to: '2028-01-03' }),
  fc.constantFrom({ id: 'mara', name: 'Mara' }, { id: '', name: 'Nobody' }),
  fc.array(fc.constantFrom({ what: 'rope', many: 2 }, { what: 'x'.repeat(300) }, { many: 7 }), {
    maxLength: 3,
  }),
);
const conditions: fc.Arbitrary<Condition> = fc.letrec<{ any: Condition }>((tie) => ({
  any: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    fc.record({
      field: fc.constantFrom(...NAMES),
      op: fc.constantFrom('is' as const, 'isNot' as const),
      value: fc.constantFrom('a', 3, true, null),
    }),
    fc.record({
      field: fc.constantFrom(...NAMES),
      op: fc.constantFrom('in' as const, 'notIn' as const),
      value: fc.constant<(string | number)[]>(['a', 'b', 4]),
    }),
    fc.record({
      field: fc.constantFrom(...NAMES),
      op: fc.constantFrom('lt' as const, 'gte' as const),
      value: fc.integer({ min: 0, max: 9 }),
    }),
    fc.record({
      field: fc.constantFrom(...NAMES),
      op: fc.constantFrom('empty' as const, 'notEmpty' as const),
    }),
    fc.record({ all: fc.array(tie('any'), { maxLength: 2 }) }),
    fc.record({ any: fc.array(tie('any'), { maxLength: 2 }) }),
    fc.record({ not: tie('any') }),
  ),
})).any;

const fieldsOf = (name: string): fc.Arbitrary<FormField> =>
  fc
    .record({
      kind: fc.constantFrom(...KINDS),
      needed: fc.boolean(),
      neededWhen: fc.option(conditions, { nil: undefined }),
      shownWhen: fc.option(conditions, { nil: undefined }),
      bounds: fc.option(fc.constantFrom({ least: 1, most: 4 }, { most: 2 }, { least: 2 }), {
        nil: undefined,
      }),
      pattern: fc.option(fc.constantFrom('[A-Z]{2}-\\d+', 'a|abc'), { nil: undefined }),
    })
    .map(({ kind, needed, neededWhen, shownWhen, bounds, pattern }) => ({
      ...{ name, kind, label, needed, ...bounds },
      ...(neededWhen && { neededWhen }),
      ...(shownWhen && { shownWhen }),
      ...(kind === 'text' && pattern !== undefined && { pattern }),
      ...((kind === 'choice' || kind === 'choices') && { choices }),
      ...(kind === 'table' && { columns }),
    }));
const forms: fc.Arbitrary<FormDefinition> = fc.tuple(...NAMES.map(fieldsOf)).map((fields) => ({ fields }));

test('a form and its JSON Schema agree on every set of answers, as the Ajv validator reads draft 2020-12', () => {
  fc.assert(
    fc.property(forms, fc.tuple(values, values, values, values), (form, given) => {
      const answers: Answers = Object.fromEntries(NAMES.map((name, i) => [name, given[i]!]));
      const isValid = ajv.compile(toJsonSchema(form).schema as object)(answers);
      const { problems } = checkAnswers(form, answers);
      // A number in words, a row of nothing and days the wrong way round are judged beyond what a schema says.
      const ours = problems.filter(({ code }) => code !== 'endsTooSoon');
      expect({ form, answers, isValid }).toEqual({ form, answers, isValid: ours.length === 0 });
    }),
    { numRuns: 400 },
  );
});

test('what went out comes in again as it was', () => {
  const form: FormDefinition = {
    fields: [
      { name: 'one', kind: 'choices', label, needed: true, choices, least: 1 },
      {
        name: 'two',
        kind: 'text',
        label,
        needed: false,
        neededWhen: { field: 'one', op: 'contains', value: 'a' },
      },
    ],
  };
  const file = JSON.parse(JSON.stringify(toJsonSchema(form))) as ReturnType<typeof toJsonSchema>;
  expect(fromJsonSchema(file)).toEqual({ form });
});

test.each([
  [
    { type: 'object', properties: { a: { type: 'string', contentEncoding: 'base64' } } },
    'keyword',
    '/properties/a/contentEncoding',
  ],
  [{ type: 'object', properties: { 'a b': { type: 'string' } } }, 'badName', '/properties/a b'],
  [{ type: 'array' }, 'notAnObject', '/type'],
  ['a form', 'notASchema', ''],
])('what cannot be asked for is named, and nothing is taken in: %j', (schema, code, at) => {
  expect(fromJsonSchema({ schema: schema as never })).toMatchObject({ problems: [{ code, at }] });
});

/** The keywords that forms use, as the official test suite has them; its cases for these are the same since draft 4. */
const KEYWORDS = [
  'type',
  'enum',
  'minLength',
  'maxLength',
  'pattern',
  'minimum',
  'maximum',
  'minItems',
  'maxItems',
  'items',
  'uniqueItems',
  'required',
  'properties',
];

/** A case of the suite as a form with one question, where one can ask for what its schema says. */
function toForm(schema: Record<string, unknown>): FormDefinition | null {
  const property = 'type' in schema || 'enum' in schema ? schema : { type: typeOf(schema), ...schema };
  const read = fromJsonSchema({ schema: { type: 'object', properties: { f: property as never } } });
  return 'form' in read ? read.form : null;
}

function typeOf(schema: Record<string, unknown>): string {
  if ('minLength' in schema || 'maxLength' in schema || 'pattern' in schema) return 'string';
  return 'minimum' in schema || 'maximum' in schema ? 'number' : 'array';
}

function isOfType(value: unknown, form: FormDefinition): boolean {
  const kind = form.fields[0]!.kind;
  return kind === 'number' ? typeof value === 'number' : typeof value === 'string' && value !== '';
}

const isNothing = (data: unknown): boolean =>
  data === '' || data === null || (Array.isArray(data) && data.length === 0);

test('the official JSON Schema test suite, for the keywords that forms use', () => {
  let judged = 0;
  const suite: SuiteFile[] = draft4();
  for (const { name, schemas } of suite.filter(({ name: file }) => KEYWORDS.includes(file)))
    for (const { schema, tests, description } of schemas) {
      const form = toForm(schema);
      if (!form) continue;
      for (const each of tests) {
        // A schema without a type says nothing of other types, where a question always asks for one.
        if (!('type' in schema) && !('enum' in schema) && !isOfType(each.data, form)) continue;
        // Nothing said is no answer: whether that will do is for `needed` to say. Numbers may come as text.
        if (isNothing(each.data) || (typeof each.data === 'string' && form.fields[0]!.kind === 'number'))
          continue;
        const { problems } = checkAnswers(form, { f: each.data as Answers[string] });
        expect([name, description, each.description, problems.length === 0]).toEqual([
          name,
          description,
          each.description,
          each.valid,
        ]);
        judged++;
      }
    }
  expect(judged).toBeGreaterThan(25);
});
