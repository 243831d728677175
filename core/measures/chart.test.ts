import fc from 'fast-check';
import { holds, type Fields, type Scalar } from '../conditions';
import {
  bucketsOf,
  checkChart,
  conditionsOf,
  FACT_FIELDS,
  FACT_KINDS,
  figureOf,
  listFactFields,
  gatherAll,
  MOST_BUCKETS,
  narrowed,
  NO_FACTS,
  periodBefore,
  periodOf,
  quantile,
  SHOWS,
  showsFor,
  spreadOf,
  type Chart,
} from './index';

const ZONE = 'Europe/Lisbon';
const CHART: Chart = {
  ...{ id: 'c', title: '', of: 'tickets', what: 'count', at: 'opened', where: { all: [] }, show: 'bars' },
  ...{ by: 'teamId', every: null, stretch: null, isCompared: false, aim: null, width: 6 },
};

describe('a stretch', () => {
  const now = Date.parse('2026-11-25T10:00:00Z');
  test('of weeks ends with the present one, which begins on Monday', () => {
    expect(periodOf({ last: 2, unit: 'week' }, now, ZONE)).toEqual({
      from: Date.parse('2026-11-16T00:00:00Z'),
      to: Date.parse('2026-11-30T00:00:00Z'),
    });
  });

  test('before another is as long and ends where that begins', () => {
    expect(periodBefore({ last: 3, unit: 'month' }, Date.parse('2026-09-01T00:00:00+01:00'), ZONE)).toEqual({
      from: Date.parse('2026-06-01T00:00:00+01:00'),
      to: Date.parse('2026-09-01T00:00:00+01:00'),
    });
  });

  test('has as many buckets as it says, also over a change of the clocks', () => {
    for (const [unit, last] of [
      ['day', 60],
      ['week', 12],
      ['month', 13],
      ['hour', 48],
    ] as const) {
      const period = periodOf({ last, unit }, now, ZONE);
      expect(bucketsOf(unit, period, ZONE)).toHaveLength(last);
      expect(bucketsOf(unit, period, ZONE)[0]).toBe(period.from);
    }
  });

  test('with too many buckets is refused', () => {
    const year = periodOf({ last: 1, unit: 'year' }, now, ZONE);
    expect(() => bucketsOf('hour', year, ZONE)).toThrow(RangeError);
    expect(bucketsOf(null, year, ZONE)).toEqual([]);
    expect(MOST_BUCKETS).toBe(1_000);
  });
});

describe('how a chart can be drawn', () => {
  test.each<[Partial<Chart>, string, boolean]>([
    [{ by: 'teamId' }, 'bars', true],
    [{ by: 'teamId' }, 'shares', true],
    [{ by: 'teamId', what: { median: 'toDone' } }, 'shares', false],
    [{ by: 'teamId', what: { median: 'toDone' } }, 'box', true],
    [{ by: 'teamId', what: { mean: 'rating' } }, 'box', false],
    [{ by: null, every: 'week' }, 'process', true],
    [{ by: 'teamId', every: 'week' }, 'process', false],
    [{ by: null, every: 'hour' }, 'heat', true],
    [{ by: null, every: 'day' }, 'heat', false],
    [{ by: null, every: 'week' }, 'flow', true],
    [{ by: null, every: null }, 'survival', true],
    [{ by: null, every: null, of: 'time' }, 'survival', false],
    [{ by: null, every: null }, 'line', false],
  ])('%j as %s: %s', (given, show, can) => {
    expect(showsFor({ ...CHART, ...given }).includes(show as Chart['show'])).toBe(can);
  });

  test('every way is one of some chart', () => {
    const all = FACT_KINDS.flatMap((of) =>
      ([null, 'hour', 'week'] as const).flatMap((every) =>
        [null, 'teamId'].flatMap((by) =>
          (['count', { median: 'toDone' }] as const).flatMap((what) =>
            showsFor({ ...CHART, of, every, by, what }),
          ),
        ),
      ),
    );
    expect([...new Set(all)].sort()).toEqual([...SHOWS].sort());
  });
});

describe('a chart is refused', () => {
  test.each<[string, Partial<Chart>, object]>([
    ['by an instant that there is not', { at: 'decided' }, { code: 'unknownField', field: 'at' }],
    ['by a split that is gone', { by: 'shoeSize' }, { code: 'unknownField', field: 'by' }],
    ['by a split that has no values', { by: 'toDone' }, { code: 'unknownField', field: 'by' }],
    ['by a name that every object has', { by: 'constructor' }, { code: 'unknownField', field: 'by' }],
    ['where it sums what is no number', { what: { sum: 'teamId' } }, { code: 'unknownField', field: 'what' }],
    ['in a way that it cannot be drawn', { show: 'line' }, { code: 'wrongShow', field: 'show' }],
    ['of too long a stretch', { stretch: { last: 801, unit: 'day' } }, { code: 'tooMany', field: 'stretch' }],
    [
      'where its condition asks for what is not there',
      { where: { not: { any: [{ field: 'sky', op: 'is', value: 'blue' }] } } },
      { code: 'unknownField', field: 'sky' },
    ],
    [
      'where its condition compares what cannot be',
      { where: { field: 'teamId', op: 'gt', value: 'a' } },
      { code: 'notAskable', field: 'teamId' },
    ],
    [
      'where its share compares with a value of another kind',
      { what: { share: { field: 'toDone', op: 'lt', value: 'long' } } },
      { code: 'wrongValue', field: 'toDone' },
    ],
  ])('%s', (_, given, problem) => {
    expect(checkChart({ ...CHART, ...given })).toContainEqual(problem);
  });

  test('not where all of it is there', () => {
    expect(checkChart(CHART)).toEqual([]);
    for (const of of FACT_KINDS)
      for (const by of listFactFields(of, 'split'))
        for (const at of listFactFields(of, 'instant'))
          expect(checkChart({ ...CHART, of, by, at })).toEqual([]);
  });
});

