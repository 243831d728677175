import { TooEntangled } from './errors';
import { countsOf, type Part, type Structure } from './structure';

/** So many shared parts are always conditioned on; more, as long as it is not too much work. */
const ALWAYS_SHARED = 20;
const MOST_STEPS = 2e8;
const MOST_COUNTS = 200_000;

/** A need made ready: the chances of so many and more of what is independent, and the parts whose chance changes. */
type ReadyNeed = { atLeast: number; tail: number[]; varying: number[] };
type Step = { place: number; own: number; needs: ReadyNeed[]; isShared: boolean };

/** What a group brings to the needs of a part: the chance of each tuple of counts, one count a need. */
type Joint = { needs: number[]; chances: Map<string, number> };

const keyOf = (counts: number[]): string => counts.join();

/** The chance that a part's needs are met, where what is shared is known or its chance stands in `values`. */
function chanceOf(needs: ReadyNeed[], values: Map<number, number>): number {
  let chance = 1;
  for (const { atLeast, tail, varying } of needs) {
    const counts = countsOf(
      varying.map((place) => values.get(place)!),
      varying.length,
    );
    let met = 0;
    counts.forEach((have, count) => (met += have * (tail[Math.max(0, atLeast - count)] ?? 0)));
    chance *= met;
  }
  return chance;
}

function ready(structure: Structure, { needs }: Part): ReadyNeed[] {
  return needs.map(({ atLeast, parts }) => {
    const isFixed = (place: number): boolean => structure.isLeaf(place) && !structure.isShared(place);
    const fixed = parts.filter(isFixed).map((place) => structure.parts.get(place)!.own);
    const counts = countsOf(fixed, fixed.length);
    const tail = [...counts];
    for (let i = tail.length - 2; i >= 0; i--) tail[i]! += tail[i + 1]!;
    tail[0] = 1;
    return { atLeast, tail, varying: parts.filter((place) => !isFixed(place)) };
  });
}

/** Puts the parts of needs together that hang together through what they share. */
function groupBy<T>(
  items: T[],
  sharedOf: (item: T) => Iterable<number>,
): { items: T[]; shared: Set<number> }[] {
  let groups: { items: T[]; shared: Set<number> }[] = [];
  for (const item of items) {
    const shared = new Set(sharedOf(item));
    const isTouched = (group: { shared: Set<number> }): boolean =>
      [...shared].some((each) => group.shared.has(each));
    const touched = groups.filter(isTouched);
    groups = groups.filter((group) => !touched.includes(group));
    groups.push({
      items: [...touched.flatMap((group) => group.items), item],
      shared: new Set([...touched.flatMap((group) => [...group.shared]), ...shared]),
    });
  }
  return groups;
}

/** Exact chances in a structure without rings: each closed part for itself, conditioned on what is shared within it. */
export class Conditioning {
  private readonly rank: Map<number, number>;
  private steps = 0;

  constructor(
    private readonly structure: Structure,
    private readonly order: number[],
    private readonly watched: string,
  ) {
    this.rank = new Map(order.map((place, i) => [place, i]));
  }

  /** The chance that the root is up. @throws TooEntangled */
  chance(): number {
    const { structure } = this;
    for (const place of this.order) {
      if (structure.isLeaf(place)) continue;
      const below = structure.below(place);
      if (place === structure.root || structure.isClosed(place, below))
        structure.replace(place, this.chanceOfClosed(place));
    }
    return structure.parts.get(structure.root)!.own;
  }

  private sharedBelow(place: number): Set<number> {
    const { structure } = this;
    const shared = [...structure.below(place)].filter(structure.isShared);
    return new Set(structure.isShared(place) ? [place, ...shared] : shared);
  }

  private chanceOfClosed(place: number): number {
    const { structure } = this;
    const { own, needs } = structure.parts.get(place)!;
    const members = [...new Set(needs.flatMap(({ parts }) => parts))];
    const joints = groupBy(members, (each) => this.sharedBelow(each)).map((group) =>
      this.jointOf(place, group),
    );
    return (
      own *
      this.combine(
        needs.map(({ atLeast }) => atLeast),
        joints,
      )
    );
  }

