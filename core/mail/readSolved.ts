const SAID = ['solved', 'that was it', 'it is solved', 'resolvido', 'era isso', 'está resolvido'];

const bare = (text: string): string =>
  text
    .normalize('NFC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}\s]/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim();

/**
 * Whether someone writes that what they were answered was it: these words alone in the first line, in either language.
 * Anything more is read by people.
 * @example readSolved('Solved, thank you!') // false: someone should read the thanks
 */
export const readSolved = (written: string): boolean =>
  SAID.includes(bare(written.trim().split('\n')[0] ?? ''));
