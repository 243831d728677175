import MiniSearch from 'minisearch';
import { foldText } from '../text';

/** Of the best one's score, this much makes another worth showing. */
const WORTH_SHOWING = 0.2;

/** Something that can be found: a title, words about it, and other words people use for it. */
export type Findable = { id: string; title: string; description: string; otherWords: string };

export type Finder = (query: string, most?: number) => string[];

/**
 * Builds a search as one types over things with words: prefixes, typing errors and diacritics are forgiven, the
 * title weighs most. Answers ids, the best first.
 * @example createFinder([{ id: 'a', title: 'Gate scanner', … }])('gate scaner') // ['a']
 */
export function createFinder(things: Findable[]): Finder {
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
    const found = index.search(query);
    const least = (found[0]?.score ?? 0) * WORTH_SHOWING;
    return found
      .filter(({ score }) => score >= least)
      .slice(0, most)
      .map(({ id }) => id as string);
  };
}
