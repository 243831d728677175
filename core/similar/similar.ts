import { foldText } from '../text';

/** A ticket as its likeness to others is judged. */
export type Described = {
  number: number;
  title: string;
  /** What else it says of itself. */
  words?: string;
  serviceId: string;
  place: string;
  requesterId: string;
};

/** Why one is like another. */
export type Likeness = {
  number: number;
  /** From 0 to 1. */
  score: number;
  sharedWords: string[];
  samePlace: boolean;
  sameService: boolean;
};

/** Words that say nothing of the matter, in both languages. */
const STOP = new Set(
  'a an and are at be but by can do does for from has have i in is it its me my no not of off on or our out so that the there this to up was we when where which will with you your o os as um uma de do da dos das e em no na nos nas por para com que se nao meu minha'.split(
    ' ',
  ),
);

/** Plural and singular meet, in both languages. */
function stem(word: string): string {
  if (word.length > 4 && word.endsWith('ies')) return `${word.slice(0, -3)}y`;
  if (word.length > 4 && /(ses|xes|ches|shes)$/.test(word)) return word.slice(0, -2);
  return word.length > 3 && word.endsWith('s') && !word.endsWith('ss') ? word.slice(0, -1) : word;
}

/** The words of a text that speak of its matter, folded and stemmed, each with the form in which it stood. */
export function listWords(text: string): Map<string, string> {
  const words = new Map<string, string>();
  for (const [said] of text.matchAll(/[\p{L}\p{N}]+/gu)) {
    const folded = foldText(said);
    if (!STOP.has(folded) && (folded.length > 1 || /\d/.test(folded)))
      words.set(stem(folded), said.toLowerCase());
  }
  return words;
}

const SAME_PLACE = 0.15;
const SAME_SERVICE = 0.1;
const LEAST = 0.25;

/**
 * Those of some tickets that are like one, the most alike first. Words weigh by how few of the candidates have them
 * (inverse document frequency), the overlap by both lengths (cosine); the same place and service add a little. Without
 * a shared word nothing is alike.
 * @example rankSimilar(scanner, others)[0] // { number: 20418, score: 0.8, sharedWords: ['scanner', 'passes'], … }
 */
export function rankSimilar(of: Described, candidates: Described[], { least = LEAST } = {}): Likeness[] {
  const own = listWords(`${of.title} ${of.words ?? ''}`);
  const others = candidates
    .filter(({ number }) => number !== of.number)
    .map((candidate) => ({ candidate, words: listWords(`${candidate.title} ${candidate.words ?? ''}`) }));
  const having = new Map<string, number>();
  for (const { words } of others)
    for (const word of words.keys()) having.set(word, (having.get(word) ?? 0) + 1);
  const weigh = (word: string): number => Math.log(1 + (others.length + 1) / ((having.get(word) ?? 0) + 1));
  const lengthOf = (words: Map<string, string>): number =>
    Math.sqrt([...words.keys()].reduce((sum, word) => sum + weigh(word) ** 2, 0));
  const ownLength = lengthOf(own);
  return others
    .map(({ candidate, words }) => {
      const shared = [...own.keys()].filter((word) => words.has(word));
      const overlap = shared.reduce((sum, word) => sum + weigh(word) ** 2, 0);
      const cosine = overlap === 0 ? 0 : overlap / (ownLength * lengthOf(words));
      const samePlace = of.place !== '' && candidate.place === of.place;
      const sameService = candidate.serviceId === of.serviceId;
      const more = cosine === 0 ? 0 : (samePlace ? SAME_PLACE : 0) + (sameService ? SAME_SERVICE : 0);
      return {
        number: candidate.number,
        score: Math.min(1, cosine * (1 - SAME_PLACE - SAME_SERVICE) + more),
        sharedWords: shared.sort((a, b) => weigh(b) - weigh(a)).map((word) => own.get(word)!),
        samePlace,
        sameService,
      };
    })
    .filter(({ score }) => score >= least)
    .sort((one, other) => other.score - one.score || other.number - one.number);
}
