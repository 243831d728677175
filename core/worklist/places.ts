import type { Order } from './types';

/** A row's place in its list: its group, its key in the order, its ticket, and the step or approval that it is. */
export type Place = [group: string | number, key: string | number, number: number, part: string];

/** Which way an order goes, as SQL says it. */
export type Direction = 'ASC' | 'DESC';

/** Which way an order goes. */
export function directionOf(order: Order): Direction {
  return order === 'newest' || order === 'changed' || order === 'closed' ? 'DESC' : 'ASC';
}

function compare<Value>(one: Value, other: Value): number {
  return one < other ? -1 : one > other ? 1 : 0;
}

/** Compares places in the order of a list; groups always rise. */
export function comparePlaces(order: Order, one: Place, other: Place): number {
  const sign = directionOf(order) === 'ASC' ? 1 : -1;
  return (
    compare(one[0], other[0]) ||
    sign * compare(one[1], other[1]) ||
    sign * (one[2] - other[2]) ||
    compare(one[3], other[3])
  );
}
