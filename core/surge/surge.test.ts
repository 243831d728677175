import { findSurges, LEAST_COUNT, poissonTail, usualOf } from './index';

/**
 * Cumulative Poisson probabilities P(X <= x) as they are printed to four places in tables of textbooks (e.g. Montgomery
 * and Runger, "Applied Statistics and Probability for Engineers", appendix); written down from memory, and checked here
 * against the sum worked out term by term.
 */
test.each([
  [1, 0, 0.3679],
  [1, 1, 0.7358],
  [1, 2, 0.9197],
  [1, 3, 0.981],
  [2, 0, 0.1353],
  [2, 2, 0.6767],
  [2, 4, 0.9473],
  [3, 3, 0.6472],
  [3, 5, 0.9161],
  [5, 5, 0.616],
  [5, 8, 0.9319],
  [10, 10, 0.583],
  [10, 15, 0.9513],
])('with a mean of %d, at most %d come with probability %d', (mean, x, expected) => {
  expect(1 - poissonTail(x + 1, mean)).toBeCloseTo(expected, 4);
});

test('tails keep their digits where they are tiny, and hold for large means', () => {
  // e^-0.1 (0.1^8/8!) (1 + 0.1/9 + …), by hand.
  expect(poissonTail(8, 0.1)).toBeCloseTo(2.2694e-13, 16);
  expect(poissonTail(0, 3)).toBe(1);
  expect(poissonTail(2_000, 1_000)).toBeLessThan(1e-100);
  expect(poissonTail(1_000, 1_000)).toBeCloseTo(0.5042, 3);
  expect(poissonTail(1, 0)).toBe(0);
  // Far beyond the mean each term is nothing, also the first.
  expect(poissonTail(10_000, 800)).toBe(0);
});

test('nine gate tickets where three are usual are a surge; six are not', () => {
  const quiet = { key: 'kiosk', count: 2, before: [2, 1, 3, 2] };
  const [surge, ...rest] = findSurges([{ key: 'gates', count: 12, before: [3, 2, 4, 3] }, quiet], 0.01);
  expect(surge).toMatchObject({ key: 'gates', usual: 3 });
  expect(rest).toEqual([]);
  expect(findSurges([{ key: 'gates', count: 6, before: [3, 2, 4, 3] }, quiet], 0.01)).toEqual([]);
  expect(findSurges([{ key: 'new', count: LEAST_COUNT - 1, before: [] }], 1)).toEqual([]);
  expect(usualOf([0, 0, 0, 0])).toBeGreaterThan(0);
});

test('quiet stretches raise false alarms no more often than was chosen', () => {
  let state = 7;
  const dice = (): number => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32;
  const draw = (mean: number): number => {
    let k = 0;
    for (let p = dice(); p > Math.exp(-mean); p *= dice()) k++;
    return k;
  };
  const RATE = 0.05;
  const STRETCHES = 1_000;
  let alarms = 0;
  for (let i = 0; i < STRETCHES; i++) {
    // The usual is known from many weeks before.
    const arrivals = [1, 3, 6].map((mean, kind) => ({
      key: String(kind),
      count: draw(mean),
      before: Array.from({ length: 60 }, () => draw(mean)),
    }));
    if (findSurges(arrivals, RATE).length > 0) alarms++;
  }
  // Three standard deviations above the rate at most.
  expect(alarms / STRETCHES).toBeLessThan(RATE + 3 * Math.sqrt((RATE * (1 - RATE)) / STRETCHES));
});
