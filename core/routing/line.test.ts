import cdf from '@stdlib/stats-base-dists-poisson-cdf';
import pmf from '@stdlib/stats-base-dists-poisson-pmf';
import fc from 'fast-check';
import { chooseForOffer, erlangA, erlangB, erlangC, expectWait, meanWait, type Candidate } from './index';

const agent = (id: string, more: Partial<Candidate> = {}): Candidate => ({
  ...{
    id,
    isAvailable: true,
    isOnShift: true,
    isAway: false,
    capacity: 3,
    load: 0,
    lastGivenAt: null,
    skills: {},
  },
  ...more,
});

test('Erlang B is the Poisson distribution cut off, as the reference library @stdlib/stats has it', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 80 }),
      fc.double({ min: 0.1, max: 70, noNaN: true }),
      (servers, load) => {
        const reference = pmf(servers, load) / cdf(servers, load);
        expect(erlangB(servers, load)).toBeCloseTo(reference, 9);
      },
    ),
  );
});

// From memory of the tables in textbooks on queueing (closed forms for one and two servers).
test.each([
  [1, 0.7, 0.7],
  [2, 1, 1 / 3],
  [2, 1.5, 0.642857],
  [3, 2, 0.444444],
  [10, 8, 0.40918],
])('Erlang C: %d servers, %d erlangs', (servers, load, waits) => {
  expect(erlangC(servers, load)).toBeCloseTo(waits, 5);
});

test('with endless patience, A is C; with none, it is B', () => {
  for (const [servers, load] of [
    [3, 2],
    [10, 8],
    [26, 20],
  ] as const) {
    expect(erlangA(servers, load, 5, 1e9).waits).toBeCloseTo(erlangC(servers, load), 5);
    expect(erlangA(servers, load, 5, 1e-9).leaves).toBeCloseTo(erlangB(servers, load), 5);
  }
});

/** A seeded generator (mulberry32), so that a simulation is the same each time. */
function createDice(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

type Served = { waited: number; expected: number | null; left: boolean };

/** People come to a line, agents of whom `chooseForOffer` picks one have them in turn; each may lose patience. */
function simulate(agents: number, load: number, handling: number, patience: number, count: number): Served[] {
  const dice = createDice(7);
  const after = (mean: number): number => -mean * Math.log(1 - dice());
  const people = Array.from({ length: agents }, (_, i) =>
    agent(`a${String(i).padStart(2, '0')}`, { capacity: 1 }),
  );
  const ends: { at: number; id: string }[] = [];
  const line: { at: number; until: number; expected: number | null }[] = [];
  const served: Served[] = [];
  let now = 0;
  let next = after(handling / load);
  const begin = (waited: number, expected: number | null): boolean => {
    const { personId } = chooseForOffer(people, null, []);
    if (personId === null) return false;
    const one = people.find(({ id }) => id === personId)!;
    Object.assign(one, { load: 1, lastGivenAt: now });
    ends.push({ at: now + after(handling), id: personId });
    ends.sort((a, b) => a.at - b.at);
    served.push({ waited, expected, left: false });
    return true;
  };
  while (served.length < count) {
    const end = ends[0];
    const leaving = line.length > 0 ? Math.min(...line.map(({ until }) => until)) : Infinity;
    if (end && end.at <= next && end.at <= leaving) {
      now = end.at;
      ends.shift();
      Object.assign(
        people.find(({ id }) => id === end.id)!,
        { load: 0 },
      );
      const first = line.shift();
      if (first) begin(now - first.at, first.expected);
    } else if (leaving <= next) {
      now = leaving;
      const i = line.findIndex(({ until }) => until === leaving);
      const [gone] = line.splice(i, 1);
      served.push({ waited: now - gone!.at, expected: gone!.expected, left: true });
    } else {
      now = next;
      next = now + after(handling / load);
      if (line.length === 0 && begin(0, null)) continue;
      const expected = expectWait({ ahead: line.length, places: agents, free: 0, handling })!.mean;
      line.push({ at: now, until: now + (patience === Infinity ? Infinity : after(patience)), expected });
    }
  }
  return served;
}
const meanOf = (values: number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

test('a line worked off by the offers waits as Erlang C says, and as each was told', () => {
  const [agents, load, handling] = [6, 4.8, 8];
  const served = simulate(agents, load, handling, Infinity, 60_000);
  const waiting = served.filter(({ waited }) => waited > 0);
  expect(waiting.length / served.length / erlangC(agents, load)).toBeGreaterThan(0.94);
  expect(waiting.length / served.length / erlangC(agents, load)).toBeLessThan(1.06);
  const mean = meanOf(served.map(({ waited }) => waited));
  expect(Math.abs(mean / meanWait(agents, load, handling) - 1)).toBeLessThan(0.1);
  // What those who had to wait were told when they came, against how long it was.
  const told = meanOf(waiting.map(({ expected }) => expected!));
  expect(Math.abs(told / meanOf(waiting.map(({ waited }) => waited)) - 1)).toBeLessThan(0.05);
});

test('where patience ends, as many leave as Erlang A says', () => {
  const [agents, load, handling, patience] = [6, 5.5, 8, 6];
  const served = simulate(agents, load, handling, patience, 60_000);
  const left = served.filter((each) => each.left).length / served.length;
  expect(Math.abs(left / erlangA(agents, load, handling, patience).leaves - 1)).toBeLessThan(0.06);
});

test('the expected wait: none where a place is free, four of five wait less than it says at most', () => {
  expect(expectWait({ ahead: 0, places: 4, free: 1, handling: 8 })).toEqual({ mean: 0, most: 0 });
  expect(expectWait({ ahead: 0, places: 0, free: 0, handling: 8 })).toBeNull();
  const { mean, most } = expectWait({ ahead: 2, places: 4, free: 0, handling: 8 })!;
  expect(mean).toBe(6);
  // The 80th percentile of Erlang(3) at rate 1/2, by its closed form.
  expect(1 - Math.exp(-most / 2) * (1 + most / 2 + (most / 2) ** 2 / 2)).toBeCloseTo(0.8, 5);
});

test('an offer goes to who knows it best, then who was idle longest; who let it pass is not asked again at once', () => {
  const bia = agent('bia', { skills: { gates: 1 }, lastGivenAt: 1 });
  const rui = agent('rui', { skills: { gates: 3 }, lastGivenAt: 9 });
  const ivo = agent('ivo', { skills: { gates: 3 }, lastGivenAt: 5 });
  const full = agent('zoe', { skills: { gates: 3 }, load: 3 });
  expect(chooseForOffer([bia, rui, ivo, full], 'gates', []).personId).toBe('ivo');
  expect(chooseForOffer([bia, rui, ivo, full], 'gates', ['ivo']).personId).toBe('rui');
  expect(chooseForOffer([bia, rui, ivo, full], 'gates', ['ivo', 'rui']).personId).toBe('bia');
  // Everyone was offered it: it stays in the line.
  expect(chooseForOffer([bia, rui, ivo], 'gates', ['ivo', 'rui', 'bia']).personId).toBeNull();
  expect(chooseForOffer([bia, rui], null, []).personId).toBe('bia');
  expect(chooseForOffer([agent('pia', { isAvailable: false })], null, []).personId).toBeNull();
});