describe('the figure of some facts', () => {
  const facts = { count: 4, met: 1, known: 3, sum: 6, values: [1, 3, 2] };
  test.each<[Chart['what'], number | null]>([
    ['count', 4],
    [{ share: { all: [] } }, 25],
    [{ sum: 'x' }, 6],
    [{ mean: 'x' }, 2],
    [{ median: 'x' }, 2],
    [{ p90: 'x' }, quantile([1, 2, 3], 0.9)],
  ])('%j is %d', (what, figure) => {
    expect(figureOf(what, facts)).toBe(figure);
  });

  test('of nothing is nothing, but a count and a sum of it are 0', () => {
    const none = NO_FACTS;
    expect(figureOf({ share: { all: [] } }, none)).toBeNull();
    expect(figureOf({ median: 'x' }, none)).toBeNull();
    expect(figureOf({ mean: 'x' }, none)).toBeNull();
    expect([figureOf('count', none), figureOf({ sum: 'x' }, none)]).toEqual([0, 0]);
  });
});

test('the facts of parts together give the figure of the whole', () => {
  const part = (values: number[], met: number) => ({
    ...{ count: values.length + 1, met, known: values.length, values },
    sum: values.reduce((sum, value) => sum + value, 0),
  });
  const lists = fc.array(fc.array(fc.integer({ min: 0, max: 1_000 }), { maxLength: 6 }), { maxLength: 5 });
  fc.assert(
    fc.property(lists, (parts) => {
      const all = gatherAll(parts.map((values) => part(values, 1)));
      const whole = { ...part(parts.flat(), parts.length), count: parts.flat().length + parts.length };
      for (const what of [
        'count',
        { mean: 'x' },
        { median: 'x' },
        { p90: 'x' },
        { share: { all: [] } },
      ] as const)
        expect(figureOf(what as Chart['what'], all)).toEqual(figureOf(what as Chart['what'], whole));
    }),
  );
});

test('values spread between their least and most', () => {
  expect(spreadOf([4, 1, 2, 3, 5])).toEqual([1, 2, 3, 4, 5]);
  expect(spreadOf([])).toBeNull();
});

describe('narrowing as a condition', () => {
  const SPLITS = ['teamId', 'priority', 'heldFor', 'isDeclined'] as const;
  const value: Record<string, fc.Arbitrary<Scalar>> = {
    ...{ teamId: fc.constantFrom('a', 'b'), priority: fc.constantFrom('P1', 'P2') },
    ...{ heldFor: fc.constantFrom('requester', null), isDeclined: fc.boolean() },
  };
  const fact = fc.record(value) as fc.Arbitrary<Fields>;
  const charts = fc.array(fc.constantFrom(...SPLITS), { minLength: 1, maxLength: 4 }).chain((bys) =>
    fc.record({
      charts: fc.constant(bys.map((by, i) => ({ id: `c${i}`, by: by as string, of: 'tickets' as const }))),
      chosen: fc
        .tuple(...bys.map((by) => fc.array(value[by]!, { maxLength: 2 })))
        .map((lists) => Object.fromEntries(lists.map((list, i) => [`c${i}`, list]))),
    }),
  );

  test('says the same of every fact as narrowing itself', () => {
    fc.assert(
      fc.property(fc.array(fact, { maxLength: 30 }), charts, (facts, board) => {
        const conditions = conditionsOf(board.charts, board.chosen);
        const expected = narrowed(facts, board.charts, board.chosen);
        for (const { id } of board.charts)
          expect(facts.filter((each) => holds(conditions[id]!, each))).toEqual(expected[id]);
      }),
    );
  });

  test('leaves charts of facts that have no such field as they are', () => {
    const [lines, tickets] = [
      { id: 'lines', of: 'conversations', by: 'lineId' },
      { id: 'tickets', of: 'tickets', by: 'teamId' },
    ] as const;
    const both = conditionsOf([lines, tickets], { lines: ['x'], tickets: ['desk'] });
    expect(both.tickets).toEqual({ all: [] });
    // Conversations have a team.
    expect(both.lines).toEqual({ all: [{ field: 'teamId', op: 'in', value: ['desk'] }] });
    expect(FACT_FIELDS.tickets).not.toHaveProperty('lineId');
  });
});
