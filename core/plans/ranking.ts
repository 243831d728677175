/** A request that waits for its place among the others; `place` is null until a lead has given it one. `startedAt` in ms. */
export type Ranked = { key: string; place: number | null; startedAt: number };

/** Requests as they come: those that have a place by it, then the others by how long they wait. */
export function rank<T extends Ranked>(requests: readonly T[]): T[] {
  const of = ({ place }: Ranked): number => place ?? Number.POSITIVE_INFINITY;
  const compare = <V extends number | string>(a: V, b: V): number => (a < b ? -1 : a > b ? 1 : 0);
  return [...requests].sort(
    (a, b) => compare(of(a), of(b)) || compare(a.startedAt, b.startedAt) || compare(a.key, b.key),
  );
}

/**
 * Puts one request in a place, counted from 1; the others keep their order around it. All of them have a place then,
 * so that one that comes later stands behind them.
 * @returns the keys in their order; the first has place 1
 */
export function putInPlace(requests: readonly Ranked[], key: string, place: number): string[] {
  const others = rank(requests)
    .map((each) => each.key)
    .filter((each) => each !== key);
  const at = Math.min(Math.max(Math.round(place), 1), others.length + 1) - 1;
  return [...others.slice(0, at), key, ...others.slice(at)];
}
