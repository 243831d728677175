import fc from 'fast-check';
import { availability, BadEstate, TooEntangled, type Need } from './index';
import { Conditioning } from './condition';
import { Structure } from './structure';
import { estates, sweep } from './testing/estates';
import { tryAll } from './tryAll';
import { partBelow } from './watched';

/** The chance by going through every set of failures. */
function tryEveryFailure(things: string[], needs: Need[], own: Record<string, number>): number {
  let chance = 0;
  for (let mask = 0; mask < 2 ** things.length; mask++) {
    const failed = things.filter((_, i) => mask & (1 << i));
    if (sweep(needs, failed).has('t0')) continue;
    chance += things.reduce((product, id, i) => product * (mask & (1 << i) ? 1 - own[id]! : own[id]!), 1);
  }
  return chance;
}

const chances = fc.array(fc.constantFrom(0, 0.25, 0.5, 0.9, 1), { minLength: 12, maxLength: 12 });
const named = (things: string[], values: number[]): Record<string, number> =>
  Object.fromEntries(things.map((id, i) => [id, values[i % values.length]!]));

test('law: it is the sum over every set of failures', () => {
  fc.assert(
    fc.property(estates(8), chances, ({ things, needs }, values) => {
      const own = named(things, values);
      expect(availability(things, needs, 't0', own)).toBeCloseTo(tryEveryFailure(things, needs, own), 12);
    }),
    { numRuns: 400 },
  );
});

test('law: conditioning on what is shared agrees with trying every failure', () => {
  let ran = 0;
  fc.assert(
    fc.property(estates(12), chances, ({ things, needs }, values) => {
      // Only what comes later is needed: no rings.
      const straight = needs
        .map((need) => ({
          ...need,
          of: need.of.filter((id) => things.indexOf(id) > things.indexOf(need.thing)),
        }))
        .map((need) => ({ ...need, atLeast: Math.min(need.atLeast, need.of.length) }));
      const own = named(
        things,
        values.map((value) => (value === 0 ? 0.7 : value)),
      );
      const make = (): Structure => {
        const below = partBelow(things, straight, 't0');
        return new Structure(below, (place) => own[below.network.things[place]!]!);
      };
      if (make().sure !== null) return;
      ran++;
      const structure = make();
      const chance = new Conditioning(structure, structure.order()!, 't0').chance();
      expect(chance).toBeCloseTo(tryAll(make())!, 12);
    }),
    { numRuns: 1_000 },
  );
  expect(ran).toBeGreaterThan(300);
});

const range = (count: number, name: string): string[] =>
  Array.from({ length: count }, (_, i) => `${name}${i}`);
const all = (thing: string, of: string[]): Need => ({ thing, atLeast: of.length, of });

// Formulas of IEC 61078 for reliability block diagrams: series, parallel, k out of n, the bridge by total probability.
test('series, parallel and k of n agree with the formulas', () => {
  const parts = range(200, 'p');
  const own = Object.fromEntries(parts.map((id, i) => [id, 1 - (i + 1) / 1_000_000]));
  const series = parts.reduce((product, id) => product * own[id]!, 1);
  expect(availability(['w', ...parts], [all('w', parts)], 'w', own)).toBeCloseTo(series, 12);
  const parallel = 1 - 0.4 ** 30;
  const alike = range(30, 'q');
  const half = Object.fromEntries(alike.map((id) => [id, 0.6]));
  const needs = (atLeast: number): Need[] => [{ thing: 'w', atLeast, of: alike }];
  expect(availability(['w', ...alike], needs(1), 'w', half)).toBeCloseTo(parallel, 12);
  const choose = (n: number, k: number): number => (k === 0 ? 1 : (choose(n, k - 1) * (n - k + 1)) / k);
  let of20 = 0;
  for (let k = 20; k <= 30; k++) of20 += choose(30, k) * 0.6 ** k * 0.4 ** (30 - k);
  expect(availability(['w', ...alike], needs(20), 'w', half)).toBeCloseTo(of20, 12);
});

const bridgeOf = (name: string): Need[] => [
  { thing: name, atLeast: 1, of: ['ad', 'be', 'ace', 'bcd'].map((path) => `${name}.${path}`) },
  ...['ad', 'be', 'ace', 'bcd'].map((path) =>
    all(
      `${name}.${path}`,
      path.split('').map((each) => `${name}.${each}`),
    ),
  ),
];
const bridgeThings = (name: string): string[] => [
  name,
  ...['ad', 'be', 'ace', 'bcd', 'a', 'b', 'c', 'd', 'e'].map((each) => `${name}.${each}`),
];

