import { withoutBeginning, withoutCourtesies } from '../text';

const TITLE_LIMIT = 120;

/**
 * The words after "Listo,": what someone hands in from the typing line; null where they speak of something else.
 * @example readAddressed('Listo, the kiosk is dead') // 'the kiosk is dead'
 */
export function readAddressed(text: string): string | null {
  const found = /^\s*@?listo\s*[,:]\s*(?<rest>[\s\S]*\S)/iu.exec(text);
  return found?.groups?.rest ?? null;
}

/** The first sentence that says something. */
function firstSentence(text: string): string {
  const sentences = text.split(/(?<=[.!?])\s+|\n+/u).map((sentence) => sentence.trim());
  return sentences.find((sentence) => /\p{L}{3,}/u.test(withoutBeginning(sentence))) ?? text.trim();
}

function shorten(text: string): string {
  if (text.length <= TITLE_LIMIT) return text;
  const cut = text.slice(0, TITLE_LIMIT - 1);
  return `${cut.slice(0, Math.max(cut.lastIndexOf(' '), TITLE_LIMIT / 2)).trimEnd()}…`;
}

/**
 * A title made of what was said: without greetings, names called, addresses and thanks; the first sentence that says
 * something, with a capital letter.
 * @example toTitle('hi all, can someone look at gate 4? thanks') // 'Look at gate 4'
 */
export function toTitle(text: string): string {
  const named = text
    .replace(/https?:\/\/\S+/giu, ' ')
    .replace(/(^|\s)@[\p{L}\d._-]+/gu, ' ')
    .replace(/[ \t]+/gu, ' ')
    .trim();
  // Nothing but names or addresses: better these than nothing.
  const plain = named === '' ? text.replace(/\s+/gu, ' ').trim() : named;
  const sentence = firstSentence(readAddressed(plain) ?? plain);
  const bare = withoutCourtesies(sentence)
    .replace(/[\s.,;:!?-]+$/u, '')
    .trim();
  const title = shorten(bare === '' ? sentence.trim() : bare);
  return title.charAt(0).toLocaleUpperCase() + title.slice(1);
}
