import { checkForm, isFieldName } from './checkForm';
import { readPattern } from './pattern';
import { LONG_TEXT_LIMIT, TEXT_LIMIT } from './checkAnswers';
import type { JsonSchema } from './toJsonSchema';
import {
  FIELD_KINDS,
  type Choice,
  type FieldKind,
  type FormDefinition,
  type FormField,
  type LocalText,
} from './types';

/** `at`: where in the file, as a JSON Pointer (RFC 6901); `what`: the keyword or name that is meant. */
export type ImportProblem = {
  code: 'notASchema' | 'notAnObject' | 'keyword' | 'badName' | 'badForm';
  at: string;
  what: string;
};
/** The form that a schema describes, or what in it no form can express. */
export type Imported = { form: FormDefinition } | { problems: ImportProblem[] };

type Keywords = { [keyword: string]: unknown };

/** Says nothing about what an answer must be. */
const SILENT = new Set([
  '$schema',
  '$id',
  '$comment',
  'title',
  'description',
  'default',
  'examples',
  'deprecated',
  'readOnly',
  'writeOnly',
]);
const BY_TYPE: Record<string, string[]> = {
  string: ['minLength', 'maxLength', 'pattern', 'format'],
  number: ['minimum', 'maximum'],
  integer: ['minimum', 'maximum', 'multipleOf'],
  boolean: [],
  array: ['items', 'minItems', 'maxItems', 'uniqueItems'],
};
const FORMATS: Record<string, FieldKind> = { date: 'date' };

class Refused extends Error {
  constructor(readonly problem: ImportProblem) {
    super(problem.code);
  }
}

const isObject = (value: unknown): value is Keywords =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const both = (text: unknown, otherwise: string): LocalText => {
  const words = typeof text === 'string' && text.trim() !== '' ? text : otherwise;
  return { en: words, pt: words };
};

function refuse(code: ImportProblem['code'], at: string, what: string): never {
  throw new Refused({ code, at, what });
}

function refuseOthers(schema: Keywords, allowed: string[], at: string): void {
  for (const keyword of Object.keys(schema))
    if (!SILENT.has(keyword) && !allowed.includes(keyword)) refuse('keyword', `${at}/${keyword}`, keyword);
}

function readCount(schema: Keywords, keyword: string, at: string): number | undefined {
  const value = schema[keyword];
  if (value === undefined) return undefined;
  return typeof value === 'number' ? value : refuse('keyword', `${at}/${keyword}`, keyword);
}

/** The choices that `enum`, or a `oneOf` of constants, gives; null where there are none. */
function readChoices(schema: Keywords, at: string): Choice[] | null {
  const listed = schema.enum ?? (schema.const === undefined ? undefined : [schema.const]);
  if (Array.isArray(listed)) {
    refuseOthers(schema, ['enum', 'const', 'type'], at);
    if (!listed.every((value) => typeof value === 'string' && value !== ''))
      refuse('keyword', `${at}/enum`, 'enum');
    return (listed as string[]).map((value) => ({ value, label: both(value, value) }));
  }
  if (!Array.isArray(schema.oneOf)) return null;
  refuseOthers(schema, ['oneOf', 'type'], at);
  return schema.oneOf.map((each: unknown, i) => {
    if (!isObject(each) || typeof each.const !== 'string')
      return refuse('keyword', `${at}/oneOf/${i}`, 'oneOf');
    return { value: each.const, label: both(each.title, each.const) };
  });
}

/** A pattern of the whole text; one that is not tied at both ends may stand anywhere in it. */
function readWhole(pattern: unknown, at: string): string {
  if (typeof pattern !== 'string') return refuse('keyword', `${at}/pattern`, 'pattern');
  const tied = /^\^\(\?:(.*)\)\$$/s.exec(pattern)?.[1];
  const whole = tied ?? `[\\s\\S]*(?:${pattern})[\\s\\S]*`;
  return readPattern(whole) ? whole : refuse('keyword', `${at}/pattern`, 'pattern');
}

type Derived = Partial<FormField> & { kind: FieldKind };

function withBounds(field: Derived, schema: Keywords, [lower, upper]: [string, string], at: string): Derived {
  const least = readCount(schema, lower, at);
  const most = readCount(schema, upper, at);
  return { ...field, ...(least !== undefined && { least }), ...(most !== undefined && { most }) };
}

