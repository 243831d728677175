import { standings } from './standings';
import type { Need } from './types';

/** Needs as they are walked along: by their places among all, of whom they are and who is a member. */
export type NeedIndex = { ofThing: Map<string, number[]>; ofMember: Map<string, number[]> };

function put(map: Map<string, number[]>, key: string, place: number): void {
  const places = map.get(key);
  if (places) places.push(place);
  else map.set(key, [place]);
}

/** Makes needs ready to be walked along, both ways. */
export function indexNeeds(needs: readonly Need[]): NeedIndex {
  const index: NeedIndex = { ofThing: new Map(), ofMember: new Map() };
  needs.forEach(({ thing, of }, place) => {
    put(index.ofThing, thing, place);
    for (const member of of) put(index.ofMember, member, place);
  });
  return index;
}

/** What a network is walked along: its needs, with their index. */
export type Walked = { needs: readonly Need[]; index: NeedIndex };

/** Which way: to what a thing needs, or to those who need it. */
export type Direction = 'below' | 'above';

/**
 * What is reached from some things, the nearest first, themselves at distance 0.
 * @param most how many at the most; farther ones are left out
 */
export function reach(
  { needs, index }: Walked,
  from: readonly string[],
  { way, depth = Infinity, most = Infinity }: { way: Direction; depth?: number; most?: number },
): Map<string, number> {
  const found = new Map(from.map((id) => [id, 0]));
  const next = (id: string): string[] =>
    way === 'below'
      ? (index.ofThing.get(id) ?? []).flatMap((place) => needs[place]!.of)
      : (index.ofMember.get(id) ?? []).map((place) => needs[place]!.thing);
  // A map is gone through in the order in which it was filled, also while it grows: that is a walk in breadth.
  for (const [id, distance] of found) {
    if (distance >= depth) break;
    for (const other of next(id)) {
      if (found.size >= most) return found;
      if (!found.has(other)) found.set(other, distance + 1);
    }
  }
  return found;
}

/** What goes down, and what is weakened, with one more failure; what was so already is not counted. */
export type Fallen = { down: string[]; weakened: string[] };

type Standings = { base: ReadonlyMap<string, 'weakened' | 'down'>; isFailed(id: string): boolean };

/** What would fall if one more thing failed. */
export const fallsWith = (walked: Walked, id: string, standings: Standings): Fallen =>
  fallsWithAll(walked, [id], standings);

/**
 * What would fall if some more things failed together, without themselves, in the order of their distance. Only those who need it are looked at; how
 * the others stand is given.
 * @param base how all things stand as it is, those that stand whole may be left out
 * @param isFailed whether a thing has failed by itself
 */
export function fallsWithAll(walked: Walked, ids: readonly string[], { base, isFailed }: Standings): Fallen {
  const { needs, index } = walked;
  const above = [...reach(walked, ids, { way: 'above' }).keys()];
  const inside = new Set(above);
  const places = above.flatMap((thing) => index.ofThing.get(thing) ?? []);
  const outside = new Set(places.flatMap((place) => needs[place]!.of).filter((other) => !inside.has(other)));
  const failed = [
    ...ids,
    ...above.filter((other) => !ids.includes(other) && isFailed(other)),
    // Those outside do not hang on it: what is down of them stays down, and is as good as failed.
    ...[...outside].filter((other) => base.get(other) === 'down'),
  ];
  const stands = standings(
    [...above, ...outside],
    places.map((place) => needs[place]!),
    failed,
  );
  const isNew = (other: string, standing: 'weakened' | 'down'): boolean =>
    !ids.includes(other) && stands.get(other)!.standing === standing && base.get(other) !== standing;
  return {
    down: above.filter((other) => isNew(other, 'down')),
    weakened: above.filter((other) => isNew(other, 'weakened') && base.get(other) !== 'down'),
  };
}
