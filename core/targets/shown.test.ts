import fc from 'fast-check';
import { showClock } from './shown';

const HOUR = 3_600_000;

test('used and left, as shown, add up to the limit', () => {
  expect(showClock({ elapsed: 90_000, limit: HOUR })).toEqual({
    usedMinutes: 1,
    leftMinutes: 59,
    limitMinutes: 60,
  });
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 1e9 }), fc.integer({ min: 1, max: 1e9 }), (elapsed, limit) => {
      const shown = showClock({ elapsed, limit })!;
      expect(shown.usedMinutes + shown.leftMinutes).toBe(shown.limitMinutes);
    }),
  );
});
