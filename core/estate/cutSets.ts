import { TooEntangled } from './errors';
import type { Need } from './types';
import { partBelow, type Below } from './watched';

const MOST_SETS = 2 ** 20;

const countSets = (n: number, size: number): number =>
  size === 1 ? n : size === 2 ? (n * (n - 1)) / 2 : (n * (n - 1) * (n - 2)) / 6;

/**
 * Which of the candidates, failing beside what is down already, take the watched thing down. What fell with one that
 * does not take it down cannot either; what takes down one that does, does too: so hardly anything falls twice.
 */
function findFatal({ network, falling, watched }: Below, candidates: number[]): Uint8Array {
  const isFatal = new Uint8Array(network.size);
  const isHarmless = new Uint8Array(network.size);
  const mark = falling.fallen.length;
  for (const place of candidates) {
    if (isHarmless[place] || falling.isDown[place]) continue;
    const isDown = falling.fail([place], (each) => each === watched || isFatal[each] === 1);
    if (isDown) isFatal[place] = 1;
    else for (let at = mark; at < falling.fallen.length; at++) isHarmless[falling.fallen[at]!] = 1;
    falling.takeBack(mark);
  }
  return isFatal;
}

/** The places of single failures; the nearest are looked at first. */
function findLone(below: Below): number[] {
  const { network, watched } = below;
  const others = network.below([watched]).slice(1);
  const isFatal = findFatal(below, others);
  return others.filter((place) => isFatal[place]).sort((a, b) => a - b);
}

/**
 * Single points of failure: every other thing whose failure alone takes the watched one down, in the order of things.
 * None where it is down with nothing failed.
 * @throws BadEstate
 */
export function loneFailures(things: string[], needs: Need[], watched: string): string[] {
  const below = partBelow(things, needs, watched);
  if (below.falling.isDown[below.watched]) return [];
  return below.network.idsOf(findLone(below));
}

/** Minimal sets of two and of three among the candidates, none of which takes the watched thing down alone. */
class Sets {
  private readonly pairs = new Set<number>();
  readonly found: number[][] = [];

  constructor(
    private readonly below: Below,
    private readonly candidates: number[],
  ) {}

  private isPair(a: number, b: number): boolean {
    return this.pairs.has(a * this.below.network.size + b);
  }

  /** Those after `from` in the order of candidates that complete what is down to a set. */
  private complete(
    from: number,
    take: (place: number) => void,
    mayComplete: (place: number) => boolean,
  ): void {
    const rest = this.candidates.slice(from).filter(mayComplete);
    const isFatal = findFatal(this.below, rest);
    for (const place of rest) if (isFatal[place]) take(place);
  }

  findPairs(): void {
    const { falling, network } = this.below;
    this.candidates.forEach((a, i) => {
      falling.fail([a]);
      const take = (b: number): void => {
        this.pairs.add(a * network.size + b);
        this.found.push([a, b]);
      };
      this.complete(i + 1, take, () => true);
      falling.takeBack(falling.base);
    });
  }

  findTriples(): void {
    const { falling } = this.below;
    const { candidates } = this;
    candidates.forEach((a, i) => {
      for (let j = i + 1; j < candidates.length; j++) {
        const b = candidates[j]!;
        if (this.isPair(a, b)) continue;
        falling.fail([a, b]);
        const isNew = (c: number): boolean => !this.isPair(a, c) && !this.isPair(b, c);
        this.complete(j + 1, (c) => this.found.push([a, b, c]), isNew);
        falling.takeBack(falling.base);
      }
    });
  }
}

/**
 * The minimal sets of at most `upTo` other things that take the watched one down together, by size and then by the
 * order of things; `[[]]` where it is down with nothing failed.
 * @throws BadEstate; TooEntangled, before it begins, where more than 2^20 sets of one size would have to be tried
 */
export function cutSets(things: string[], needs: Need[], watched: string, upTo: 1 | 2 | 3): string[][] {
  const below = partBelow(things, needs, watched);
  const { network, falling } = below;
  if (falling.isDown[below.watched]) return [[]];
  const all = network.size - 1;
  if (countSets(all, 1) > MOST_SETS) throw new TooEntangled(watched);
  const lone = findLone(below);
  const isLone = new Set(lone);
  const candidates = [...network.things.keys()].filter(
    (place) => place !== below.watched && !isLone.has(place) && !falling.isDown[place],
  );
  const sets = new Sets(below, candidates);
  for (let size = 2; size <= upTo; size++) {
    if (countSets(candidates.length, size) > MOST_SETS) throw new TooEntangled(watched);
    if (size === 2) sets.findPairs();
    else sets.findTriples();
  }
  const found = [...lone.map((place) => [place]), ...sets.found];
  return found.map((set) => set.map((place) => network.things[place]!));
}