function readString(schema: Keywords, at: string): Derived {
  if (schema.format !== undefined) {
    const format = JSON.stringify(schema.format);
    const kind =
      FORMATS[JSON.parse(format) as string] ?? refuse('keyword', `${at}/format`, `format ${format}`);
    refuseOthers(schema, ['type', 'format'], at);
    return { kind };
  }
  const most = readCount(schema, 'maxLength', at);
  const isLong = most === undefined || most > TEXT_LIMIT;
  return {
    ...withBounds({ kind: isLong ? 'longText' : 'text' }, schema, ['minLength', 'maxLength'], at),
    ...(schema.pattern !== undefined && { pattern: readWhole(schema.pattern, at) }),
    ...(most !== undefined && most > LONG_TEXT_LIMIT && { most: LONG_TEXT_LIMIT }),
  };
}

function readArray(schema: Keywords, at: string): Derived {
  const choices = isObject(schema.items) ? readChoices(schema.items, `${at}/items`) : null;
  if (!choices) return refuse('keyword', `${at}/items`, 'items');
  return withBounds({ kind: 'choices', choices }, schema, ['minItems', 'maxItems'], at);
}

/** The question that a property asks for. */
function readProperty(schema: unknown, at: string): Derived {
  if (!isObject(schema)) return refuse('notASchema', at, JSON.stringify(schema ?? null));
  const choices = readChoices(schema, at);
  if (choices) return { kind: 'choice', choices };
  const type = String(schema.type);
  const allowed = BY_TYPE[type];
  if (!allowed) return refuse('keyword', `${at}/type`, `type ${type}`);
  refuseOthers(schema, ['type', ...allowed], at);
  switch (type) {
    case 'string':
      return readString(schema, at);
    case 'array':
      return readArray(schema, at);
    case 'boolean':
      return { kind: 'yesNo' };
    default: {
      const isWhole = type === 'integer' || schema.multipleOf !== undefined;
      // Whole numbers are what money is counted in; elsewhere nothing asks for them.
      return withBounds({ kind: isWhole ? 'money' : 'number' }, schema, ['minimum', 'maximum'], at);
    }
  }
}

function readPlain(schema: unknown): FormDefinition {
  if (!isObject(schema)) refuse('notASchema', '', JSON.stringify(schema ?? null));
  if (schema.type !== 'object' || !isObject(schema.properties))
    refuse('notAnObject', '/type', String(schema.type));
  refuseOthers(schema, ['type', 'properties', 'required', 'additionalProperties'], '');
  const required = Array.isArray(schema.required) ? (schema.required as unknown[]) : [];
  const fields = Object.entries(schema.properties).map(([name, property]): FormField => {
    const at = `/properties/${name.replaceAll('~', '~0').replaceAll('/', '~1')}`;
    if (!isFieldName(name)) refuse('badName', at, name);
    const { title, description } = isObject(property) ? property : {};
    return {
      name,
      ...readProperty(property, at),
      label: both(title, name),
      ...(typeof description === 'string' && { help: both(description, '') }),
      needed: required.includes(name),
    };
  });
  return { fields };
}

function isForm(value: unknown): value is FormDefinition {
  return (
    isObject(value) &&
    Array.isArray(value.fields) &&
    value.fields.every(
      (field) =>
        isObject(field) &&
        typeof field.name === 'string' &&
        (FIELD_KINDS as readonly unknown[]).includes(field.kind) &&
        isObject(field.label) &&
        typeof field.label.en === 'string' &&
        typeof field.label.pt === 'string',
    )
  );
}

/**
 * Takes in what `toJsonSchema` gave out, or any JSON Schema of an object whose properties are what forms can ask for.
 * Whatever it cannot ask for is a problem, named with its place, and then nothing is taken in.
 */
export function fromJsonSchema(given: { schema: JsonSchema; presentation?: unknown }): Imported {
  try {
    if (given.presentation === undefined) return { form: readPlain(given.schema) };
    if (!isForm(given.presentation)) refuse('badForm', '/presentation', 'fields');
    const [bad] = checkForm(given.presentation);
    if (bad) refuse('badForm', '/presentation', bad.field);
    return { form: given.presentation };
  } catch (error) {
    if (error instanceof Refused) return { problems: [error.problem] };
    throw error;
  }
}
