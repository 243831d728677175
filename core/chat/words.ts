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

const NONE =
  /^\s*(?:no,?\s+)?(?:that was (?:none|nothing)|never ?mind|forget it|n[ãa]o era nada|esque(?:ça|ca|ce)(?: isso)?)[\s.!]*$/iu;

/** Whether someone takes back what they said: it was no matter. @example isTakingBack('That was none.') // true */
export const isTakingBack = (text: string): boolean => NONE.test(text);

const ASKS =
  /^(?:is|are|was|do|does|did|can|could|may|will|has|have|when|where|what|who|which|why|how|é|são|está|há|quando|onde|qual|quais|quem|porque|como|posso|pode|podem)(?![\p{L}\p{N}])/iu;

/**
 * Whether something is asked, rather than told to be broken or wanted.
 * @example isQuestion('Good morning, is the desk open on Friday?') // true
 */
export function isQuestion(text: string): boolean {
  const bare = withoutCourtesies(text);
  const asked = bare.split(/(?<=[.!?])\s+/u).find((sentence) => sentence.trimEnd().endsWith('?'));
  return asked !== undefined && ASKS.test(withoutBeginning(asked));
}

/** So many lines of a room become a ticket at the most. */
export const MOST_LINES = 50;

const LAST_LINES =
  /^(?:(?:the\s+)?last|(?:[ao]s\s+)?[uú]ltim[ao]s)\s+(?<count>\d{1,4})(?:\s+(?:lines|messages|linhas|mensagens))?\s*(?:[:,–-]\s*(?<title>[\s\S]*\S))?\s*$/iu;

/**
 * Whether words handed in ask for what was said before them, and for how many lines of it; at most `MOST_LINES`.
 * @example readTaken('the last 12: gate 4 is dark') // { count: 12, title: 'gate 4 is dark' }
 * @example readTaken('the printer is dead') // null
 */
export function readTaken(words: string): { count: number; title: string } | null {
  const { count, title = '' } = LAST_LINES.exec(words.trim())?.groups ?? {};
  if (count === undefined || Number(count) === 0) return null;
  return { count: Math.min(Number(count), MOST_LINES), title };
}

/**
 * What was said, as one text: a name where another one begins to speak, and none where only its author speaks.
 * @param author who wrote it down as theirs
 */
export function asConversation(lines: readonly { by: string; text: string }[], author: string): string {
  const isOwn = lines.every(({ by }) => by === author);
  return lines
    .map(({ by, text }, i) => (isOwn || by === lines[i - 1]?.by ? text : `${by}: ${text}`))
    .join('\n');
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
