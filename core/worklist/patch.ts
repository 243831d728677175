import { comparePlaces, type Place } from './places';
import type { Order } from './types';

type Row = { number: number; at: string };
/** A page of a list, and where the next one begins. */
export type ListPage<R extends Row> = { rows: R[]; next: string | null };

/** Rows of a list that were read anew, in place of what a page shows of them. */
export type Patch<R extends Row> = {
  /** The tickets that were looked at, and their rows as they stand in the list now. */
  numbers: number[];
  rows: R[];
  order: Order;
};

const placeOf = ({ at }: Row): Place => JSON.parse(at) as Place;
const nameOf = (row: Row): string => `${row.number} ${placeOf(row)[3]}`;

/** Puts rows where they belong among pages that follow each other; what lies beyond the last one read is left out. */
function insert<R extends Row>(pages: ListPage<R>[], row: R, order: Order): ListPage<R>[] {
  const isBefore = (one: R, other: R): boolean => comparePlaces(order, placeOf(one), placeOf(other)) < 0;
  const i = pages.findIndex(({ rows }) => rows.length > 0 && isBefore(row, rows.at(-1)!));
  const at = i === -1 ? pages.length - 1 : i;
  const page = pages[at];
  if (!page || (i === -1 && page.next !== null)) return pages;
  const before = page.rows.filter((other) => isBefore(other, row));
  const rows = [...before, row, ...page.rows.slice(before.length)];
  return pages.with(at, { ...page, rows });
}

/** Pages of a list with some tickets' rows renewed, moved, taken out or put in: as if all had been read anew. */
export function patchPages<R extends Row>(
  pages: ListPage<R>[],
  { numbers, rows, order }: Patch<R>,
): ListPage<R>[] {
  const touched = new Set(numbers);
  const kept = pages.map((page) => ({
    ...page,
    rows: page.rows.filter(({ number }) => !touched.has(number)),
  }));
  return rows.reduce((all, row) => insert(all, row, order), kept);
}

/** The same, with nothing moving: what stands there is renewed in its place, the rest is for later. */
export function renewInPlace<R extends Row>(
  pages: ListPage<R>[],
  { numbers, rows }: Omit<Patch<R>, 'order'>,
): { pages: ListPage<R>[]; later: number[] } {
  const fresh = new Map(rows.map((row) => [nameOf(row), row]));
  const touched = new Set(numbers);
  const stays = new Set<string>();
  const renewed = pages.map((page) => ({
    ...page,
    rows: page.rows.map((row) => {
      const now = fresh.get(nameOf(row));
      if (now && now.at === row.at) stays.add(nameOf(row));
      return now ? { ...now, at: row.at } : row;
    }),
  }));
  const shown = new Set(
    pages.flatMap((page) => page.rows.filter(({ number }) => touched.has(number)).map(nameOf)),
  );
  const moved = numbers.filter((number) => {
    const was = [...shown].filter((name) => name.startsWith(`${number} `));
    const is = rows.filter((row) => row.number === number).map(nameOf);
    return was.length !== is.length || is.some((name) => !stays.has(name));
  });
  return { pages: renewed, later: moved };
}
