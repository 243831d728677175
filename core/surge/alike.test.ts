import fc from 'fast-check';
import { largestAlike } from './index';

const titled = (...titles: string[]) => titles.map((title, number) => ({ number, title }));
const numbersOf = (things: { number: number }[]): number[] => things.map(({ number }) => number);

test('what says the same is one matter; what came beside it is not', () => {
  const things = titled(
    'Gate scanners reject season passes',
    'Badge lost',
    'Scanner at gate 4 rejects a season pass',
    'New chair',
    'Season passes rejected',
  );
  expect(numbersOf(largestAlike(things))).toEqual([0, 2, 4]);
});

test('of unlike things none is like another, and of nothing there is nothing', () => {
  expect(
    largestAlike(titled('Badge lost', 'New chair', 'Roster is wrong', 'Where is the canteen')),
  ).toHaveLength(1);
  expect(largestAlike([])).toEqual([]);
});

test('the thing alone that they are of makes nothing alike', () => {
  expect(largestAlike(titled('Kiosk frozen', 'Kiosk paper', 'Kiosk price', 'Kiosk door'))).toHaveLength(1);
});

test('which of many it is makes no difference', () => {
  expect(largestAlike(titled('Frozen 1', 'Frozen 2', 'Frozen 17'))).toHaveLength(3);
  expect(largestAlike(titled('Paper 4', 'Price 4', 'Door 4'))).toHaveLength(1);
});

test('words that say nothing make nothing alike', () => {
  expect(largestAlike(titled('It is the one of my', 'It was of the'))).toHaveLength(1);
});

const title = fc
  .array(fc.constantFrom('gate', 'dark', 'badge', 'lost', 'kiosk', 'frozen', 'chair'), {
    minLength: 1,
    maxLength: 4,
  })
  .map((words) => words.join(' '));
test('the same things in another order make a part of the same size', () => {
  fc.assert(
    fc.property(fc.array(title, { maxLength: 9 }), (titles) => {
      const one = largestAlike(titled(...titles));
      const other = largestAlike(titled(...titles.toReversed()));
      expect(other).toHaveLength(one.length);
    }),
  );
});
