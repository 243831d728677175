import { Falling, Network } from './network';
import type { Below } from './watched';

/** So many of the parts, by their places, must be up. */
export type PartNeed = { atLeast: number; parts: number[] };
/** A part of a structure: the chance that it does not fail by itself, and what it needs besides. */
export type Part = { own: number; needs: PartNeed[] };

/** The chance that at least so many of independent parts are up. */
export function chanceOfAtLeast(atLeast: number, chances: number[]): number {
  const counts = countsOf(chances, atLeast);
  return counts[atLeast]!;
}

/** The chances of 0, 1, … parts being up; `cap` and more are one. */
export function countsOf(chances: number[], cap: number, begin: number[] = [1]): number[] {
  let counts = [...begin, ...Array<number>(Math.max(0, cap + 1 - begin.length)).fill(0)];
  for (const chance of chances) {
    const next = Array<number>(cap + 1).fill(0);
    counts.forEach((have, count) => {
      next[count]! += have * (1 - chance);
      next[Math.min(cap, count + 1)]! += have * chance;
    });
    counts = next;
  }
  return counts;
}

/**
 * What a watched thing hangs on, made as small as it can be without changing how often it is up: what is surely up or
 * down is gone; what only one thing must have is part of that thing; alternatives that nothing else uses are one chance.
 * A thing that comes round to itself counts as up there, since things in a ring hold each other up.
 */
export class Structure {
  readonly root: number;
  readonly parts = new Map<number, Part>();
  /** How many needs each part is in, and which parts have them. */
  private readonly users = new Map<number, Map<number, number>>();
  /** 0 or 1 where nothing is uncertain. */
  readonly sure: 0 | 1 | null;

  constructor({ network, falling, watched }: Below, own: (place: number) => number) {
    this.root = watched;
    const places = [...network.things.keys()];
    falling.fail(places.filter((place) => own(place) === 0));
    const worst = new Falling(network);
    worst.fail(places.filter((place) => own(place) < 1 || falling.isDown[place]));
    this.sure = falling.isDown[watched] ? 0 : worst.isDown[watched] ? null : 1;
    if (this.sure !== null) return;
    const reached = [watched];
    for (const place of reached) {
      if (this.parts.has(place)) continue;
      const needs = this.openNeeds(network, place, { down: falling.isDown, worst: worst.isDown });
      this.parts.set(place, { own: own(place), needs });
      for (const { parts } of needs) reached.push(...parts);
    }
    for (const [place, { needs }] of this.parts) for (const need of needs) this.use(place, need, 1);
    this.reduce();
  }

  /** What a thing still needs once all that is sure is known. */
  private openNeeds(
    { needsOf, members, atLeast }: Network,
    place: number,
    { down, worst }: { down: Uint8Array; worst: Uint8Array },
  ): PartNeed[] {
    const open: PartNeed[] = [];
    for (let n = needsOf.start[place]!; n < needsOf.start[place + 1]!; n++) {
      const need = needsOf.items[n]!;
      const all = [...members.items.subarray(members.start[need], members.start[need + 1])];
      const isSure = (each: number): boolean => !worst[each] || each === this.root;
      const wanted = atLeast[need]! - all.filter(isSure).length;
      if (wanted > 0)
        open.push({ atLeast: wanted, parts: all.filter((each) => !isSure(each) && !down[each]) });
    }
    return open;
  }

  private use(user: number, { parts }: PartNeed, by: 1 | -1): void {
    for (const part of parts) {
      const users = this.users.get(part) ?? new Map<number, number>();
      this.users.set(part, users);
      const count = (users.get(user) ?? 0) + by;
      if (count > 0) users.set(user, count);
      else users.delete(user);
    }
  }

  /** In how many needs a part is. */
  usesOf(place: number): number {
    let count = 0;
    for (const each of this.users.get(place)?.values() ?? []) count += each;
    return count;
  }

  isShared = (place: number): boolean => this.usesOf(place) > 1;
  isLeaf = (place: number): boolean => this.parts.get(place)!.needs.length === 0;

