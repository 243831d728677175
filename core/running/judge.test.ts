import fc from 'fast-check';
import { judgePart, PARTS, worstOf, type Standing } from '.';

const ORDER: Standing[] = ['well', 'behind', 'stuck'];

test('where nothing waits a part is well, however long ago something did', () => {
  for (const part of PARTS) expect(judgePart(part, { waiting: 0, longestMs: 1e9 })).toBe('well');
});

test('what pages show has two seconds, then it is behind, and after a minute it is stuck', () => {
  const at = (longestMs: number): Standing => judgePart('follows', { waiting: 1, longestMs });
  expect([0, 1_999, 2_000, 59_999, 60_000].map(at)).toEqual(['well', 'well', 'behind', 'behind', 'stuck']);
});

test('waiting longer is never better, for any part', () => {
  fc.assert(
    fc.property(fc.constantFrom(...PARTS), fc.nat(1e7), fc.nat(1e7), (part, one, more) => {
      const [early, late] = [one, one + more].map((longestMs) => judgePart(part, { waiting: 1, longestMs }));
      expect(ORDER.indexOf(late!)).toBeGreaterThanOrEqual(ORDER.indexOf(early!));
    }),
  );
});

test('the whole is as its worst part', () => {
  expect(worstOf([])).toBe('well');
  expect(worstOf(['well', 'stuck', 'behind'])).toBe('stuck');
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...ORDER)), (all) => {
      const worst = ORDER.indexOf(worstOf(all));
      expect(all.every((each) => ORDER.indexOf(each) <= worst)).toBe(true);
    }),
  );
});
