import { foldText, listBlanks } from '../text';

/** The blanks of ready texts, which fill themselves from the ticket that they are written on. */
export const READY_BLANKS = ['name', 'number', 'title', 'service', 'team', 'me', 'due', 'place'] as const;
/** A blank that a ready text may hold. */
export type ReadyBlank = (typeof READY_BLANKS)[number];

/** Blanks that a text has and nothing can fill, such as {nmae}. */
export function findUnknownBlanks(text: string): string[] {
  return listBlanks(text).filter((name) => !READY_BLANKS.some((known) => known === name));
}

/** How well a name fits a few letters: whole words first, then beginnings of words, then letters in their order. */
function fitOf(name: string, q: string): number {
  const text = foldText(name);
  const letters = foldText(q).trim();
  if (letters === '') return 1;
  const words = text.split(/[^\p{L}\p{N}]+/u);
  if (letters.split(/\s+/).every((part) => words.some((word) => word.startsWith(part)))) return 3;
  if (
    words
      .map((word) => word[0] ?? '')
      .join('')
      .startsWith(letters)
  )
    return 2.5;
  if (text.includes(letters)) return 2;
  let at = -1;
  for (const letter of letters.replace(/\s/g, '')) {
    at = text.indexOf(letter, at + 1);
    if (at < 0) return 0;
  }
  return 1;
}

/**
 * Those whose name fits a few letters, the best first.
 * @example findByLetters([{ name: 'Password sent' }, { name: 'Part on order' }], 'pa o') // Part on order
 */
export function findByLetters<T extends { name: string }>(things: T[], q: string): T[] {
  return things
    .map((thing) => ({ thing, fit: fitOf(thing.name, q) }))
    .filter(({ fit }) => fit > 0)
    .sort((one, other) => other.fit - one.fit || one.thing.name.localeCompare(other.thing.name))
    .map(({ thing }) => thing);
}