test('the bridge agrees with total probability, and thirty of them in series with its power', () => {
  const p = 0.9;
  // c up: two pairs in series; c down: two lines in parallel.
  const one = p * (1 - (1 - p) ** 2) ** 2 + (1 - p) * (1 - (1 - p * p) ** 2);
  const names = range(30, 'b');
  const things = ['w', ...names.flatMap(bridgeThings)];
  const own = Object.fromEntries(things.filter((id) => /\.[a-e]$/.test(id)).map((id) => [id, p]));
  expect(availability(things, names.flatMap(bridgeOf), 'b0', own)).toBeCloseTo(one, 12);
  const needs = [all('w', names), ...names.flatMap(bridgeOf)];
  expect(availability(things, needs, 'w', own)).toBeCloseTo(one ** 30, 12);
});

test('parts that hang together for themselves are each reckoned for themselves, also within one need', () => {
  const names = range(12, 'b');
  const things = ['w', 'v', ...names.flatMap(bridgeThings)];
  const own = Object.fromEntries(things.filter((id) => /\.[a-e]$/.test(id)).map((id) => [id, 0.5]));
  const needs = [{ thing: 'w', atLeast: 4, of: names }, ...names.flatMap(bridgeOf)];
  const choose = (n: number, k: number): number => (k === 0 ? 1 : (choose(n, k - 1) * (n - k + 1)) / k);
  let expected = 0;
  // A bridge of even chances is up with an even chance.
  for (let k = 4; k <= 12; k++) expected += choose(12, k) / 2 ** 12;
  expect(availability(things, needs, 'w', own)).toBeCloseTo(expected, 12);
});

test('twenty shared things among many others are answered', () => {
  const shared = range(20, 's');
  const users = range(60, 'u');
  const things = ['w', ...shared, ...users, ...users.map((id) => `${id}x`)];
  const needs = [
    { thing: 'w', atLeast: 30, of: users },
    ...users.map((id, i) => ({
      thing: id,
      atLeast: 2,
      of: [shared[i % 20]!, shared[(i * 7 + 3) % 20]!, `${id}x`].filter(
        (each, at, of) => of.indexOf(each) === at,
      ),
    })),
  ];
  const own = Object.fromEntries(things.slice(1).map((id) => [id, 0.8]));
  const chance = availability(things, needs, 'w', own);
  expect(chance).toBeGreaterThan(0.9);
  expect(chance).toBeLessThan(1);
});

test('a ring that is fed is as good as its feed; one thing that comes round to itself holds itself up', () => {
  const ring = range(40, 'r');
  const needs = ring.map((id, i) => ({ thing: id, atLeast: 1, of: [ring[(i + 1) % 40]!] }));
  const own = Object.fromEntries(ring.map((id) => [id, 0.99]));
  expect(
    availability(['w', ...ring], [{ thing: 'w', atLeast: 1, of: ['r0'] }, ...needs], 'w', own),
  ).toBeCloseTo(0.99 ** 40, 12);
});

test('a ring with ways out of it is answered too, where few branches decide it', () => {
  // Each of eleven switches is fed by the next one or by a line of its own: it is up where it or any after it has a line.
  const ring = range(11, 's');
  const needs = ring.map((id, i) => ({ thing: id, atLeast: 1, of: [ring[(i + 1) % 11]!, `${id}x`] }));
  const own = Object.fromEntries(
    ring.flatMap((id) => [
      [id, 0.9],
      [`${id}x`, 0.8],
    ]),
  );
  const things = ['w', ...ring, ...ring.map((id) => `${id}x`)];
  const all11 = [{ thing: 'w', atLeast: 11, of: ring }];
  // All are up: then they hold each other, lines or not.
  expect(availability(things, [...all11, ...needs], 'w', own)).toBeCloseTo(0.9 ** 11, 12);
  // From one of them on, step by step: it fails where a switch fails before a line was there, and never if none does.
  let first = 0.9 ** 11;
  for (let lost = 1; lost < 11; lost++) first += 0.9 ** lost * 0.1 * (1 - 0.2 ** lost);
  expect(availability(things, [{ thing: 'w', atLeast: 1, of: ['s0'] }, ...needs], 'w', own)).toBeCloseTo(
    first,
    12,
  );
});

test('refuses chances that are none, and says where it cannot answer', () => {
  expect(() => availability(['w'], [], 'w', { w: 1.1 })).toThrow(BadEstate);
  expect(() => availability(['w'], [], 'w', { w: Number.NaN })).toThrow(BadEstate);
  expect(availability(['w'], [], 'w', { w: 0.3, other: 7 })).toBe(0.3);
  const shared = range(60, 's');
  const users = range(60, 'u');
  const needs = [
    { thing: 'w', atLeast: 30, of: users },
    ...users.map((id, i) => ({
      thing: id,
      atLeast: 2,
      of: [0, 1, 17].map((step) => shared[(i + step) % 60]!),
    })),
  ];
  const own = Object.fromEntries(shared.map((id) => [id, 0.8]));
  expect(() => availability(['w', ...shared, ...users], needs, 'w', own)).toThrow(TooEntangled);
});
