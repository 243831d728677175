import { foldText } from '../../core/text';

/** How near a name is to what is typed: it is it, begins with it, has words that begin so, has it somewhere. */
export const NEARNESSES = ['exact', 'begins', 'words', 'within'] as const;
export type Nearness = (typeof NEARNESSES)[number];

function nearnessOf(typed: string, name: string): Nearness | null {
  if (name === typed) return 'exact';
  if (name.startsWith(typed)) return 'begins';
  const words = name.split(/[^\p{L}\p{N}]+/u);
  if (typed.split(/\s+/).every((part) => words.some((word) => word.startsWith(part)))) return 'words';
  return name.includes(typed) ? 'within' : null;
}

/**
 * The nearest of several names of one thing to what is typed, whatever the case and the accents; null: none is near.
 * Everything is near to nothing typed.
 */
export function nearest(typed: string, names: readonly string[]): Nearness | null {
  const folded = foldText(typed).trim();
  const all = names.map((name) => nearnessOf(folded, foldText(name).trim()));
  return NEARNESSES.find((nearness) => all.includes(nearness)) ?? null;
}

/** What has a name near to what is typed, the nearest first; among equals as they stood. */
export function byNearness<T extends { names: readonly string[] }>(typed: string, things: readonly T[]): T[] {
  return things
    .flatMap((thing) => {
      const nearness = nearest(typed, thing.names);
      return nearness === null ? [] : [{ thing, at: NEARNESSES.indexOf(nearness) }];
    })
    .sort((one, other) => one.at - other.at)
    .map(({ thing }) => thing);
}
