import MiniSearch from 'minisearch';
import type { Language } from '../forms';
import { foldText } from '../text';
import { analyserOf, listWords } from './analyse';

/** Of the best one's score, this much makes another worth showing. */
const WORTH_SHOWING = 0.2;

/** Something that can be found: a title, words about it, and other words people use for it. */
export type Findable = { id: string; title: string; description: string; otherWords: string };

/** Finds ids by words, the best first. */
export type Finder = (query: string, most?: number) => string[];

/**
 * Builds a search as one types over things with words: prefixes, typing errors and diacritics are forgiven, the
 * title weighs most. Answers ids, the best first.
 * @example createFinder([{ id: 'a', title: 'Gate scanner', … }], 'en')('gate scaner') // ['a']
 */
export function createFinder(things: Findable[], language: Language): Finder {
  const { isStop } = analyserOf(language);
  const index = new MiniSearch<Findable>({
    fields: ['title', 'description', 'otherWords'],
    processTerm: (term) => foldText(term),
    searchOptions: {
      boost: { title: 3, otherWords: 2 },
      prefix: true,
      fuzzy: (term) => (term.length > 4 ? 0.25 : false),
    },
  });
  index.addAll(things);
  return (query, most = 6) => {
    // A word such as “a”, taken for a beginning, would find everything; the last one may be the beginning of another.
    const words = listWords(query).map(({ text }) => foldText(text));
    const telling = words.filter((word, i) => i === words.length - 1 || !isStop(word));
    const found = index.search(telling.join(' '));
    const least = (found[0]?.score ?? 0) * WORTH_SHOWING;
    return found
      .filter(({ score }) => score >= least)
      .slice(0, most)
      .map(({ id }) => id as string);
  };
}
