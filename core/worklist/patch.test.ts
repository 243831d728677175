import fc from 'fast-check';
import { patchPages, renewInPlace, type ListPage } from './patch';
import { comparePlaces, type Place } from './places';

type Row = { number: number; at: string; title: string };
const rowOf = (number: number, key: number, title = ''): Row => ({
  number,
  title,
  at: JSON.stringify(['', key, number, '']),
});
const inOrder = (rows: Row[]): Row[] =>
  [...rows].sort((a, b) => comparePlaces('next', JSON.parse(a.at) as Place, JSON.parse(b.at) as Place));

function paged(rows: Row[], size: number, hasMore: boolean): ListPage<Row>[] {
  const pages: ListPage<Row>[] = [];
  for (let i = 0; i < Math.max(1, rows.length); i += size) {
    const part = rows.slice(i, i + size);
    const isLast = i + size >= rows.length;
    pages.push({ rows: part, next: isLast && !hasMore ? null : (part.at(-1)?.at ?? null) });
  }
  return pages;
}

const keys = fc.uniqueArray(fc.tuple(fc.nat(40), fc.nat(9)), {
  selector: ([number]) => number,
  maxLength: 20,
});

test('patched pages are what reading all of them anew would give', () => {
  fc.assert(
    fc.property(keys, keys, fc.integer({ min: 1, max: 5 }), (before, changed, size) => {
      const rows = inOrder(before.map(([number, key]) => rowOf(number, key)));
      // Even numbers stand in the list still; odd ones have left it.
      const fresh = changed
        .filter(([number]) => number % 2 === 0)
        .map(([number, key]) => rowOf(number, key, 'new'));
      const numbers = changed.map(([number]) => number);
      const pages = patchPages(paged(rows, size, false), { numbers, rows: fresh, order: 'next' });
      const wanted = inOrder([...rows.filter(({ number }) => !numbers.includes(number)), ...fresh]);
      expect(pages.flatMap((page) => page.rows)).toEqual(wanted);
    }),
  );
});

test('what lies beyond the last page read is left for its reading', () => {
  const pages = paged([rowOf(1, 1), rowOf(2, 2)], 2, true);
  const patched = patchPages(pages, { numbers: [3], rows: [rowOf(3, 9)], order: 'next' });
  expect(patched.flatMap(({ rows }) => rows.map(({ number }) => number))).toEqual([1, 2]);
});

test('while one points at the list nothing moves; what would is kept for later', () => {
  const pages = paged([rowOf(1, 1), rowOf(2, 2), rowOf(3, 3)], 9, false);
  const rows = [rowOf(1, 1, 'new words'), rowOf(2, 9)];
  const held = renewInPlace(pages, { numbers: [1, 2, 3, 4], rows: [...rows, rowOf(4, 0)] });
  const shown = held.pages.flatMap((page) => page.rows);
  expect(shown.map(({ number }) => number)).toEqual([1, 2, 3]);
  expect(shown[0]!.title).toBe('new words');
  expect(held.later).toEqual([2, 3, 4]);
});