  /** Makes parts simpler, from below where one comes of another, until none can be. */
  private reduce(): void {
    const waiting = new Set([...this.parts.keys()].reverse());
    for (const place of waiting) {
      waiting.delete(place);
      const part = this.parts.get(place);
      if (!part) continue;
      const before = part.needs.length;
      const touched = this.simplify(place, part);
      for (const each of touched) for (const user of this.users.get(each)?.keys() ?? []) waiting.add(user);
      if (touched.length > 0 || part.needs.length !== before)
        for (const user of this.users.get(place)?.keys() ?? []) waiting.add(user);
    }
  }

  /** @returns the parts that are used otherwise than before */
  private simplify(place: number, part: Part): number[] {
    const touched: number[] = [];
    const open = part.needs;
    part.needs = [];
    const musts = new Set<number>();
    for (let need = open.pop(); need; need = open.pop()) {
      const { parts, atLeast } = need;
      const isItself = parts.includes(place);
      if (isItself || (atLeast === parts.length && parts.length > 1)) {
        this.use(place, need, -1);
        const others = parts.filter((each) => each !== place);
        const split: PartNeed[] =
          atLeast === parts.length
            ? others.map((each) => ({ atLeast: 1, parts: [each] }))
            : [{ atLeast: atLeast - 1, parts: others }].filter((each) => each.atLeast > 0);
        for (const each of split) this.use(place, each, 1);
        open.push(...split);
        touched.push(...parts);
      } else if (parts.length === 1 && musts.has(parts[0]!)) {
        this.use(place, need, -1);
        touched.push(...parts);
      } else if (parts.length === 1 && !this.isShared(parts[0]!)) {
        const [only] = parts as [number];
        const { own, needs } = this.parts.get(only)!;
        this.use(place, need, -1);
        this.parts.delete(only);
        part.own *= own;
        for (const each of needs) {
          this.use(only, each, -1);
          this.use(place, each, 1);
          touched.push(...each.parts);
        }
        open.push(...needs);
      } else if (parts.every((each) => this.isLeaf(each) && !this.isShared(each))) {
        part.own *= chanceOfAtLeast(
          atLeast,
          parts.map((each) => this.parts.get(each)!.own),
        );
        this.use(place, need, -1);
        for (const each of parts) this.parts.delete(each);
      } else {
        if (parts.length === 1) musts.add(parts[0]!);
        part.needs.push(need);
      }
    }
    return touched;
  }

  /** Puts a chance in the place of a part and of all below it. */
  replace(place: number, chance: number): void {
    const part = this.parts.get(place)!;
    for (const need of part.needs) this.use(place, need, -1);
    this.parts.set(place, { own: chance, needs: [] });
  }

  /** All that a part hangs on, without itself. */
  below(place: number): Set<number> {
    const found = new Set<number>();
    const open = [place];
    for (let each = open.pop(); each !== undefined; each = open.pop())
      for (const { parts } of this.parts.get(each)!.needs)
        for (const part of parts)
          if (!found.has(part)) {
            found.add(part);
            open.push(part);
          }
    return found;
  }

  /** Whether nothing outside uses what is below a part. */
  isClosed(place: number, below: Set<number>): boolean {
    for (const each of below)
      for (const user of this.users.get(each)!.keys()) if (user !== place && !below.has(user)) return false;
    return true;
  }

  /** Parts from below upwards; null where something comes round to itself. */
  order(): number[] | null {
    const state = new Map<number, 'open' | 'done'>();
    const order: number[] = [];
    const stack: { place: number; next: number[] }[] = [];
    const enter = (place: number): boolean => {
      if (state.get(place) === 'done') return true;
      if (state.has(place)) return false;
      state.set(place, 'open');
      stack.push({ place, next: this.parts.get(place)!.needs.flatMap(({ parts }) => parts) });
      return true;
    };
    enter(this.root);
    while (stack.length > 0) {
      const top = stack.at(-1)!;
      const next = top.next.pop();
      if (next !== undefined) {
        if (!enter(next)) return null;
      } else {
        state.set(top.place, 'done');
        order.push(top.place);
        stack.pop();
      }
    }
    return order;
  }
}
