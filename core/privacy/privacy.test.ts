import fc from 'fast-check';
import { eraseEntry, eraseValue, findSensitive, passesIban, passesLuhn, strikeOut, TOMBSTONE } from './index';

const DIGITS = Array.from('0123456789');

/** A number with the check digit that makes it pass, reckoned another way: by trying all ten. */
const withCheck = (digits: string): string => DIGITS.map((digit) => digits + digit).find(passesLuhn)!;

test('the check digit of card numbers (ISO/IEC 7812-1): the worked example 7992739871', () => {
  // The example that is common in descriptions of the formula, from memory; its check digit is 3.
  expect(withCheck('7992739871')).toBe('79927398713');
  expect(DIGITS.filter((digit) => digit !== '3').some((digit) => passesLuhn(`7992739871${digit}`))).toBe(
    false,
  );
});

test('one wrong digit never passes, nor do two neighbours exchanged but 09 and 90', () => {
  const digits = fc.string({ unit: fc.constantFrom(...DIGITS), minLength: 12, maxLength: 18 });
  fc.assert(
    fc.property(digits, fc.nat(), fc.integer({ min: 1, max: 9 }), (body, at, by) => {
      const right = withCheck(body);
      const i = at % right.length;
      const wrong = `${right.slice(0, i)}${(Number(right[i]) + by) % 10}${right.slice(i + 1)}`;
      expect(passesLuhn(wrong)).toBe(false);
      const j = at % (right.length - 1);
      const [one, other] = [right[j]!, right[j + 1]!];
      const swapped = right.slice(0, j) + other + one + right.slice(j + 2);
      if (one !== other && !['09', '90'].includes(one + other)) expect(passesLuhn(swapped)).toBe(false);
    }),
  );
});

// Examples of the IBAN registry (SWIFT, ISO 13616), from memory of it.
test.each([
  'GB82WEST12345698765432',
  'DE89370400440532013000',
  'PT50000201231234567890154',
  'NO9386011117947',
])('the IBAN %s holds, and not with one sign changed', (iban) => {
  expect(passesIban(iban)).toBe(true);
  for (let i = 4; i < iban.length; i++) {
    const other = iban[i] === '7' ? '1' : '7';
    expect(passesIban(iban.slice(0, i) + other + iban.slice(i + 1))).toBe(false);
  }
});

test.each<[string, string[]]>([
  ['card 4111 1111 1111 1111, please', ['card']],
  ['4111-1111-1111-1111', ['card']],
  ['pay to PT50 0002 0123 1234 5678 9015 4.', ['iban']],
  ['DE89370400440532013000 and 5555555555554444', ['iban', 'card']],
  ['ticket 20418, serial 4111111111111112', []],
  ['the year 2026 and 0000 0000 0000 0000', []],
  ['a key listo_4111111111111111', []],
  ['order 2222222222222222', []],
  ['', []],
])('in "%s" stands %j', (text, kinds) => {
  expect(findSensitive(text).map(({ kind }) => kind)).toEqual(kinds);
});

test('struck out, only the last four signs stay, and nothing is found any more', () => {
  expect(strikeOut('card 4111 1111 1111 1111, please')).toBe('card …1111, please');
  fc.assert(
    fc.property(
      fc.string(),
      fc.string({ unit: fc.constantFrom(...DIGITS), minLength: 14, maxLength: 14 }),
      (a, b) => {
        const text = `${a} ${withCheck(`4${b}`)} ${a}`;
        expect(findSensitive(strikeOut(text))).toEqual([]);
        const sound = 'nothing to strike';
        expect(strikeOut(sound)).toBe(sound);
      },
    ),
  );
});

test('erased, a value keeps its shape and says nothing of what it said; erasing again changes nothing', () => {
  const value = fc.jsonValue();
  fc.assert(
    fc.property(value, (said) => {
      const erased = eraseValue(said);
      expect(eraseValue(erased)).toEqual(erased);
      const shape = (each: unknown): unknown =>
        Array.isArray(each)
          ? each.map(shape)
          : each !== null && typeof each === 'object'
            ? Object.fromEntries(Object.entries(each).map(([name, part]) => [name, shape(part)]))
            : null;
      expect(shape(erased)).toEqual(shape(said));
      const words = (each: unknown): string[] =>
        typeof each === 'string'
          ? [each]
          : each !== null && typeof each === 'object'
            ? Object.values(each).flatMap(words)
            : [];
      expect(words(erased).every((word) => word === '' || word === TOMBSTONE)).toBe(true);
    }),
  );
});

test('of an entry goes what the person wrote; that a field changed, and what others set, stays', () => {
  expect(
    eraseEntry({
      changes: { title: { from: 'My badge', to: 'My own badge' }, state: { from: 'received', to: 'inWork' } },
      data: { version: 3, reason: 'I lost it' },
    }),
  ).toEqual({
    changes: { title: { from: TOMBSTONE, to: TOMBSTONE }, state: { from: 'received', to: 'inWork' } },
    data: { version: 3, reason: TOMBSTONE },
  });
  expect(
    eraseEntry({ changes: { state: { from: 'received', to: 'done' } }, data: { version: 2 } }),
  ).toBeNull();
  expect(eraseEntry({ changes: { title: { from: null, to: TOMBSTONE } }, data: {} })).toBeNull();
});