  /** The counts that a group brings to the needs of a part, over all that its shared parts can be. */
  private jointOf(place: number, { items, shared }: { items: number[]; shared: Set<number> }): Joint {
    const { structure } = this;
    const all = structure.parts.get(place)!.needs;
    const needs = [...all.keys()].filter((n) => all[n]!.parts.some((each) => items.includes(each)));
    const caps = needs.map((n) => all[n]!.atLeast);
    const isIn = items.map((each) => needs.map((n) => all[n]!.parts.includes(each)));
    const program = this.programOf(items);
    this.requireWork(shared.size, program.length + items.length * needs.length);
    const chances = new Map<string, number>();
    const values = new Map<number, number>();
    const run = (at: number, weight: number): void => {
      if (weight === 0) return;
      const step = program[at];
      if (!step) {
        let counts = new Map<string, number[]>([[keyOf(caps.map(() => 0)), [weight, ...caps.map(() => 0)]]]);
        items.forEach((each, i) => (counts = countIn(counts, values.get(each)!, { caps, isIn: isIn[i]! })));
        for (const [key, [chance]] of counts) chances.set(key, (chances.get(key) ?? 0) + chance!);
        return;
      }
      const chance = step.own * chanceOf(step.needs, values);
      if (!step.isShared) {
        values.set(step.place, chance);
        run(at + 1, weight);
        return;
      }
      for (const isUp of [1, 0]) {
        values.set(step.place, isUp);
        run(at + 1, weight * (isUp ? chance : 1 - chance));
      }
    };
    run(0, 1);
    return { needs, chances };
  }

  /** What has to be worked out for a group, from below. */
  private programOf(items: number[]): Step[] {
    const { structure, rank } = this;
    const places = new Set(items.flatMap((each) => [each, ...structure.below(each)]));
    return [...places]
      .filter((place) => items.includes(place) || structure.isShared(place) || !structure.isLeaf(place))
      .sort((a, b) => rank.get(a)! - rank.get(b)!)
      .map((place) => {
        const part = structure.parts.get(place)!;
        return { place, own: part.own, needs: ready(structure, part), isShared: structure.isShared(place) };
      });
  }

  private requireWork(shared: number, length: number): void {
    this.steps += 2 ** shared * length;
    if (shared > ALWAYS_SHARED && this.steps > MOST_STEPS) throw new TooEntangled(this.watched);
  }

  /** The chance that every need is met; needs that no further group touches are asked at once. */
  private combine(atLeast: number[], joints: Joint[]): number {
    let chance = 1;
    for (const { items } of groupBy(joints, ({ needs }) => needs)) {
      let active: Joint = { needs: [], chances: new Map([['', 1]]) };
      items.forEach((joint, i) => {
        const later = new Set(items.slice(i + 1).flatMap(({ needs }) => needs));
        active = this.merge(active, joint, { atLeast, later });
      });
      for (const each of active.chances.values()) chance *= each;
      if (active.chances.size === 0) return 0;
    }
    return chance;
  }

  private merge(a: Joint, b: Joint, { atLeast, later }: { atLeast: number[]; later: Set<number> }): Joint {
    const all = [...new Set([...a.needs, ...b.needs])];
    const kept = all.filter((need) => later.has(need));
    const chances = new Map<string, number>();
    if (a.chances.size * b.chances.size > MOST_COUNTS * 100) throw new TooEntangled(this.watched);
    const countsIn = ({ needs }: Joint, key: string): Map<number, number> => {
      const counts = key.split(',').map(Number);
      return new Map(needs.map((need, i) => [need, counts[i]!]));
    };
    const right = [...b.chances].map(([key, chance]) => ({ counts: countsIn(b, key), chance }));
    for (const [key, chance] of a.chances) {
      const left = countsIn(a, key);
      for (const other of right) {
        const countOf = (need: number): number =>
          Math.min(atLeast[need]!, (left.get(need) ?? 0) + (other.counts.get(need) ?? 0));
        if (all.some((need) => !later.has(need) && countOf(need) < atLeast[need]!)) continue;
        const merged = keyOf(kept.map(countOf));
        chances.set(merged, (chances.get(merged) ?? 0) + chance * other.chance);
      }
    }
    return { needs: kept, chances };
  }
}

/** Counts a part that is up with a chance in the needs that it is in. Each entry is its chance, then the counts. */
function countIn(
  counts: Map<string, number[]>,
  value: number,
  { caps, isIn }: { caps: number[]; isIn: boolean[] },
): Map<string, number[]> {
  const next = new Map<string, number[]>();
  const put = (chance: number, tuple: number[]): void => {
    if (chance === 0) return;
    const key = keyOf(tuple);
    const found = next.get(key);
    if (found) found[0]! += chance;
    else next.set(key, [chance, ...tuple]);
  };
  for (const [chance, ...tuple] of counts.values()) {
    put(chance! * (1 - value), tuple);
    put(
      chance! * value,
      tuple.map((count, i) => Math.min(caps[i]!, count + (isIn[i] ? 1 : 0))),
    );
  }
  return next;
}
