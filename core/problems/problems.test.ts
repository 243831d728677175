import fc from 'fast-check';
import { BACK_WITHIN_MS, backAt, checkStage, PROBLEM_STAGES, rateRatio } from './index';

const DAY = 86_400_000;
const nothing = { cause: '', causeKindId: null, workaround: '' };
const faults = (stage: (typeof PROBLEM_STAGES)[number], given: object = {}): string[] =>
  checkStage(stage, { ...nothing, ...given }).map(({ field }) => field);

test('a problem may be suspected and looked into with nothing known', () => {
  expect(faults('suspected')).toEqual([]);
  expect(faults('lookedInto')).toEqual([]);
});

test('a known cause is written down, a known error can be worked around, a solved one has a kind of cause', () => {
  expect(faults('causeKnown')).toEqual(['cause']);
  expect(faults('knownError')).toEqual(['cause', 'workaround']);
  expect(faults('solved', { cause: 'Firmware' })).toEqual(['causeKindId']);
  expect(faults('solved', { cause: 'Firmware', causeKindId: 'fault' })).toEqual([]);
  expect(faults('knownError', { cause: 'Firmware', workaround: 'Restart' })).toEqual([]);
});

test('a solved problem is back with the third incident within thirty days', () => {
  expect(backAt(0, [DAY, 2 * DAY])).toBeNull();
  expect(backAt(0, [3 * DAY, DAY, 2 * DAY])).toBe(3 * DAY);
  expect(backAt(0, [DAY, 2 * DAY, 2 * DAY + BACK_WITHIN_MS])).toBeNull();
  expect(backAt(0, [DAY, 2 * DAY, DAY + BACK_WITHIN_MS])).toBe(DAY + BACK_WITHIN_MS);
  // What came before it was solved was solved with it.
  expect(backAt(10 * DAY, [8 * DAY, 9 * DAY, 10 * DAY, 11 * DAY, 12 * DAY])).toBeNull();
});

test('law: more incidents never bring it back later', () => {
  const instants = fc.array(fc.nat(400 * DAY), { maxLength: 12 });
  fc.assert(
    fc.property(instants, fc.nat(400 * DAY), (given, more) => {
      const first = backAt(0, given);
      const second = backAt(0, [...given, more]);
      if (first !== null) expect(second).toBeLessThanOrEqual(first);
    }),
  );
});

test('how often since against before: by hand, with what cannot be compared', () => {
  // 20 in 100 days, 5 in 50 days: a half as often. Worked by hand.
  const ratio = rateRatio({ count: 20, ms: 100 * DAY }, { count: 5, ms: 50 * DAY })!;
  expect(ratio.ratio).toBeCloseTo(0.5, 12);
  expect(ratio.low).toBeLessThan(0.5);
  expect(ratio.high).toBeGreaterThan(0.5);
  expect(rateRatio({ count: 20, ms: DAY }, { count: 0, ms: DAY })).toMatchObject({ ratio: 0, low: 0 });
  expect(rateRatio({ count: 0, ms: DAY }, { count: 3, ms: DAY })).toBeNull();
  expect(rateRatio({ count: 1, ms: DAY }, { count: 3, ms: 0 })).toBeNull();
});

test('law: the interval holds the ratio, and does not depend on the unit of time', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 500 }),
      fc.nat(500),
      fc.integer({ min: 2, max: 50 }),
      (before, after, unit) => {
        const one = rateRatio({ count: before, ms: 7 }, { count: after, ms: 3 })!;
        const other = rateRatio({ count: before, ms: 7 * unit }, { count: after, ms: 3 * unit })!;
        expect(one.low).toBeLessThanOrEqual(one.ratio + 1e-9);
        expect(one.high).toBeGreaterThanOrEqual(one.ratio - 1e-9);
        expect(other.ratio).toBeCloseTo(one.ratio, 9);
      },
    ),
  );
});
