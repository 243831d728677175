import fc from 'fast-check';
import { putInPlace, rank, type Ranked } from './ranking';

const request = (key: string, place: number | null, startedAt = 0): Ranked => ({ key, place, startedAt });
const keysOf = (requests: Ranked[]): string[] => requests.map(({ key }) => key);

test('those with a place come first, by it; the others by how long they wait, then by their key', () => {
  const requests = [
    request('late', null, 9),
    request('b', null, 5),
    request('second', 2, 8),
    request('a', null, 5),
    request('first', 1, 9),
  ];
  expect(keysOf(rank(requests))).toEqual(['first', 'second', 'a', 'b', 'late']);
});

describe('putting one in a place', () => {
  const three = [request('a', 1), request('b', 2), request('c', null)];

  test.each<[string, number, string[]]>([
    ['c', 1, ['c', 'a', 'b']],
    ['a', 2, ['b', 'a', 'c']],
    ['a', 3, ['b', 'c', 'a']],
    ['b', 2, ['a', 'b', 'c']],
    ['b', 99, ['a', 'c', 'b']],
    ['b', -1, ['b', 'a', 'c']],
    ['new', 2, ['a', 'new', 'b', 'c']],
  ])('%s in place %d', (key, place, order) => {
    expect(putInPlace(three, key, place)).toEqual(order);
  });

  const anyRequests = fc
    .uniqueArray(fc.string({ minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 12 })
    .chain((keys) =>
      fc.tuple(
        ...keys.map((key) =>
          fc.record({
            key: fc.constant(key),
            place: fc.option(fc.integer({ min: 1, max: 20 })),
            startedAt: fc.integer({ min: 0, max: 5 }),
          }),
        ),
      ),
    );

  test('it stands there, and the others keep their order', () => {
    fc.assert(
      fc.property(anyRequests, fc.nat(), fc.integer({ min: 1, max: 12 }), (requests, pick, wanted) => {
        const { key } = requests[pick % requests.length]!;
        const place = Math.min(wanted, requests.length);
        const order = putInPlace(requests, key, place);
        expect(order[place - 1]).toBe(key);
        const others = (keys: string[]): string[] => keys.filter((each) => each !== key);
        expect(others(order)).toEqual(others(keysOf(rank(requests))));
      }),
    );
  });

  test('written down as places it reads the same, whatever order it is read in; one that comes later stands last', () => {
    fc.assert(
      fc.property(anyRequests, fc.nat(), fc.integer({ min: 1, max: 12 }), (requests, pick, place) => {
        const order = putInPlace(requests, requests[pick % requests.length]!.key, place);
        const written = requests.map((each) => ({ ...each, place: order.indexOf(each.key) + 1 }));
        const later = request('later', null);
        expect(keysOf(rank([later, ...written].reverse()))).toEqual([...order, 'later']);
      }),
    );
  });
});
