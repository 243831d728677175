import cdf from '@stdlib/stats-base-dists-poisson-cdf';
import { quantile as referenceQuantile } from 'd3-array';
import fc from 'fast-check';
import {
  agentsFor,
  ageing,
  openAt,
  poissonQuantile,
  processChart,
  quantile,
  summarise,
  timeToDone,
} from './index';

const values = fc.array(fc.integer({ min: -50, max: 50 }), { maxLength: 30 });

// d3-array's quantile is documented as R's type 7, the one of Hyndman and Fan that is asked for.
test('law: quantiles are those of a reference library, and what is no share is refused', () => {
  fc.assert(
    fc.property(values, fc.double({ min: 0, max: 1, noNaN: true }), (all, q) => {
      const expected = referenceQuantile(all, q);
      if (expected === undefined) expect(quantile(all, q)).toBeNull();
      else expect(quantile(all, q)).toBeCloseTo(expected, 9);
    }),
  );
  for (const q of [-0.1, 1.1, Number.NaN]) expect(() => quantile([], q)).toThrow(RangeError);
});

test('sums values up, and says nothing of nothing', () => {
  expect(summarise([4, 1, 3, 2])).toEqual({
    ...{ count: 4, sum: 10, mean: 2.5, median: 2.5, least: 1, most: 4 },
    p90: expect.closeTo(3.7, 12),
  });
  expect(summarise([])).toEqual({
    ...{ count: 0, sum: 0, mean: null, median: null, p90: null, least: null, most: null },
  });
});

const spans = fc.array(fc.record({ opened: fc.nat(20), ended: fc.option(fc.nat(20)) }), { maxLength: 15 });

test('law: what is open is counted as each ticket says by itself; ages split it', () => {
  fc.assert(
    fc.property(spans, fc.nat(22), (tickets, at) => {
      const open = tickets.filter(
        ({ opened, ended }) => opened <= at && (ended === null || (ended > at && ended > opened)),
      );
      expect(openAt(tickets, [at, -1])).toEqual([open.length, 0]);
      const edges = [0, 2, 7];
      const counts = ageing(tickets, at, edges);
      expect(counts).toEqual(
        edges.map(
          (edge, i) =>
            open.filter(({ opened }) => at - opened >= edge && at - opened < (edges[i + 1] ?? Infinity))
              .length,
        ),
      );
    }),
  );
});

// Remission of leukaemia under 6-MP in weeks, + still in remission (E. J. Freireich and others, Blood 21, 1963, 699–716);
// the product limits as in textbooks of survival analysis. From memory.
test('the product limit estimate is that of the published table', () => {
  const weeks = '6 6 6 6+ 7 9+ 10 10+ 11+ 13 16 17+ 19+ 20+ 22 23 25+ 32+ 32+ 34+ 35+'.split(' ');
  const estimate = timeToDone(
    weeks.map((text) => ({ length: Number.parseInt(text), isDone: !text.endsWith('+') })),
  );
  const table = [
    [5.9, 1],
    [6, 0.857],
    [7, 0.807],
    [10, 0.753],
    [13, 0.69],
    [16, 0.627],
    [22, 0.538],
    [23, 0.448],
  ];
  for (const [after, share] of table as [number, number][])
    expect(estimate.share(after)).toBeCloseTo(share, 3);
  expect(estimate.share(1_000)).toBeCloseTo(0.448, 3);
  expect(estimate.median).toBe(23);
});

test('half exactly counts as half; where more than half stay open there is no median', () => {
  const of = (...lengths: [number, boolean][]) =>
    timeToDone(lengths.map(([length, isDone]) => ({ length, isDone })));
  expect(of([1, true], [2, true]).median).toBe(1);
  expect(of([1, true], [2, false], [3, false]).median).toBeNull();
  expect(of().median).toBeNull();
  expect(of().share(3)).toBe(1);
  // At one length the done one was done while the other was still there.
  expect(of([2, false], [2, true]).share(2)).toBe(0.5);
});

// NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2: flow rates of ten batches.
test('the limits are those of the handbook’s example', () => {
  const chart = processChart([49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1]);
  expect(chart.mean).toBeCloseTo(50.81, 10);
  expect(chart.upper).toBeCloseTo(55.8041, 2);
  expect(chart.lower).toBeCloseTo(45.8159, 2);
  expect(chart.signals).toEqual([]);
});

test('says what is unusual, each value under the first rule that it meets', () => {
  const zigzag = Array.from({ length: 20 }, (_, i) => (i % 2 ? 11 : 9));
  expect(processChart([...zigzag, 30, ...zigzag]).signals).toEqual([{ at: 20, rule: 'outside' }]);
  // The last of the zigzag lies above the new mean already.
  const shifted = processChart([...zigzag, ...Array.from({ length: 9 }, (_, i) => 12 + (i % 2) / 10)]);
  expect(shifted.signals.filter(({ rule }) => rule === 'run').map(({ at }) => at)).toEqual([26, 27, 28]);
  // Nearer to the limit than to the mean: three of four, whichever they are.
  const near = processChart([...zigzag, ...zigzag, 13, 10, 13, 13, ...zigzag]);
  expect(near.signals).toEqual([{ at: 43, rule: 'near' }]);
});

test('says nothing where too little is known or nothing moves', () => {
  expect(processChart([])).toEqual({ mean: null, lower: null, upper: null, signals: [] });
  expect(processChart([3])).toEqual({ mean: 3, lower: 3, upper: 3, signals: [] });
  expect(processChart([0, 0, 0, 0, 90]).signals).toEqual([]);
  const still = Array.from({ length: 30 }, () => 0.1);
  expect(processChart(still)).toEqual({ mean: 0.1, lower: 0.1, upper: 0.1, signals: [] });
});

test('law: counts of Poisson lie as a reference library says', () => {
  fc.assert(
    fc.property(fc.constantFrom(0.05, 0.95), fc.double({ min: 0.01, max: 900, noNaN: true }), (q, mean) => {
      const count = poissonQuantile(q, mean);
      expect(cdf(count, mean)).toBeGreaterThanOrEqual(q - 1e-9);
      if (count > 0) expect(cdf(count - 1, mean)).toBeLessThan(q + 1e-9);
    }),
  );
  expect(poissonQuantile(0.95, 0)).toBe(0);
  // From a mean of 708 on e^-mean has fewer digits than a double holds, from 746 on none.
  for (let mean = 700; mean < 760; mean += 0.5)
    expect(cdf(poissonQuantile(0.95, mean), mean)).toBeGreaterThanOrEqual(0.95 - 1e-9);
});

/** Erlang C as it is written down: the chance to wait, by its sum. */
function waits(agents: number, load: number): number {
  let term = 1;
  let sum = 1;
  for (let i = 1; i < agents; i++) sum += term *= load / i;
  const last = ((term * load) / agents) * (agents / (agents - load));
  return last / (sum + last);
}

test('law: one agent fewer would be too few', () => {
  const needs = fc.record({
    ...{ perHour: fc.integer({ min: 1, max: 200 }), handlingSeconds: fc.integer({ min: 30, max: 900 }) },
    ...{ withinSeconds: fc.integer({ min: 0, max: 120 }), share: fc.constantFrom(0.5, 0.8, 0.95) },
  });
  fc.assert(
    fc.property(needs, (need) => {
      const load = (need.perHour * need.handlingSeconds) / 3_600;
      const served = (agents: number): number =>
        agents <= load
          ? 0
          : 1 -
            waits(agents, load) * Math.exp((-(agents - load) * need.withinSeconds) / need.handlingSeconds);
      const agents = agentsFor(need);
      expect(served(agents)).toBeGreaterThanOrEqual(need.share - 1e-9);
      expect(served(agents - 1)).toBeLessThan(need.share + 1e-9);
    }),
  );
});

test('nobody comes, nobody is needed; a share that is none is refused', () => {
  const need = { perHour: 0, handlingSeconds: 300, withinSeconds: 20, share: 0.8 };
  expect(agentsFor(need)).toBe(0);
  for (const share of [0, 1, Number.NaN]) expect(() => agentsFor({ ...need, share })).toThrow(RangeError);
});
