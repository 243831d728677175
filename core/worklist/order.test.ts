import fc from 'fast-check';
import {
  AGED_AFTER_MS,
  DEFAULT_WEIGHTS,
  explainPlace,
  getHeadStart,
  getMoveBy,
  MOST_WEIGHT,
  type OrderWeights,
  type Placed,
} from './order';

const HOUR = 3_600_000;
const NOON = Date.UTC(2026, 10, 25, 12);
const PRIORITIES = ['P1', 'P2', 'P3', 'P4'] as const;

const placed: fc.Arbitrary<Placed> = fc.record({
  priority: fc.constantFrom(...PRIORITIES),
  createdAt: fc.integer({ min: NOON - 90 * 24 * HOUR, max: NOON }),
  dueAt: fc.option(fc.integer({ min: NOON - 30 * 24 * HOUR, max: NOON + 30 * 24 * HOUR })),
  waitsSince: fc.option(fc.integer({ min: NOON - 24 * HOUR, max: NOON })),
  goesFirst: fc.boolean(),
});
const hours = fc.integer({ min: 0, max: MOST_WEIGHT });
/** Weights as a lead may set them: never less for the higher priority. */
const weights: fc.Arbitrary<OrderWeights> = fc
  .tuple(fc.array(hours, { minLength: 4, maxLength: 4 }), hours, hours)
  .map(([given, waiting, goesFirst]) => {
    const [P1, P2, P3, P4] = [...given].sort((a, b) => b - a) as [number, number, number, number];
    return { priority: { P1, P2, P3, P4 }, waiting, goesFirst };
  });

test('one with less time never stands below the same with more', () => {
  fc.assert(
    fc.property(weights, placed, fc.nat(), (given, one, more) => {
      const other = { ...one, dueAt: one.dueAt === null ? null : one.dueAt + more };
      expect(getMoveBy(given, one)).toBeLessThanOrEqual(getMoveBy(given, other));
    }),
  );
});

test('higher priority, a requester who waits or one who goes first never lower the place', () => {
  fc.assert(
    fc.property(weights, placed, fc.nat(3), (given, one, up) => {
      const higher = PRIORITIES[Math.max(0, PRIORITIES.indexOf(one.priority) - up)]!;
      for (const better of [
        { priority: higher },
        { waitsSince: one.waitsSince ?? NOON },
        { goesFirst: true },
      ])
        expect(getMoveBy(given, { ...one, ...better })).toBeLessThanOrEqual(getMoveBy(given, one));
    }),
  );
});

test('nothing starves: what comes later than the age limit and every head start stands below', () => {
  fc.assert(
    fc.property(weights, placed, placed, fc.nat(), (given, old, fresh, later) => {
      const most = getHeadStart(given, { priority: 'P1', waitsSince: 0, goesFirst: true });
      const createdAt = old.createdAt + AGED_AFTER_MS + most + 1 + later;
      // Nothing falls due before it is opened.
      const dueAt = fresh.dueAt === null ? null : Math.max(fresh.dueAt, createdAt);
      expect(getMoveBy(given, { ...fresh, createdAt, dueAt })).toBeGreaterThan(getMoveBy(given, old));
    }),
  );
});

test('the reasons account for the whole place: what presses, less the hours that are named', () => {
  fc.assert(
    fc.property(weights, placed, (given, one) => {
      const [first, ...heads] = explainPlace(given, one, NOON);
      const presses = 'at' in first! ? first.at : (first as { since: number }).since + AGED_AFTER_MS;
      const hours = heads.reduce((sum, reason) => sum + ('hours' in reason ? reason.hours : 0), 0);
      expect(presses - hours * HOUR).toBe(getMoveBy(given, one));
    }),
  );
});

test('an urgent one that is due tomorrow at noon stands before a small one that is due today at one', () => {
  const small: Placed = {
    ...{ priority: 'P4', createdAt: NOON, dueAt: NOON + HOUR, waitsSince: null, goesFirst: false },
  };
  const urgent: Placed = { ...small, priority: 'P1', dueAt: NOON + 24 * HOUR };
  expect(getMoveBy(DEFAULT_WEIGHTS, urgent)).toBeLessThan(getMoveBy(DEFAULT_WEIGHTS, small));
  expect(explainPlace(DEFAULT_WEIGHTS, { ...urgent, waitsSince: NOON }, NOON)).toEqual([
    { kind: 'due', at: NOON + 24 * HOUR },
    { kind: 'priority', priority: 'P1', hours: 24 },
    { kind: 'waiting', since: NOON, hours: 2 },
  ]);
});

test('what has no clock counts as due when it is old', () => {
  const idle: Placed = {
    ...{ priority: 'P4', createdAt: NOON, dueAt: null, waitsSince: null, goesFirst: false },
  };
  expect(getMoveBy(DEFAULT_WEIGHTS, idle)).toBe(NOON + AGED_AFTER_MS);
  expect(explainPlace(DEFAULT_WEIGHTS, idle, NOON)).toEqual([{ kind: 'aged', since: NOON }]);
});
