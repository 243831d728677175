import { withoutCourtesies } from '../text';
import type { Language } from '../forms';
import { analyserOf, listWords, type Synonyms } from '../search';

/** What a phrasing says, as names with how often: words by their stems, pairs of them, and pieces of words. */
export type Features = Map<string, number>;

const PIECES = [3, 4];
const PIECE_WEIGHT = 0.35;
const PAIR_WEIGHT = 0.6;
const SYNONYM_WEIGHT = 0.8;
const STOP_WEIGHT = 0.25;
const MOST_WORDS = 60;

/**
 * Reads phrasings of a language, knowing which words stand for the same. Greetings and thanks say nothing of a matter.
 */
export function createReader(language: Language, synonyms: Synonyms = []): (text: string) => Features {
  const { analyse, isStop } = analyserOf(language);
  const groupsOf = new Map<string, number[]>();
  synonyms.forEach((group, i) => {
    for (const word of group.filter((each) => !each.trim().includes(' '))) {
      const { stem } = analyse(word.trim());
      groupsOf.set(stem, [...(groupsOf.get(stem) ?? []), i]);
    }
  });
  return (text) => {
    const features: Features = new Map();
    const add = (name: string, weight: number): void =>
      void features.set(name, (features.get(name) ?? 0) + weight);
    let before = '^';
    for (const word of listWords(withoutCourtesies(text)).slice(0, MOST_WORDS)) {
      const { surface, stem } = analyse(word.text);
      const worth = isStop(surface) ? STOP_WEIGHT : 1;
      add(`w ${stem}`, worth);
      add(`p ${before} ${stem}`, PAIR_WEIGHT * worth);
      for (const group of groupsOf.get(stem) ?? []) add(`g ${group}`, SYNONYM_WEIGHT);
      const bounded = `<${surface}>`;
      for (const size of PIECES)
        for (let at = 0; worth === 1 && at + size <= bounded.length; at++)
          add(`c ${bounded.slice(at, at + size)}`, PIECE_WEIGHT);
      before = stem;
    }
    return features;
  };
}
