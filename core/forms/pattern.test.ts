import fc from 'fast-check';
import { readPattern } from './pattern';

/** Patterns that take for ever where what was read is gone back over; here time goes by the length of the text. */
test.each(['(\\w|\\d)+-', '(a+)+b', '(a|a)*c', '(a*)*d', 'a*a*a*a*a*b', '([a-z]+)*1', '(?:a|aa)+$1'])(
  '%s is judged at once',
  (pattern) => {
    const judged = readPattern(pattern);
    const begun = performance.now();
    for (let i = 0; i < 20; i++) judged?.test('a'.repeat(2_000));
    // Going back would take longer than the universe has lasted; the bound only tells those apart.
    expect(performance.now() - begun).toBeLessThan(20_000);
    expect(judged?.test(`${'a'.repeat(50)}!`) ?? false).toBe(false);
  },
);

test.each(['(', '(?=a)b', '(?<!a)b', '(a)\\1', 'a{1001}', 'a'.repeat(201)])('%s cannot be read', (pattern) =>
  expect(readPattern(pattern)).toBeNull(),
);

test('what both can read, it judges as JavaScript does', () => {
  const patterns = [
    '[A-Z]{2}-\\d+',
    'a|bc',
    '\\d{4}-\\d{2}',
    '[^x]*',
    '\\p{L}+',
    '\\u00e9|\\u{1F6A2}',
    '.',
    'x?y+z*',
    '(ab){2,3}',
  ];
  fc.assert(
    fc.property(
      fc.constantFrom(...patterns),
      fc.oneof(
        fc.string({ maxLength: 8 }),
        fc.constantFrom('AB-12', 'é', '🚢', 'ababab', 'bc', '2026-11', 'xyz'),
      ),
      (pattern, text) => {
        expect(readPattern(pattern)!.test(text)).toBe(new RegExp(`^(?:${pattern})$`, 'u').test(text));
      },
    ),
  );
});
