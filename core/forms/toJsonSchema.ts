import type { Condition } from '../conditions';
import type { Column, FieldKind, FormDefinition, FormField } from './types';
import { LONG_TEXT_LIMIT, ROWS_LIMIT, TEXT_LIMIT } from './checkAnswers';

/** The version of JSON Schema that is written. */
export const DIALECT = 'https://json-schema.org/draft/2020-12/schema';

/** A JSON Schema, as far as it is looked at. */
export type JsonSchema = boolean | { [keyword: string]: unknown };
/** A form to hand on: what answers must be, as JSON Schema, and how they are asked for. */
export type FormExport = { schema: JsonSchema; presentation: FormDefinition };

const NAMED: JsonSchema = {
  type: 'object',
  properties: { id: { type: 'string', minLength: 1, maxLength: 40 }, name: { type: 'string' } },
  required: ['id', 'name'],
};
const DATE: JsonSchema = { type: 'string', format: 'date' };
const LINK: JsonSchema = {
  type: 'object',
  properties: { url: { type: 'string', format: 'uri' }, name: { type: 'string', maxLength: TEXT_LIMIT } },
  required: ['url', 'name'],
};

type Described = Pick<FormField, 'kind' | 'choices' | 'least' | 'most' | 'pattern' | 'columns'>;

/** Bounds under the names that a type gives them; what is not set is left out. */
function bounds({ least, most }: Described, [lower, upper]: [string, string], usual?: number): object {
  const greatest = most ?? usual;
  return {
    ...(least !== undefined && { [lower]: least }),
    ...(greatest !== undefined && { [upper]: greatest }),
  };
}

function textSchema(field: Described, limit: number): JsonSchema {
  const whole = field.pattern === undefined ? {} : { pattern: `^(?:${field.pattern})$` };
  return { type: 'string', ...bounds(field, ['minLength', 'maxLength'], limit), ...whole };
}

function rowSchema(columns: Column[] = []): JsonSchema {
  return {
    type: 'object',
    properties: Object.fromEntries(columns.map((column) => [column.name, valueSchema(column)])),
    additionalProperties: false,
    minProperties: 1,
  };
}

const SCHEMAS: Record<Exclude<FieldKind, 'heading'>, (field: Described) => JsonSchema> = {
  text: (field) => textSchema(field, TEXT_LIMIT),
  place: (field) => textSchema(field, TEXT_LIMIT),
  longText: (field) => textSchema(field, LONG_TEXT_LIMIT),
  number: (field) => ({ type: 'number', ...bounds(field, ['minimum', 'maximum']) }),
  money: (field) => ({ type: 'integer', ...bounds(field, ['minimum', 'maximum']) }),
  choice: ({ choices = [] }) => ({ enum: choices.map(({ value }) => value) }),
  choices: (field) => ({
    type: 'array',
    items: { enum: (field.choices ?? []).map(({ value }) => value) },
    uniqueItems: true,
    ...bounds(field, ['minItems', 'maxItems']),
  }),
  yesNo: () => ({ type: 'boolean' }),
  date: () => DATE,
  dateRange: () => ({ type: 'object', properties: { from: DATE, to: DATE }, required: ['from', 'to'] }),
  time: () => ({ type: 'string', pattern: '^([01]\\d|2[0-3]):[0-5]\\d$' }),
  person: () => NAMED,
  asset: () => NAMED,
  files: () => ({ type: 'array', items: { type: 'string' } }),
  links: () => ({ type: 'array', items: LINK, maxItems: 20 }),
  table: (field) => ({
    type: 'array',
    items: rowSchema(field.columns),
    ...bounds({ ...field, least: field.least ?? 1 }, ['minItems', 'maxItems'], ROWS_LIMIT),
  }),
};

function valueSchema(field: Described): JsonSchema {
  return field.kind === 'heading' ? true : SCHEMAS[field.kind](field);
}

/** What an answer has to be for the question to count as answered. */
const ANSWERED: JsonSchema = { not: { enum: [null, '', []] } };

function leafSchema(leaf: Extract<Condition, { op: string }>): JsonSchema {
  const { field } = leaf;
  const that = (schema: JsonSchema): JsonSchema => ({ properties: { [field]: schema }, required: [field] });
  const not = (schema: JsonSchema): JsonSchema => ({ not: schema });
  switch (leaf.op) {
    case 'is':
      return leaf.value === null ? not(that(not({ const: null }))) : that({ const: leaf.value });
    case 'isNot':
      return leaf.value === null ? that(not({ const: null })) : not(that({ const: leaf.value }));
    case 'in':
      return that({ enum: leaf.value });
    case 'notIn':
      return not(that({ enum: leaf.value }));
    case 'lt':
      return that({ type: 'number', exclusiveMaximum: leaf.value });
    case 'lte':
      return that({ type: 'number', maximum: leaf.value });
    case 'gt':
      return that({ type: 'number', exclusiveMinimum: leaf.value });
    case 'gte':
      return that({ type: 'number', minimum: leaf.value });
    case 'contains':
      return that({ type: 'array', contains: { const: leaf.value } });
    case 'hasAny':
    case 'hasAll':
      throw new RangeError(`JSON Schema knows no word forms: ${field}`);
    case 'empty':
      return not(that(ANSWERED));
    case 'notEmpty':
      return that(ANSWERED);
  }
}

/** A condition on answers as a schema of the answers that meet it. */
export function conditionToSchema(condition: Condition): JsonSchema {
  if ('all' in condition) return { allOf: [true, ...condition.all.map(conditionToSchema)] };
  if ('any' in condition) return { anyOf: [false, ...condition.any.map(conditionToSchema)] };
  if ('not' in condition) return { not: conditionToSchema(condition.not) };
  return leafSchema(condition);
}

/** What holds for one question: judged only while it is shown, and needed when it says so. */
function ruleOf(field: FormField): JsonSchema[] {
  const { name, needed, neededWhen, shownWhen } = field;
  const answered: JsonSchema = { properties: { [name]: ANSWERED }, required: [name] };
  const value: JsonSchema = { properties: { [name]: { anyOf: [{ not: ANSWERED }, valueSchema(field)] } } };
  const must: JsonSchema[] = [value];
  if (needed) must.push(answered);
  else if (neededWhen) must.push({ if: conditionToSchema(neededWhen), then: answered });
  if (!shownWhen) return must;
  return [{ if: conditionToSchema(shownWhen), then: { allOf: must } }];
}

/**
 * A form as JSON Schema (draft 2020-12) of its answers, with the whole definition beside it as its presentation.
 * @example toJsonSchema({ fields: [] }).schema // { $schema: …, type: 'object', properties: {}, allOf: [true] }
 */
export function toJsonSchema(form: FormDefinition): FormExport {
  const asked = form.fields.filter(({ kind }) => kind !== 'heading');
  const described = asked.map((field) => [
    field.name,
    { title: field.label.en, ...(field.help && { description: field.help.en }) },
  ]);
  return {
    schema: {
      $schema: DIALECT,
      type: 'object',
      properties: Object.fromEntries(described) as object,
      allOf: [true, ...asked.flatMap(ruleOf)],
    },
    presentation: form,
  };
}
