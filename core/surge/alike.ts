import { listWords } from '../similar';

/** Two titles with more than this share of the words of the shorter in common are of one matter: its subject alone is not. */
const ALIKE_OVER = 0.5;

/** What a title says of its matter: which kiosk or gate of many it is says nothing of that. */
const tellingWords = (title: string): Set<string> =>
  new Set([...listWords(title).keys()].filter((word) => !/^\d+$/u.test(word)));

function isAlike(one: ReadonlySet<string>, other: ReadonlySet<string>): boolean {
  const shared = [...one].filter((word) => other.has(word)).length;
  return shared > ALIKE_OVER * Math.min(one.size, other.size);
}

/**
 * The largest part of some things in which each is like another by its words, in their order: more of one service than
 * usual is one matter only as far as the same is said.
 * @example largestAlike([{ title: 'Gate 4 dark' }, { title: 'Badge lost' }, { title: 'Gate 2 is dark' }]) // the first and the last
 */
export function largestAlike<T extends { title: string }>(things: readonly T[]): T[] {
  const words = things.map(({ title }) => tellingWords(title));
  const left = new Set(things.keys());
  let largest: number[] = [];
  for (const start of things.keys()) {
    if (!left.delete(start)) continue;
    const part = [start];
    // What is reached grows while it is gone through.
    for (const at of part)
      for (const other of left)
        if (isAlike(words[at]!, words[other]!)) {
          left.delete(other);
          part.push(other);
        }
    if (part.length > largest.length) largest = part;
  }
  return largest.sort((one, other) => one - other).map((i) => things[i]!);
}
