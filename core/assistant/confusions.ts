import type { JudgedPhrasing } from './understand';

/** Two matters that are taken for each other, with the phrasings that cause it. */
export type Confusion = { id: string; takenForId: string | null; phrasings: string[] };

/** Which matters are confused with which, by what each phrasing would be taken for had it not been learned. */
export function listConfusions(judged: JudgedPhrasing[]): Confusion[] {
  const pairs = new Map<string, Confusion>();
  for (const { id, text, likely } of judged) {
    const takenForId = likely[0]!.id;
    if (takenForId === id) continue;
    const key = `${id} ${takenForId}`;
    const pair = pairs.get(key) ?? { id, takenForId, phrasings: [] };
    pair.phrasings.push(text);
    pairs.set(key, pair);
  }
  return [...pairs.values()].sort((one, other) => other.phrasings.length - one.phrasings.length);
}

/** Phrasings that stand with two matters: neither can be told by them. */
export function listDoubles(
  matters: { id: string; phrasings: { text: string }[] }[],
): { text: string; ids: string[] }[] {
  const by = new Map<string, Set<string>>();
  for (const { id, phrasings } of matters)
    for (const { text } of phrasings) {
      const key = text.trim().toLowerCase();
      by.set(key, (by.get(key) ?? new Set()).add(id));
    }
  return [...by].flatMap(([text, ids]) => (ids.size > 1 ? [{ text, ids: [...ids] }] : []));
}
