import { newStemmer } from 'snowball-stemmers';
import type { Language } from '../forms';
import { foldText } from '../text';

/** A word of a text: as it stands there, and from where to where. */
export type Word = { text: string; from: number; to: number };

const WORD = /[\p{L}\p{N}]+/gu;
/** Words that stand in nearly every sentence and say nothing about what it is of. Common practice. */
const STOP: Record<Language, string> = {
  en: 'a an and are as at be but by can do does for from has have how i if in into is it its me my no not of on or our so than that the their them then there these they this to up was we what when where which will with you your',
  pt: 'a ao aos as com como da das de do dos e em entre era eu foi há isso isto já lhe mais mas me meu minha muito na nas no nos não o os ou para pela pelo por qual quando que quem se sem ser seu sua são só também tem um uma você é',
};

/**
 * The words of a text.
 * @example listWords('Gate 2: no light')[1] // { text: '2', from: 5, to: 6 }
 */
export function listWords(text: string): Word[] {
  return [...text.matchAll(WORD)].map(({ 0: word, index }) => ({
    text: word,
    from: index,
    to: index + word.length,
  }));
}

/** What a word is looked up by: its form without case and diacritics, and its stem. */
export type Analysed = { surface: string; stem: string };

/** Brings words of a language to the form in which they are compared. */
export type Analyser = { analyse(word: string): Analysed; isStop(surface: string): boolean };

const MOST_KEPT = 400_000;

function createAnalyser(language: Language): Analyser {
  const stemmer = newStemmer(language === 'pt' ? 'portuguese' : 'english');
  const stop = new Set(STOP[language].split(' ').map(foldText));
  const known = new Map<string, Analysed>();
  return {
    isStop: (surface) => stop.has(surface),
    analyse(word) {
      const found = known.get(word);
      if (found) return found;
      const surface = foldText(word);
      // The stem is taken with the diacritics, which its rules ask for, and compared without.
      const analysed = { surface, stem: foldText(stemmer.stem(word.toLowerCase())) };
      if (known.size >= MOST_KEPT) known.clear();
      known.set(word, analysed);
      return analysed;
    },
  };
}

const analysers: Partial<Record<Language, Analyser>> = {};

/** Reads words of a language by the Snowball algorithm (snowballstem.org), made when first asked for. */
export const analyserOf = (language: Language): Analyser =>
  (analysers[language] ??= createAnalyser(language));
