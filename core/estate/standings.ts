import { checkKnown, Faults } from './check';
import { Network } from './network';
import type { Need, Standing, Stands } from './types';

/** The round in which each thing goes down, -1 where it does not: round by round, each takes down all that it can at once. */
function findRounds(network: Network, failed: number[]): { fell: Int32Array; left: Int32Array } {
  const { members, usedBy, thingOf, atLeast } = network;
  const fell = new Int32Array(network.size).fill(-1);
  const left = Int32Array.from(atLeast, (_, need) => members.start[need + 1]! - members.start[need]!);
  let last = failed;
  for (const place of failed) fell[place] = 0;
  for (let round = 1; round === 1 || last.length > 0; round++) {
    const next: number[] = [];
    const put = (place: number): void => {
      if (fell[place] !== -1) return;
      fell[place] = round;
      next.push(place);
    };
    if (round === 1)
      for (let need = 0; need < left.length; need++) if (left[need]! < atLeast[need]!) put(thingOf[need]!);
    for (const place of last)
      for (let u = usedBy.start[place]!; u < usedBy.start[place + 1]!; u++) {
        const need = usedBy.items[u]!;
        if (--left[need]! < atLeast[need]!) put(thingOf[need]!);
      }
    last = next;
  }
  return { fell, left };
}

/** What is not down and hangs on something that is down or weakened. */
function findWeakened({ usedBy, thingOf, size }: Network, fell: Int32Array): Uint8Array {
  const weakened = new Uint8Array(size);
  const reached: number[] = [];
  for (let place = 0; place < size; place++) if (fell[place] !== -1) reached.push(place);
  for (const place of reached)
    for (let u = usedBy.start[place]!; u < usedBy.start[place + 1]!; u++) {
      const thing = thingOf[usedBy.items[u]!]!;
      if (fell[thing] !== -1 || weakened[thing]) continue;
      weakened[thing] = 1;
      reached.push(thing);
    }
  return weakened;
}

/**
 * How each thing stands when some have failed: the least fixed point, so things in a ring do not take each other down by
 * themselves. Every thing is in the map, in the order given.
 * @throws BadEstate
 * @example standings(['shop', 'line'], [{ thing: 'shop', atLeast: 1, of: ['line'] }], ['line']).get('shop')
 *   // { standing: 'down', fell: 1, unmet: [0] }
 */
export function standings(things: string[], needs: Need[], failed: string[]): Map<string, Stands> {
  const faults = new Faults();
  const network = new Network(things, needs, faults);
  checkKnown(network, failed, faults);
  faults.throwIfAny();
  const { atLeast, needsOf } = network;
  const { fell, left } = findRounds(network, network.placesOf(failed));
  const weakened = findWeakened(network, fell);
  const stands = new Map<string, Stands>();
  things.forEach((id, place) => {
    const isDown = fell[place] !== -1;
    const standing: Standing = isDown ? 'down' : weakened[place] ? 'weakened' : 'up';
    const unmet: number[] = [];
    if (fell[place]! > 0)
      for (let n = needsOf.start[place]!; n < needsOf.start[place + 1]!; n++) {
        const need = needsOf.items[n]!;
        if (left[need]! < atLeast[need]!) unmet.push(need);
      }
    stands.set(id, { standing, fell: isDown ? fell[place]! : null, unmet });
  });
  return stands;
}
