import { Conditioning } from './condition';
import { TooEntangled } from './errors';
import { Structure } from './structure';
import { listUncertain, tryAll } from './tryAll';
import type { Need } from './types';
import { partBelow } from './watched';

/** So many uncertain parts are tried out in full. */
const MOST_TRIED = 20;
/** Of more, so many branches: a few seconds. */
const MOST_BRANCHES = 2 ** 21;

/**
 * The chance that the watched thing is not down, when each thing fails by itself, independently, with chance 1 − own[id]
 * (absent: never). Exact, by conditioning on what is shared; series, parallel and k-of-n structures agree with the
 * formulas of reliability engineering (IEC 61078).
 * @throws BadEstate; TooEntangled where an exact answer would take too long
 * @example availability(['shop', 'a', 'b'], [{ thing: 'shop', atLeast: 1, of: ['a', 'b'] }], 'shop', { a: 0.9, b: 0.8 }) // 0.98
 */
export function availability(
  things: string[],
  needs: Need[],
  watched: string,
  own: Record<string, number>,
): number {
  const chanceOf = (id: string): number => (Object.hasOwn(own, id) ? own[id]! : 1);
  const below = partBelow(things, needs, watched, (faults) => {
    for (const id of things) if (!(chanceOf(id) >= 0 && chanceOf(id) <= 1)) faults.add('chance', id);
  });
  const structure = new Structure(below, (place) => chanceOf(below.network.things[place]!));
  if (structure.sure !== null) return structure.sure;
  const order = structure.order();
  const isFew = listUncertain(structure).length <= MOST_TRIED;
  if (isFew || !order) {
    // In a ring what is shared cannot be conditioned on one after the other; with luck few branches are enough.
    const chance = tryAll(structure, isFew ? Infinity : MOST_BRANCHES);
    if (chance === null) throw new TooEntangled(watched);
    return chance;
  }
  return new Conditioning(structure, order, watched).chance();
}
