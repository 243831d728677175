import fc from 'fast-check';
import { checkRouting, needOf, route, ROUTED_BY_HAND, type Candidate, type RoutingWay } from './index';

const NOON = Date.UTC(2026, 10, 25, 12);
const MINUTE = 60_000;
const NEED = { units: 1, skills: [] };
const who = (id: string, more: Partial<Candidate> = {}): Candidate => ({
  ...{
    id,
    isAvailable: true,
    isOnShift: true,
    isAway: false,
    capacity: 5,
    load: 0,
    lastGivenAt: null,
    skills: {},
  },
  ...more,
});

test.each<[string, RoutingWay, Candidate[], string | null]>([
  ['nobody by hand', 'byHand', [who('a')], null],
  ['the next in turn', 'inTurn', [who('a'), who('b'), who('c')], 'c'],
  ['the first again after the last', 'inTurn', [who('a'), who('b')], 'a'],
  [
    'who carries the smaller share',
    'leastLoaded',
    [who('a', { load: 2, capacity: 4 }), who('b', { load: 3, capacity: 12 })],
    'b',
  ],
  [
    'who had nothing longest',
    'longestIdle',
    [who('a', { lastGivenAt: NOON }), who('b', { lastGivenAt: NOON - 1 })],
    'b',
  ],
  ['who never had anything', 'longestIdle', [who('a', { lastGivenAt: 0 }), who('b')], 'b'],
  ['nobody who is full', 'leastLoaded', [who('a', { load: 5 })], null],
])('gives it to %s', (_, way, candidates, expected) => {
  expect(route(way, candidates, NEED, 'b').personId).toBe(expected);
});

test('says why each of the others is passed over', () => {
  const need = { units: 2, skills: [{ skill: 'radio', level: 2 }] };
  const radio = { radio: 3 };
  const routed = route(
    'leastLoaded',
    [
      who('able', { skills: radio }),
      who('onLeave', { isAway: true }),
      who('asleep', { isOnShift: false }),
      who('deskOff', { isAvailable: false }),
      who('learning', { skills: { radio: 1 } }),
      who('laden', { skills: radio, load: 4 }),
    ],
    need,
    null,
  );
  expect(routed).toMatchObject({ personId: 'able', couldHave: 1, load: 0, capacity: 5 });
  expect(routed.passedOver).toEqual([
    { id: 'onLeave', why: 'away' },
    { id: 'asleep', why: 'offShift' },
    { id: 'deskOff', why: 'busy' },
    { id: 'learning', why: 'unskilled' },
    { id: 'laden', why: 'full' },
  ]);
});

test('nobody gets what they cannot have, and where someone can have it, someone gets it', () => {
  const candidate = fc.record<Candidate>({
    id: fc.constantFrom('a', 'b', 'c', 'd', 'e'),
    isAvailable: fc.boolean(),
    isOnShift: fc.boolean(),
    isAway: fc.boolean(),
    capacity: fc.option(fc.integer({ min: 1, max: 6 })),
    load: fc.nat(6),
    lastGivenAt: fc.option(fc.nat(100)),
    skills: fc.dictionary(fc.constant('radio'), fc.integer({ min: 1, max: 3 })),
  });
  const needs = fc.record({
    units: fc.integer({ min: 1, max: 3 }),
    skills: fc.array(fc.record({ skill: fc.constant('radio'), level: fc.integer({ min: 1, max: 3 }) }), {
      maxLength: 1,
    }),
  });
  const all = fc.uniqueArray(candidate, { selector: ({ id }) => id });
  const ways = fc.constantFrom<RoutingWay>('inTurn', 'leastLoaded', 'longestIdle');
  fc.assert(
    fc.property(
      ways,
      all,
      needs,
      fc.option(fc.constantFrom('a', 'c', 'x')),
      (way, candidates, need, after) => {
        const { personId, passedOver, couldHave } = route(way, candidates, need, after);
        expect(passedOver.length + couldHave).toBe(candidates.length);
        expect(personId === null).toBe(couldHave === 0);
        expect(passedOver.map(({ id }) => id)).not.toContain(personId);
        if (personId === null) return;
        const chosen = candidates.find(({ id }) => id === personId)!;
        const could = candidates.filter(({ id }) => !passedOver.some((over) => over.id === id));
        const share = ({ load, capacity }: Candidate): number => (load + need.units) / (capacity ?? 1000);
        if (way === 'leastLoaded')
          for (const other of could) expect(share(chosen)).toBeLessThanOrEqual(share(other));
        if (way === 'longestIdle')
          for (const { lastGivenAt } of could)
            expect(chosen.lastGivenAt ?? -1).toBeLessThanOrEqual(lastGivenAt ?? -1);
      },
    ),
  );
});

