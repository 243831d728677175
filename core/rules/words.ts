import { setWordTest } from '../conditions';
import { analyserOf, listWords } from '../search';

const LANGUAGES = ['en', 'pt'] as const;

/** The forms in which a word is compared: itself without case and accents, and its stem in each language. */
function formsOf(word: string): string[] {
  if (/^\d+$/.test(word)) return [word, word, word];
  const analysed = LANGUAGES.map((language) => analyserOf(language).analyse(word));
  return [analysed[0]!.surface, ...analysed.map(({ stem }) => stem)];
}

/** A text looked into: the forms of its words in their order, and all of each kind. */
type ReadText = { words: string[][]; all: Set<string>[] };

function readText(text: string): ReadText {
  const words = listWords(text).map((word) => formsOf(word.text));
  return { words, all: [0, 1, 2].map((i) => new Set(words.map((forms) => forms[i]!))) };
}

/** Many rules ask about one text, one after the other. */
let last: { text: string; read: ReadText } | null = null;
function readOnce(text: string): ReadText {
  if (last?.text !== text) last = { text, read: readText(text) };
  return last.read;
}

const isAmong = (form: string[], all: Set<string>[]): boolean => form.some((each, i) => all[i]!.has(each));
const isSame = (a: string[], b: string[]): boolean => a.some((form, i) => form === b[i]);

/**
 * Makes ready to say whether a text has a word, or words side by side, in whatever form: case and accents do not
 * matter, and two words are the same where one language gives them one stem.
 * @example hasPhrase('season passes')('her season pass expired') // true
 */
export function hasPhrase(phrase: string): (text: string) => boolean {
  const wanted = listWords(phrase).map(({ text }) => formsOf(text));
  return (text) => {
    const { words, all } = readOnce(text);
    if (wanted.length === 0 || !wanted.every((form) => isAmong(form, all))) return false;
    if (wanted.length === 1) return true;
    for (let from = 0; from + wanted.length <= words.length; from++)
      if (wanted.every((form, i) => isSame(form, words[from + i]!))) return true;
    return false;
  };
}

setWordTest(hasPhrase);
