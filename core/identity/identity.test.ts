import fc from 'fast-check';
import { checkPassword, toAddress } from './index';

test.each([
  ['ana@solvarra.example', 'ana@solvarra.example'],
  [' Ana@Solvarra.Example\t', 'ana@solvarra.example'],
  // Each of these counted as Ana where letters were compared without their marks.
  ['ana@sólvarra.example', null],
  ['ana@solvarra.example\u200b', null],
  ['ａna@solvarra.example', null],
  ['ana@ſolvarra.example', null],
  ['ana@solvarra.example\u0000', null],
  ['ana @solvarra.example', null],
  ['K@solvarra.example'.replace('K', '\u212a'), null],
  ['ana', null],
  ['', null],
])('%j is %j', (text, address) => expect(toAddress(text)).toBe(address));

test('two addresses are one only where their bytes are, but for the case of ASCII letters', () => {
  const part = fc.stringMatching(/^[!-?A-~]{1,12}$/);
  fc.assert(
    fc.property(part, part, fc.string({ maxLength: 12, unit: 'grapheme' }), (local, domain, other) => {
      const address = `${local}@${domain}.example`;
      const own = toAddress(address)!;
      expect(own).toBe(address.toLowerCase());
      const strange = `${local}@${domain}${other}.example`;
      expect(toAddress(strange) === own).toBe(strange.toLowerCase() === own && /^[\x21-\x7e]*$/.test(other));
    }),
  );
});

test.each([
  ['short', 'tooShort'],
  ['aaaaaaaaaaaa', 'tooSimple'],
  ['abababababab', 'tooSimple'],
  ['abcdefghijkl', 'tooSimple'],
  ['123456789012', 'tooSimple'],
  ['qwertyuiopas', 'tooSimple'],
  ['lobolobolobo', 'tooSimple'],
  ['ana.lobo.ana!', 'tooSimple'],
  ['passpasspass1', 'tooSimple'],
  ['a calm crossing', null],
  ['long enough for this', null],
  ['correct horse battery', null],
  ['Xk4$vT9!qLm2', null],
])('%j: %s', (password, problem) =>
  expect(checkPassword(password, ['Ana Lobo', 'ana@solvarra.example'])).toBe(problem),
);
