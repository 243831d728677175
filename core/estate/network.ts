import type { Faults } from './check';
import type { Need } from './types';

/** Lists in one flat array: those of i stand from `start[i]` to `start[i + 1]`. */
export type Lists = { start: Int32Array; items: Int32Array };

function invert(count: number, { start, items }: Lists): Lists {
  const inverted = { start: new Int32Array(count + 1), items: new Int32Array(items.length) };
  for (const item of items) inverted.start[item + 1]!++;
  for (let i = 0; i < count; i++) inverted.start[i + 1]! += inverted.start[i]!;
  const next = inverted.start.slice(0, count);
  for (let list = 0; list + 1 < start.length; list++)
    for (let at = start[list]!; at < start[list + 1]!; at++) inverted.items[next[items[at]!]!++] = list;
  return inverted;
}

/**
 * Things and needs by their places, so that what hangs on what is found by look-ups alone. What is wrong with them is
 * said to `faults`, in the same pass; then nothing may be asked of it.
 */
export class Network {
  readonly indexOf = new Map<string, number>();
  /** The thing that has a need, and how many of its members it must have. */
  readonly thingOf: Int32Array;
  readonly atLeast: Int32Array;
  /** The members of each need, the needs that each thing is a member of, the needs that each thing has. */
  readonly members: Lists;
  readonly usedBy: Lists;
  readonly needsOf: Lists;

  constructor(
    readonly things: string[],
    needs: Need[],
    faults: Faults,
  ) {
    this.nameThings(faults);
    this.thingOf = new Int32Array(needs.length);
    this.atLeast = new Int32Array(needs.length);
    this.members = this.readNeeds(needs, faults);
    this.usedBy = invert(things.length, this.members);
    const own = { start: Int32Array.from({ length: needs.length + 1 }, (_, i) => i), items: this.thingOf };
    this.needsOf = invert(things.length, own);
  }

  private nameThings(faults: Faults): void {
    const { things, indexOf } = this;
    for (let i = 0; i < things.length; i++) indexOf.set(things[i]!, i);
    if (indexOf.size === things.length) return;
    const seen = new Set<string>();
    for (const id of things) {
      if (seen.has(id)) faults.add('doubled', id);
      seen.add(id);
    }
  }

  /** The place of a thing; 0, and a fault, where there is none. */
  private placeOf(id: string, faults: Faults): number {
    const place = this.indexOf.get(id);
    if (place === undefined) faults.add('unknown', id);
    return place ?? 0;
  }

  private readNeeds(needs: Need[], faults: Faults): Lists {
    const members = {
      start: new Int32Array(needs.length + 1),
      items: new Int32Array(needs.reduce((sum, { of }) => sum + of.length, 0)),
    };
    let at = 0;
    for (let i = 0; i < needs.length; i++) {
      const { thing, atLeast, of } = needs[i]!;
      this.thingOf[i] = this.placeOf(thing, faults);
      if (!Number.isInteger(atLeast) || atLeast < 0) faults.add('atLeast', thing);
      // More than there are is as good as one more.
      this.atLeast[i] = Math.min(atLeast, of.length + 1);
      if (of.length > 1 && new Set(of).size < of.length)
        for (const id of of) if (of.indexOf(id) !== of.lastIndexOf(id)) faults.add('doubled', id);
      for (const id of of) {
        if (id === thing) faults.add('itself', id);
        members.items[at++] = this.placeOf(id, faults);
      }
      members.start[i + 1] = at;
    }
    return members;
  }

  get size(): number {
    return this.things.length;
  }

  /** Places of ids, each once, in the order of things. */
  placesOf(ids: Iterable<string>): number[] {
    return [...new Set([...ids].map((id) => this.indexOf.get(id)!))].sort((a, b) => a - b);
  }

  idsOf(places: Iterable<number>): string[] {
    return [...places].sort((a, b) => a - b).map((place) => this.things[place]!);
  }

  /** What some things hang on, themselves among it, the nearest first. */
  below(from: number[]): number[] {
    const seen = new Uint8Array(this.size);
    const found = [...from];
    for (const place of from) seen[place] = 1;
    for (const place of found)
      for (let n = this.needsOf.start[place]!; n < this.needsOf.start[place + 1]!; n++) {
        const need = this.needsOf.items[n]!;
        // What must be had none of takes nothing down.
        if (this.atLeast[need] === 0) continue;
        for (let m = this.members.start[need]!; m < this.members.start[need + 1]!; m++) {
          const member = this.members.items[m]!;
          if (seen[member]) continue;
          seen[member] = 1;
          found.push(member);
        }
      }
    return found;
  }
}

/**
 * What is down, thing after thing as they fail; what fell last can be taken back. Each thing that falls is looked at
 * once, so a failure costs as much as what it takes down.
 */
export class Falling {
  readonly isDown: Uint8Array;
  /** Members of each need that are not down. */
  readonly left: Int32Array;
  /** What is down, in the order in which it fell. */
  readonly fallen: number[] = [];
  /** How much is down with nothing failed. */
  readonly base: number;

  constructor(private readonly network: Network) {
    const { members, atLeast, thingOf, size } = network;
    this.isDown = new Uint8Array(size);
    this.left = new Int32Array(atLeast.length);
    for (let need = 0; need < atLeast.length; need++)
      this.left[need] = members.start[need + 1]! - members.start[need]!;
    const never = [...atLeast.keys()].filter((need) => this.left[need]! < atLeast[need]!);
    this.fail(never.map((need) => thingOf[need]!));
    this.base = this.fallen.length;
  }

  private put(place: number): void {
    if (this.isDown[place]) return;
    this.isDown[place] = 1;
    this.fallen.push(place);
  }

  /** Lets things fail, and all that hangs on them; ends early where `isEnough` says so of one that falls. */
  fail(places: Iterable<number>, isEnough?: (place: number) => boolean): boolean {
    const { usedBy, thingOf, atLeast } = this.network;
    let at = this.fallen.length;
    for (const place of places) this.put(place);
    let isEnded = false;
    for (; at < this.fallen.length; at++) {
      const place = this.fallen[at]!;
      if (!isEnded && isEnough?.(place)) isEnded = true;
      for (let u = usedBy.start[place]!; u < usedBy.start[place + 1]!; u++) {
        const need = usedBy.items[u]!;
        // Counted also where that is enough, so that it can be taken back alike.
        if (--this.left[need]! < atLeast[need]! && !isEnded) this.put(thingOf[need]!);
      }
    }
    return isEnded;
  }

  /** Takes back what fell after so much had fallen. */
  takeBack(to: number): void {
    const { usedBy } = this.network;
    while (this.fallen.length > to) {
      const place = this.fallen.pop()!;
      this.isDown[place] = 0;
      for (let u = usedBy.start[place]!; u < usedBy.start[place + 1]!; u++) this.left[usedBy.items[u]!]!++;
    }
  }
}
