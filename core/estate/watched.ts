import { checkKnown, Faults } from './check';
import { Falling, Network } from './network';
import type { Need } from './types';

/** What a watched thing hangs on, itself among it, in the order of things; and how it falls. */
export type Below = { network: Network; falling: Falling; watched: number };

/** The part of an estate that a thing hangs on. @throws BadEstate */
export function partBelow(
  things: string[],
  needs: Need[],
  watched: string,
  check?: (faults: Faults) => void,
): Below {
  const faults = new Faults();
  const whole = new Network(things, needs, faults);
  checkKnown(whole, [watched], faults);
  check?.(faults);
  faults.throwIfAny();
  const isBelow = new Set(whole.idsOf(whole.below([whole.indexOf.get(watched)!])));
  const network = new Network(
    things.filter((id) => isBelow.has(id)),
    needs.filter(({ thing, atLeast }) => atLeast > 0 && isBelow.has(thing)),
    faults,
  );
  return { network, falling: new Falling(network), watched: network.indexOf.get(watched)! };
}
