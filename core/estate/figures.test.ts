import fc from 'fast-check';
import { compileCalendar } from '../calendar';
import { impactOf, likelihoodOf, riskOf, serviceTime, wilson } from './index';

// R. G. Newcombe, Statistics in Medicine 17 (1998), 857–872, table I, method 3 (score, Wilson); from memory.
test.each([
  [81, 263, 0.2553, 0.3662],
  [15, 148, 0.0624, 0.1605],
  [0, 20, 0, 0.1611],
  [1, 29, 0.0061, 0.1718],
])('the interval of %d of %d is as published', (k, n, low, high) => {
  expect(wilson(k, n).low).toBeCloseTo(low, 4);
  expect(wilson(k, n).high).toBeCloseTo(high, 4);
});

test('nothing seen says nothing; what is no count is refused', () => {
  expect(wilson(0, 0)).toEqual({ low: 0, high: 1 });
  for (const [k, n, z] of [
    [1, 0],
    [-1, 2],
    [0.5, 2],
    [3, 2],
    [1, 2, 0],
    [1, 2, Number.NaN],
  ] as const)
    expect(() => wilson(k, n, z)).toThrow(RangeError);
});

test('law: the interval holds the share, narrows with more of the same, and mirrors', () => {
  fc.assert(
    fc.property(fc.nat(50), fc.nat(50), (k, rest) => {
      const n = k + rest;
      fc.pre(n > 0);
      const { low, high } = wilson(k, n);
      expect(low).toBeLessThanOrEqual(k / n + 1e-12);
      expect(high).toBeGreaterThanOrEqual(k / n - 1e-12);
      const more = wilson(k * 4, n * 4);
      expect(more.high - more.low).toBeLessThan(high - low);
      expect(wilson(rest, n).low).toBeCloseTo(1 - high, 12);
    }),
  );
});

test('likelihood comes of what past changes allow at worst, risk of both', () => {
  // Of 35 without a failure up to 9.9 % may fail; of 34 up to 10.2 %.
  expect(likelihoodOf({ failed: 0, all: 35 })).toBe('low');
  expect(likelihoodOf({ failed: 0, all: 34 })).toBe('medium');
  expect(likelihoodOf({ failed: 0, all: 8 })).toBe('high');
  expect(likelihoodOf({ failed: 0, all: 0 })).toBe('high');
  expect(impactOf({ down: 0, weakened: 0, people: 0 }, 50)).toBe('low');
  expect(impactOf({ down: 0, weakened: 1, people: 0 }, 50)).toBe('medium');
  expect(impactOf({ down: 0, weakened: 0, people: 50 }, 50)).toBe('high');
  expect(impactOf({ down: 1, weakened: 0, people: 0 }, 50)).toBe('high');
  const levels = ['low', 'medium', 'high'] as const;
  expect(levels.map((impact) => levels.map((likelihood) => riskOf(impact, likelihood)[0]).join(''))).toEqual([
    ...['llm', 'mmh', 'mhh'],
  ]);
});

const HOUR = 3_600_000;
const MONDAY = Date.UTC(2026, 2, 2);
const office = compileCalendar({
  ...{ name: 'office', timeZone: 'UTC', hoursPerDay: 8, exceptions: [] },
  weekly: { mon: [{ from: '09:00', to: '17:00' }], tue: [{ from: '09:00', to: '17:00' }] },
});
const at = (day: number, hour: number): number => MONDAY + day * 24 * HOUR + hour * HOUR;

// Worked by hand by the usual definitions (common practice): MTTR = time lost / failures, MTBF = time up / failures.
test('outages that touch are one, only promised time counts, and what is still down lasts to the end', () => {
  const outages = [
    { from: at(0, 8), to: at(0, 10) },
    { from: at(0, 10), to: at(0, 11) },
    { from: at(0, 20), to: at(0, 23) },
    { from: at(1, 16), to: null },
    { from: at(1, 5), to: at(1, 4) },
  ];
  const time = serviceTime(outages, office, at(0, 0), at(2, 0));
  expect(time).toEqual({
    ...{ promised: 16 * HOUR, lost: 3 * HOUR, failures: 2, share: 1 - 3 / 16 },
    ...{ betweenFailures: 6.5 * HOUR, toRestore: 1.5 * HOUR },
  });
  const never = serviceTime(outages, office, at(3, 0), at(4, 0));
  expect(never).toMatchObject({ promised: 0, share: 1, failures: 0, betweenFailures: null, toRestore: null });
});
