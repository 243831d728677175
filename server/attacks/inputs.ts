import fc from 'fast-check';
import * as z from 'zod';

/** Values that programs stumble over: names that objects inherit, letters that look alike, signs that steer. */
export const NASTY_TEXTS = [
  ...[
    'constructor',
    '__proto__',
    'valueOf',
    'hasOwnProperty',
    '',
    ' ',
    '.',
    '..',
    '../../etc/passwd',
    '%00',
    '%ff',
  ],
  ...[
    'á1',
    'ana@sólvarra.example',
    '\u202egnp.exe',
    '\ufeff=1+1',
    "'; DROP TABLE tickets;--",
    '<script>alert(1)</script>',
  ],
  ...[
    '🛳'.repeat(20),
    'x'.repeat(3_000),
    '\u0000',
    '\uD800',
    'P1Y',
    'PT',
    '-1',
    '1e999',
    'NaN',
    'null',
    '[]',
    '{}',
    '@me',
  ],
  ...[
    '2026-02-30',
    '9999-12-31',
    '0000-00-00',
    '24:61',
    'tomas',
    'onboard',
    'kiosk',
    'everything',
    'resolution',
  ],
];
const NASTY_NUMBERS = [0, -1, 1, 1.5, 2 ** 31, 2 ** 53, -(2 ** 53), 1e308, 42];

export const anyValue: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom(...NASTY_TEXTS),
  fc.constantFrom(...NASTY_NUMBERS),
  fc.constantFrom(null, true, false),
  fc.constant([]),
  fc.constant({}),
  fc.jsonValue({ maxDepth: 2 }),
);

type Schema = {
  type?: string | string[];
  const?: unknown;
  enum?: unknown[];
  properties?: Record<string, Schema>;
  items?: Schema | boolean;
  anyOf?: Schema[];
  oneOf?: Schema[];
  allOf?: Schema[];
  $ref?: string;
  $defs?: Record<string, Schema>;
  additionalProperties?: Schema | boolean;
};

const MOST_DEPTH = 4;

/** Values that mostly fit a schema, with one here and there that does not. */
function fromSchema(schema: Schema, all: Schema, depth: number): fc.Arbitrary<unknown> {
  const sometimes = (fitting: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> =>
    fc.oneof({ arbitrary: fitting, weight: 9 }, { arbitrary: anyValue, weight: 1 });
  if (depth > MOST_DEPTH) return anyValue;
  if (schema.$ref) {
    const named = all.$defs?.[schema.$ref.split('/').at(-1)!];
    return named ? fromSchema(named, all, depth + 1) : anyValue;
  }
  if (schema.const !== undefined) return sometimes(fc.constant(schema.const));
  if (schema.enum) return sometimes(fc.constantFrom(...schema.enum));
  const choices = schema.anyOf ?? schema.oneOf;
  if (choices) return fc.oneof(...choices.map((each) => fromSchema(each, all, depth + 1)));
  const type = Array.isArray(schema.type) ? schema.type[0] : schema.type;
  switch (type) {
    case 'object': {
      const properties = Object.entries(schema.properties ?? {});
      const record = fc.record(
        Object.fromEntries(properties.map(([name, each]) => [name, fromSchema(each, all, depth + 1)])),
        { requiredKeys: properties.map(([name]) => name) },
      );
      const extra = fc.dictionary(fc.constantFrom(...NASTY_TEXTS.slice(0, 6)), anyValue, { maxKeys: 1 });
      return sometimes(
        fc.oneof(
          { arbitrary: record, weight: 5 },
          { arbitrary: fc.tuple(record, extra).map(([one, other]) => ({ ...one, ...other })), weight: 1 },
        ),
      );
    }
    case 'array':
      return sometimes(
        fc.array(typeof schema.items === 'object' ? fromSchema(schema.items, all, depth + 1) : anyValue, {
          maxLength: 3,
        }),
      );
    case 'string':
      return sometimes(fc.oneof(fc.constantFrom(...NASTY_TEXTS), fc.string({ maxLength: 12 })));
    case 'integer':
    case 'number':
      return sometimes(fc.oneof(fc.constantFrom(...NASTY_NUMBERS), fc.integer({ min: 0, max: 9 })));
    case 'boolean':
      return sometimes(fc.boolean());
    default:
      return anyValue;
  }
}

/** Bodies for a contract's schema, right and wrong. */
export function bodiesFor(schema: z.ZodType): fc.Arbitrary<unknown> {
  const json = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as Schema;
  return fc.oneof({ arbitrary: fromSchema(json, json, 0), weight: 8 }, { arbitrary: anyValue, weight: 1 });
}
