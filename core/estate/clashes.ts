import { checkKnown, checkPlanned, Faults } from './check';
import { Falling, Network } from './network';
import type { Clash, ClashKind, Freeze, Need, Work } from './types';

const KINDS: ClashKind[] = ['frozen', 'same', 'alone', 'together'];

type Stretch = { from: number; to: number };

/** The time that all have in common; null where there is none. */
export function overlapOf(stretches: Stretch[]): Stretch | null {
  const from = Math.max(...stretches.map((each) => each.from));
  const to = Math.min(...stretches.map((each) => each.to));
  return to > from ? { from, to } : null;
}

/** What works take down, alone and with others. Works are named by their places. */
export class Effects {
  private readonly falling: Falling;
  private readonly isWatched: Uint8Array;
  /** What each work takes out, and what it takes down with that. */
  readonly takesOut: Set<number>[];
  readonly down: Set<number>[];
  /** What two works take down that neither does, for those that do so. */
  private readonly byTwo = new Map<number, Set<number>>();

  constructor(
    private readonly network: Network,
    { watched, works }: { watched: string[]; works: Pick<Work, 'takesOut'>[] },
  ) {
    this.falling = new Falling(this.network);
    this.isWatched = new Uint8Array(this.network.size);
    for (const place of this.network.placesOf(watched)) this.isWatched[place] = 1;
    this.takesOut = works.map(({ takesOut }) => new Set(this.network.placesOf(takesOut)));
    this.down = this.takesOut.map((places) => new Set([...places, ...this.fallBy(places)]));
  }

  idsOf(places: Iterable<number>): string[] {
    return this.network.idsOf(places);
  }

  placesOf(ids: string[]): number[] {
    return this.network.placesOf(ids);
  }

  /** What falls when some things fail, without what is down anyway. */
  private fallBy(places: Iterable<number>): number[] {
    const { falling } = this;
    falling.fail(places);
    const fallen = falling.fallen.slice(falling.base);
    falling.takeBack(falling.base);
    return fallen;
  }

  private watchedOf(places: Iterable<number>): number[] {
    return [...places].filter((place) => this.isWatched[place]);
  }

  /** The watched things that a work takes down by itself, without what it takes out. */
  aloneBy(work: number): number[] {
    const isDownAnyway = (place: number): boolean => this.falling.isDown[place] === 1;
    return this.watchedOf(this.down[work]!).filter(
      (place) => !this.takesOut[work]!.has(place) && !isDownAnyway(place),
    );
  }

  private key(a: number, b: number): number {
    return Math.min(a, b) * this.down.length + Math.max(a, b);
  }

  /**
   * Pairs and triples of works of which something falls that falls by no smaller part of them: only those are tried
   * that take members from one need, and together enough of them that it is unmet.
   */
  findTogether(
    areTogether: (works: number[]) => boolean,
    found: (works: number[], watched: number[]) => void,
  ): void {
    const touched = this.touchedBy(this.down.map((places, work) => ({ works: [work], places })));
    this.eachUnmet(touched, 2, areTogether, ([a, b]) => {
      const both = this.fallBy([...this.takesOut[a!]!, ...this.takesOut[b!]!]);
      const more = both.filter((place) => !this.down[a!]!.has(place) && !this.down[b!]!.has(place));
      this.byTwo.set(this.key(a!, b!), new Set(more));
      const watched = this.watchedOf(more);
      if (watched.length > 0) found([a!, b!], watched);
    });
    const pairs = [...this.byTwo].map(([key, places]) => ({
      works: [Math.floor(key / this.down.length), key % this.down.length],
      places,
    }));
    for (const [need, touchers] of this.touchedBy(pairs))
      touched.set(need, [...(touched.get(need) ?? []), ...touchers]);
    this.eachUnmet(touched, 3, areTogether, (works) => {
      const all = this.fallBy(works.flatMap((work) => [...this.takesOut[work]!]));
      const [a, b, c] = works as [number, number, number];
      const smaller = [
        ...works.map((work) => this.down[work]!),
        ...[this.key(a, b), this.key(a, c), this.key(b, c)].map((key) => this.byTwo.get(key) ?? new Set()),
      ];
      const watched = this.watchedOf(all.filter((place) => !smaller.some((places) => places.has(place))));
      if (watched.length > 0) found(works, watched);
    });
  }

  /** Which needs lose members by which works, and which members. */
  private touchedBy(
    all: { works: number[]; places: Set<number> }[],
  ): Map<number, { works: number[]; lost: number[] }[]> {
    const { usedBy, thingOf } = this.network;
    const touched = new Map<number, { works: number[]; lost: number[] }[]>();
    for (const { works, places } of all) {
      const own = new Map<number, number[]>();
      for (const place of places) {
        if (this.falling.isDown[place]) continue;
        for (let u = usedBy.start[place]!; u < usedBy.start[place + 1]!; u++) {
          const need = usedBy.items[u]!;
          if (places.has(thingOf[need]!) || this.falling.isDown[thingOf[need]!]) continue;
          own.set(need, [...(own.get(need) ?? []), place]);
        }
      }
      for (const [need, lost] of own) {
        const touchers = touched.get(need);
        if (touchers) touchers.push({ works, lost });
        else touched.set(need, [{ works, lost }]);
      }
    }
    return touched;
  }

