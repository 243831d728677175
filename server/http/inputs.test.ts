import { findBadInput, findUnknown } from './inputs';

const nested = (levels: number): unknown =>
  JSON.parse(`${'{"not":'.repeat(levels)}1${'}'.repeat(levels)}`) as unknown;

test.each<[string, unknown, object | null]>([
  ['plain', { a: ['b', { c: 1 }] }, null],
  ['a lone surrogate', { a: { b: 'x\uD800' } }, { field: 'a.b', code: 'badCharacter' }],
  ['a nought in a name', { 'a\u0000': 1 }, { field: '', code: 'badCharacter' }],
  ['as deep as is taken', nested(40), null],
  ['nested too deeply', nested(30_000), { code: 'tooDeep' }],
  ['too many parts', Array.from({ length: 300_000 }, () => 0), { code: 'tooManyParts' }],
])('%s', (_, input, expected) => {
  const found = findBadInput(input);
  if (expected === null) expect(found).toBeNull();
  else expect(found).toMatchObject(expected);
});

test('what the contract does not know is named by its path', () => {
  const sent = { a: 1, b: { c: 1, d: 2 }, e: [{ f: 1, g: 2 }], constructor: 3 };
  expect(findUnknown(sent, { a: 1, b: { c: 1 }, e: [{ f: 1 }] })).toEqual(['b.d', 'e.0.g', 'constructor']);
  expect(findUnknown({ a: { b: 1 } }, { a: { b: 1, usual: true } })).toEqual([]);
});
