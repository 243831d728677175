/** Text as people may send it: anything but what cannot be stored exactly. */
export type BadText = 'nul' | 'loneSurrogate';

/**
 * What makes a text impossible to store exactly, or null. Emoji, right-to-left marks and markup are all fine.
 * @example findBadText('a\u0000') // 'nul'
 */
export function findBadText(text: string): BadText | null {
  if (text.includes('\u0000')) return 'nul';
  return /\p{Surrogate}/u.test(text) ? 'loneSurrogate' : null;
}

/** Lower case without diacritics, so that 'Baía' and 'baia' meet. */
export function foldText(text: string): string {
  return text
    .normalize('NFD')
    .replace(/\p{Diacritic}/gu, '')
    .toLowerCase();
}

/**
 * The blanks of a text, each once.
 * @example listBlanks('{number} of {name}, {number}') // ['number', 'name']
 */
export function listBlanks(text: string): string[] {
  return [...new Set([...text.matchAll(/\{(\w+)\}/g)].map(([, name]) => name!))];
}

/**
 * A text with its blanks filled; a blank that nothing is known for stays as it is written.
 * @example fillBlanks('{number} is late', { number: 17 }) // '17 is late'
 */
export function fillBlanks(text: string, values: Record<string, string | number>): string {
  return text.replace(/\{(\w+)\}/g, (blank, name: string) =>
    Object.hasOwn(values, name) ? String(values[name]) : blank,
  );
}