  /** Goes once through every set of so many works, going on together, that leave some need unmet. */
  private eachUnmet(
    touched: Map<number, { works: number[]; lost: number[] }[]>,
    size: 2 | 3,
    areTogether: (works: number[]) => boolean,
    take: (works: number[]) => void,
  ): void {
    const seen = new Set<string>();
    const { left } = this.falling;
    const { atLeast } = this.network;
    for (const [need, touchers] of touched) {
      const spare = left[need]! - atLeast[need]!;
      const isUnmet = (chosen: { lost: number[] }[]): boolean =>
        chosen.reduce((sum, { lost }) => sum + lost.length, 0) > spare &&
        new Set(chosen.flatMap(({ lost }) => lost)).size > spare;
      const choose = (from: number, chosen: typeof touchers, works: number[]): void => {
        if (works.length === size && chosen.length > 1) {
          const key = works.join();
          if (!seen.has(key) && isUnmet(this.completed(need, works, touched, chosen))) {
            seen.add(key);
            take(works);
          }
        }
        for (let i = from; i < touchers.length; i++) {
          const next = [...new Set([...works, ...touchers[i]!.works])].sort((a, b) => a - b);
          if (next.length > size || next.length === works.length || !areTogether(next)) continue;
          choose(i + 1, [...chosen, touchers[i]!], next);
        }
      };
      choose(0, [], []);
    }
  }

  /** All that lose members of a need by these works or by two of them. */
  private completed(
    need: number,
    works: number[],
    touched: Map<number, { works: number[]; lost: number[] }[]>,
    chosen: { lost: number[] }[],
  ): { lost: number[] }[] {
    if (works.length < 3) return chosen;
    return touched.get(need)!.filter((each) => each.works.every((work) => works.includes(work)));
  }
}

/** Which stretch a freeze takes of a work, and what of it is frozen; null where they do not meet. */
export function frozenBy(
  freeze: Freeze,
  work: Work,
  { down, takesOut, effects }: { down: Set<number>; takesOut: Set<number>; effects: Effects },
): { stretch: Stretch; things: number[] } | null {
  const stretch = overlapOf([freeze, work]);
  if (!stretch) return null;
  if (freeze.things === null) return { stretch, things: [...takesOut] };
  const things = effects.placesOf(freeze.things).filter((place) => down.has(place));
  return things.length > 0 ? { stretch, things } : null;
}

/**
 * What planned works do to each other and to freezes, in the order of their beginnings, then by kind (frozen, same,
 * alone, together), then by the places of their works and of the freeze.
 * @throws BadEstate
 */
export function findClashes(
  things: string[],
  needs: Need[],
  watched: string[],
  works: Work[],
  freezes: Freeze[],
): Clash[] {
  const faults = new Faults();
  const network = new Network(things, needs, faults);
  checkKnown(network, watched, faults);
  checkPlanned(network, { works, freezes }, faults);
  faults.throwIfAny();
  const effects = new Effects(network, { watched, works });
  const clashes: (Clash & { at: number[] })[] = [];
  const add = (
    kind: ClashKind,
    at: number[],
    { stretch, places, freeze }: { stretch: Stretch; places: Iterable<number>; freeze?: number },
  ): void => {
    clashes.push({
      ...{ kind, works: at.map((i) => works[i]!.id), things: effects.idsOf(places), ...stretch },
      ...(freeze !== undefined && { freeze: freezes[freeze]!.id }),
      at: [...at, ...(freeze === undefined ? [] : [freeze])],
    });
  };
  works.forEach((work, i) => {
    const { from, to } = work;
    const [down, takesOut] = [effects.down[i]!, effects.takesOut[i]!];
    freezes.forEach((freeze, f) => {
      const frozen = frozenBy(freeze, work, { down, takesOut, effects });
      if (frozen) add('frozen', [i], { stretch: frozen.stretch, places: frozen.things, freeze: f });
    });
    for (let j = i + 1; j < works.length; j++) {
      const stretch = overlapOf([work, works[j]!]);
      const shared = stretch ? [...takesOut].filter((place) => effects.takesOut[j]!.has(place)) : [];
      if (stretch && shared.length > 0) add('same', [i, j], { stretch, places: shared });
    }
    const alone = effects.aloneBy(i);
    if (alone.length > 0) add('alone', [i], { stretch: { from, to }, places: alone });
  });
  const stretchOf = (at: number[]): Stretch | null => overlapOf(at.map((i) => works[i]!));
  effects.findTogether(
    (at) => stretchOf(at) !== null,
    (at, places) => add('together', at, { stretch: stretchOf(at)!, places }),
  );
  return clashes.sort(inOrder).map(({ at: _, ...clash }) => clash);
}

function inOrder(a: Clash & { at: number[] }, b: Clash & { at: number[] }): number {
  if (a.from !== b.from) return a.from - b.from;
  if (a.kind !== b.kind) return KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind);
  for (let i = 0; i < Math.min(a.at.length, b.at.length); i++)
    if (a.at[i] !== b.at[i]) return a.at[i]! - b.at[i]!;
  return a.at.length - b.at.length;
}
