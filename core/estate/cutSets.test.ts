import fc from 'fast-check';
import { cutSets, loneFailures, TooEntangled, type Need } from './index';
import { estates, sweep } from './testing/estates';

/** The minimal sets by trying every set of up to three. */
function tryEverySet(things: string[], needs: Need[], watched: string): string[][] {
  const others = things.filter((id) => id !== watched);
  const isDown = (set: string[]): boolean => sweep(needs, set).has(watched);
  if (isDown([])) return [[]];
  const found: string[][] = [];
  const add = (set: string[]): void => {
    if (found.some((smaller) => smaller.every((id) => set.includes(id)))) return;
    if (isDown(set)) found.push(set);
  };
  others.forEach((a) => add([a]));
  others.forEach((a, i) => others.slice(i + 1).forEach((b) => add([a, b])));
  others.forEach((a, i) =>
    others.slice(i + 1).forEach((b, j) => others.slice(i + j + 2).forEach((c) => add([a, b, c]))),
  );
  return found;
}

test('law: the sets are those that trying every set finds, in the order of things', () => {
  fc.assert(
    fc.property(estates(7), ({ things, needs }) => {
      const expected = tryEverySet(things, needs, 't0');
      expect(cutSets(things, needs, 't0', 3)).toEqual(expected);
      expect(cutSets(things, needs, 't0', 2)).toEqual(expected.filter(({ length }) => length < 3));
      expect(loneFailures(things, needs, 't0')).toEqual(expected.filter(({ length }) => length === 1).flat());
    }),
    { numRuns: 400 },
  );
});

// The bridge of reliability textbooks (IEC 61078): two paths with a link across; its cut sets are ab, de, ace, bcd.
const bridge: Need[] = [
  { thing: 'top', atLeast: 1, of: ['pathTop', 'pathCross'] },
  { thing: 'pathTop', atLeast: 2, of: ['a', 'd'] },
  { thing: 'pathCross', atLeast: 1, of: ['aCE', 'bCD', 'bE'] },
  { thing: 'aCE', atLeast: 3, of: ['a', 'c', 'e'] },
  { thing: 'bCD', atLeast: 3, of: ['b', 'c', 'd'] },
  { thing: 'bE', atLeast: 2, of: ['b', 'e'] },
];
const bridgeThings = ['a', 'b', 'c', 'd', 'e', 'top', 'pathTop', 'pathCross', 'aCE', 'bCD', 'bE'];

test('finds the cut sets of the textbook bridge', () => {
  const ofComponents = cutSets(bridgeThings, bridge, 'top', 3).filter((set) =>
    set.every((id) => id.length === 1),
  );
  expect(ofComponents.map((set) => set.join(''))).toEqual(['ab', 'de', 'ace', 'bcd']);
  expect(loneFailures(bridgeThings, bridge, 'top')).toEqual([]);
});

test('a long line has a single point of failure at every thing, and is quick about it', () => {
  const things = Array.from({ length: 50_000 }, (_, i) => `n${i}`);
  const needs = things.slice(1).map((id, i) => ({ thing: things[i]!, atLeast: 1, of: [id] }));
  expect(loneFailures(things, needs, 'n0')).toHaveLength(49_999);
});

test('says so before it begins where there are too many sets; lone failures do not count', () => {
  const alternatives = Array.from({ length: 1_600 }, (_, i) => `x${i}`);
  const needs = [{ thing: 'w', atLeast: 1, of: alternatives }];
  expect(cutSets(['w', ...alternatives], needs, 'w', 1)).toEqual([]);
  expect(() => cutSets(['w', ...alternatives], needs, 'w', 2)).toThrow(TooEntangled);
  const must = [{ thing: 'w', atLeast: 1_600, of: alternatives }];
  expect(cutSets(['w', ...alternatives], must, 'w', 3)).toHaveLength(1_600);
});
