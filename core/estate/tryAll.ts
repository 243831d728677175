import { Faults } from './check';
import { Falling, Network } from './network';
import type { Structure } from './structure';

/** The parts that may fail or not. */
export const listUncertain = ({ parts }: Structure): number[] =>
  [...parts].filter(([, { own }]) => own > 0 && own < 1).map(([place]) => place);

/**
 * The chance that the root is up, by trying for each uncertain part that it fails and that it does not. A branch ends
 * as soon as the root is down whatever else holds, or up whatever else fails. Rings are no matter here.
 * @param most so many branches are looked at
 * @returns null where there are more
 */
export function tryAll(structure: Structure, most = Infinity): number | null {
  const { parts, root } = structure;
  const places = [...parts.keys()];
  const network = new Network(
    places.map(String),
    [...parts].flatMap(([place, { needs }]) =>
      needs.map(({ atLeast, parts: of }) => ({ thing: `${place}`, atLeast, of: of.map(String) })),
    ),
    new Faults(),
  );
  const falling = new Falling(network);
  const at = new Map(places.map((place, i) => [place, i]));
  const watched = at.get(root)!;
  const uncertain = listUncertain(structure).map((place) => ({
    place: at.get(place)!,
    own: parts.get(place)!.own,
  }));
  const isUpAnyway = (from: number): boolean => {
    const mark = falling.fallen.length;
    falling.fail(uncertain.slice(from).map(({ place }) => place));
    const isUp = !falling.isDown[watched];
    falling.takeBack(mark);
    return isUp;
  };
  let branches = 0;
  const chanceFrom = (i: number): number => {
    if (++branches > most) return 0;
    if (falling.isDown[watched]) return 0;
    if (isUpAnyway(i)) return 1;
    const { place, own } = uncertain[i]!;
    const ifUp = chanceFrom(i + 1);
    const mark = falling.fallen.length;
    falling.fail([place]);
    const ifFailed = chanceFrom(i + 1);
    falling.takeBack(mark);
    return own * ifUp + (1 - own) * ifFailed;
  };
  const chance = chanceFrom(0);
  return branches > most ? null : chance;
}
