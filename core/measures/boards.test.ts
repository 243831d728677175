import fc from 'fast-check';
import { expectedArrivals, narrowed, points, seenBy, type Deed } from './index';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const MONDAY = Date.UTC(2026, 2, 2);

const hours = (count: number, of: (i: number) => number, from = MONDAY): { at: number; count: number }[] =>
  Array.from({ length: count }, (_, i) => ({ at: from + i * HOUR, count: of(i) }));

test('expects the mean of the last eight of the same weekday and hour', () => {
  // Ten weeks: only Monday at nine, 1, 2, … 10.
  const counts = hours(10 * 168, (i) => (i % 168 === 9 ? Math.floor(i / 168) + 1 : 0));
  const ahead = expectedArrivals(counts, 168, 'UTC');
  expect(ahead).toHaveLength(168);
  expect(ahead[0]!.at).toBe(MONDAY + 70 * DAY);
  // The last four weeks to the four before: 34 to 18.
  expect(ahead[9]!.mean).toBeCloseTo((6.5 * 34) / 18, 12);
  expect(ahead[10]).toMatchObject({ mean: 0, low: 0, high: 0 });
});

test('the trend is held within a half and two, and one where too little is known', () => {
  const doubled = hours(1_344, (i) => (i < 672 ? 1 : 9));
  expect(expectedArrivals(doubled, 1, 'UTC')[0]!.mean).toBeCloseTo(((4 * 1 + 4 * 9) / 8) * 2, 12);
  expect(expectedArrivals(doubled.slice(1), 1, 'UTC')[0]!.mean).toBeCloseTo((3 * 1 + 4 * 9) / 7, 12);
  const gone = hours(1_344, (i) => (i < 672 ? 5 : 0));
  expect(expectedArrivals(gone, 1, 'UTC')[0]!.mean).toBeCloseTo(2.5, 12);
  expect(expectedArrivals([], 5, 'UTC')).toEqual([]);
});

test('hours are those of the wall clock, also past a change of it', () => {
  // Lisbon, the week before the clock goes forward: always two at nine in the morning.
  const from = Date.UTC(2026, 2, 16);
  const counts = hours(13 * 24, (i) => (i % 24 === 9 ? 2 : 0), from);
  const ahead = expectedArrivals(counts, 24, 'Europe/Lisbon');
  const busy = ahead.filter(({ mean }) => mean > 0);
  expect(busy.map(({ at }) => new Date(at).toISOString())).toEqual(['2026-03-29T08:00:00.000Z']);
});

type Fact = { team: string; kind: string | null };
const facts: Fact[] = [
  { team: 'desk', kind: 'incident' },
  { team: 'gates', kind: 'incident' },
  { team: 'desk', kind: null },
];
const charts = [
  { id: 'byTeam', by: 'team' },
  { id: 'byKind', by: 'kind' },
];

test('a choice narrows every other chart, and not its own', () => {
  const all = narrowed(facts, charts, { byTeam: ['desk'], gone: ['x'], byKind: [] });
  expect(all).toEqual({ byTeam: facts, byKind: [facts[0], facts[2]] });
  expect(narrowed(facts, charts, { byKind: [null], byTeam: ['desk', 'gates'] })).toEqual({
    ...{ byTeam: [facts[2]], byKind: facts },
  });
  // Absent is null.
  expect(narrowed([{ team: 'desk' }], charts, { byKind: [null] }).byTeam).toHaveLength(1);
});

test('law: more chosen in one chart never shows less in the others', () => {
  const team = fc.constantFrom('a', 'b', 'c');
  const fact = fc.record({ team, kind: team });
  fc.assert(
    fc.property(fc.array(fact), fc.array(team, { minLength: 1 }), team, (all, chosen, more) => {
      const few = narrowed(all, charts, { byTeam: chosen });
      const many = narrowed(all, charts, { byTeam: [...chosen, more] });
      expect(many.byKind!.length).toBeGreaterThanOrEqual(few.byKind!.length);
      expect(few.byTeam).toEqual(all);
    }),
  );
});

const scheme = {
  ...{ from: MONDAY, to: MONDAY + 30 * DAY, zone: 'Europe/Lisbon', mostADay: 5 },
  earns: { doneInTime: 2, goodRating: -10 },
};
const entry = (personId: string, at: number, deed: Deed = 'doneInTime') => ({ personId, at, deed });

test('a day brings so much at most, the season nothing below zero, and places count those with more', () => {
  const entries = [
    ...[1, 2, 3].map((hour) => entry('bia', MONDAY + hour * HOUR)),
    entry('bia', MONDAY + DAY),
    ...[entry('noor', MONDAY), entry('ana', MONDAY), entry('idle', MONDAY, 'articleHelped')],
    ...[entry('low', MONDAY, 'goodRating'), entry('out', MONDAY - 1), entry('late', MONDAY + 30 * DAY)],
  ];
  const places = points(entries, scheme);
  expect(places).toEqual([
    { personId: 'bia', points: 7, place: 1 },
    { personId: 'ana', points: 2, place: 2 },
    { personId: 'noor', points: 2, place: 2 },
    { personId: 'idle', points: 0, place: 4 },
    { personId: 'low', points: 0, place: 4 },
  ]);
  expect(seenBy(places, 'noor').map(({ personId }) => personId)).toEqual(['bia', 'noor']);
  expect(seenBy(places, 'bia')).toHaveLength(1);
  expect(seenBy(places, 'nobody')).toEqual([]);
});

test('the day is one of the zone: half past eleven at night in the Azores is still the same', () => {
  const azores = { ...scheme, zone: 'Atlantic/Azores' };
  const late = MONDAY + DAY + HOUR / 2;
  const entries = [MONDAY + 20 * HOUR, MONDAY + 21 * HOUR, late].map((at) => entry('bia', at));
  expect(points(entries, azores)[0]!.points).toBe(5);
  expect(points(entries, scheme)[0]!.points).toBe(6);
});
