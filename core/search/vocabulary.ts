import { distance } from 'fastest-levenshtein';

/** A word as it stands in the texts, with what it is looked up by. */
export type Known = { surface: string; stem: string };

/** Shorter words have too many neighbours for a slip to be told from another word. */
const LEAST_FOR_SLIP = 4;
const LEAST_FOR_TWO = 8;

function findPlace(sorted: string[], surface: string): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle]! < surface) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** All words of some texts, to be found by how they begin and by what is nearly the same. */
export class Vocabulary {
  private sorted: string[] = [];
  private readonly stems = new Map<string, string>();
  /** By first letter and length: a slip changes neither by much. */
  private readonly alike = new Map<string, string[]>();
  private isSorted = true;

  add({ surface, stem }: Known): void {
    if (this.stems.has(surface)) return;
    this.stems.set(surface, stem);
    const key = `${surface[0]}${surface.length}`;
    const bucket = this.alike.get(key);
    if (bucket) bucket.push(surface);
    else this.alike.set(key, [surface]);
    if (this.isSorted && this.sorted.length > 0)
      this.sorted.splice(findPlace(this.sorted, surface), 0, surface);
    else {
      this.isSorted = false;
      this.sorted.push(surface);
    }
  }

  /** Says that many words come: they are put in order when next asked for. */
  expectMany(): void {
    this.isSorted = false;
  }

  has(surface: string): boolean {
    return this.stems.has(surface);
  }

  /** The words that begin so, other than the beginning itself; at most so many are looked at. */
  *beginningWith(start: string, most: number): Generator<Known> {
    if (!this.isSorted) {
      this.sorted.sort((one, other) => (one < other ? -1 : 1));
      this.isSorted = true;
    }
    let place = findPlace(this.sorted, start);
    for (let count = 0; count < most && place < this.sorted.length; count++, place++) {
      const surface = this.sorted[place]!;
      if (!surface.startsWith(start)) return;
      if (surface !== start) yield { surface, stem: this.stems.get(surface)! };
    }
  }

  /**
   * The words that are nearest to one that stands nowhere: one slip away, or two in a long word.
   * @returns those of the least distance, in no order
   */
  nearest(surface: string): (Known & { slips: number })[] {
    if (surface.length < LEAST_FOR_SLIP) return [];
    let most = surface.length < LEAST_FOR_TWO ? 1 : 2;
    let found: (Known & { slips: number })[] = [];
    // A first letter may have changed places with the second.
    for (const first of new Set([surface[0]!, surface[1]!]))
      for (let length = surface.length - most; length <= surface.length + most; length++)
        for (const candidate of this.alike.get(`${first}${length}`) ?? []) {
          const slips = isSwapped(surface, candidate) ? 1 : distance(surface, candidate);
          if (slips > most) continue;
          if (slips < most) [most, found] = [slips, []];
          found.push({ surface: candidate, stem: this.stems.get(candidate)!, slips });
        }
    return found;
  }
}

/** Whether two words differ by two neighbouring letters that changed places. */
function isSwapped(one: string, other: string): boolean {
  if (one.length !== other.length) return false;
  let at = 0;
  while (at < one.length && one[at] === other[at]) at++;
  return (
    at < one.length - 1 &&
    one[at] === other[at + 1] &&
    one[at + 1] === other[at] &&
    one.slice(at + 2) === other.slice(at + 2)
  );
}
