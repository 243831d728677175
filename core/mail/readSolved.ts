import { withoutCourtesies } from '../text';

const SAID = ['solved', 'that was it', 'it is solved', 'resolvido', 'era isso', 'está resolvido'];

/** Nobody says it in more letters. */
const LONGEST = 300;

const bare = (text: string): string =>
  text
    .normalize('NFC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}\s]/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim();

/**
 * Whether someone writes that what they were answered was it: these words in the first line, in either language, with
 * no more than thanks. Anything else is read by people.
 * @example readSolved('Solved, thank you!') // true
 */
export const readSolved = (written: string): boolean =>
  SAID.includes(bare(withoutCourtesies(written.trim().split('\n', 1)[0]!.slice(0, LONGEST))));