/** Random numbers that are the same in every run. */
function createDice(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}

/** A working week of a team of six: tickets come at random and take a random while. */
function simulate(way: RoutingWay, seed: number) {
  const dice = createDice(seed);
  const exponential = (mean: number): number => -Math.log(1 - dice()) * mean;
  const people = ['a', 'b', 'c', 'd', 'e', 'f'].map((id) => who(id, { capacity: 4 }));
  const given = new Map(people.map(({ id }) => [id, 0]));
  const ends: { at: number; id: string }[] = [];
  let last: string | null = null;
  let passedOverIdle = 0;
  let waiting = 0;
  for (let at = NOON, i = 0; i < 2_000; i++) {
    at += exponential(6 * MINUTE);
    for (const end of ends.filter((each) => each.at <= at)) people.find(({ id }) => id === end.id)!.load--;
    ends.splice(0, ends.length, ...ends.filter((each) => each.at > at));
    const { personId } = route(way, people, NEED, last);
    if (personId === null) {
      waiting++;
      continue;
    }
    const person = people.find(({ id }) => id === personId)!;
    if (person.load > 0 && people.some(({ load }) => load === 0)) passedOverIdle++;
    person.load++;
    person.lastGivenAt = at;
    last = personId;
    given.set(personId, given.get(personId)! + 1);
    ends.push({ at: at + exponential(25 * MINUTE), id: personId });
  }
  const counts = [...given.values()];
  return { passedOverIdle, waiting, most: Math.max(...counts), least: Math.min(...counts) };
}

test.each([1, 2, 3])(
  'in a simulated week (%d) work is spread fairly, and nobody idle is passed over',
  (seed) => {
    const turn = simulate('inTurn', seed);
    const loaded = simulate('leastLoaded', seed);
    const idle = simulate('longestIdle', seed);
    expect(loaded.passedOverIdle).toBe(0);
    for (const { most, least, waiting } of [turn, loaded, idle]) {
      expect(most / least).toBeLessThan(1.15);
      expect(waiting).toBeLessThan(20);
    }
  },
);

test('settings: what a service needs, and what is wrong with them', () => {
  const settings = { ...ROUTED_BY_HAND, needs: [{ serviceId: 'link', skill: 'radio', level: 2 }] };
  expect(needOf(settings, { kind: 'incident', serviceId: 'link' })).toEqual({
    units: 1,
    skills: [{ skill: 'radio', level: 2 }],
  });
  expect(needOf(settings, { kind: 'request', serviceId: 'boots' }).skills).toEqual([]);
  const team = { id: 'network', skills: [{ radio: 1 }] };
  expect(checkRouting(settings, team)).toEqual([{ code: 'nobodyHasSkill', field: 'needs.radio' }]);
  expect(checkRouting({ ...ROUTED_BY_HAND, goesOnAfter: 30 }, team)).toEqual([
    { code: 'nowhereToGo', field: 'next' },
  ]);
  const itself = { ...ROUTED_BY_HAND, goesOnAfter: 30, next: { teamId: 'network', groupId: null } };
  expect(checkRouting(itself, team)).toEqual([{ code: 'goesToItself', field: 'next' }]);
});
