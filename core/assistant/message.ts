import type { Language } from '../forms';
import { listWords } from '../search';
import { chooseOffer, type Offer } from './offer';
import { understand, type Likely, type Understanding } from './understand';

/** Where one sentence ends and the next begins. */
const SENTENCES = /(?:[.!?;]+(?=\s|$)|\n)+/u;
/** Words by which a sentence goes on to something else. */
const GOES_ON: Record<Language, RegExp> = {
  en: /,?\s+(?:and|also|besides|plus|as well as)(?:\s+(?:also|then))?\s+|,\s+/iu,
  pt: /,?\s+(?:e|também|além disso|mais)(?:\s+(?:também|ainda))?\s+|,\s+/iu,
};
/** Fewer words say too little to be taken for a matter of their own. */
const LEAST_WORDS = 3;
/** From this sureness on, a part of a message is taken to be about a matter of its own. */
const SURE_OF_PART = 0.45;
/** So many parts of a message are read; nobody writes of more matters at once. */
const MOST_PARTS = 24;

/** What a message is taken to mean, and what is said to it. */
export type Understood = {
  /** All matters, and something else, the most likely first. */
  likely: Likely[];
  offer: Offer;
};

function partsOf(text: string, at: RegExp): string[] {
  const parts = text.split(at).map((part) => part.trim());
  return parts.filter((part) => listWords(part).length >= LEAST_WORDS).slice(0, MOST_PARTS);
}

const firstMatter = (likely: Likely[]): Likely | undefined => likely.find(({ id }) => id !== null);

/** The reading that is surest of a matter. */
function surest(readings: Likely[][]): Likely[] {
  const surenessOf = (likely: Likely[]): number => firstMatter(likely)?.sureness ?? 0;
  return readings.reduce((best, each) => (surenessOf(each) > surenessOf(best) ? each : best));
}

/**
 * Reads a message as it is and sentence by sentence: what leads up to a matter says nothing of it, and two matters in
 * it are both offered.
 * @param sum between 0 and 1; see `sumFor`
 */
export function understandMessage(
  understanding: Understanding,
  { text, language, sum }: { text: string; language: Language; sum: number },
): Understood {
  const read = (part: string): Likely[] => understand(understanding, part, language);
  const sentences = partsOf(text, SENTENCES);
  const readings = [read(text), ...(sentences.length > 1 ? sentences.map(read) : [])];
  const likely = surest(readings);
  const clauses = sentences.flatMap((sentence) => partsOf(sentence, GOES_ON[language]));
  const ofClauses = clauses.length > 1 ? clauses.map(read) : [];
  const named = ofClauses.flatMap(([first]) =>
    first && first.id !== null && first.sureness >= SURE_OF_PART ? [first.id] : [],
  );
  const both = [...new Set(named)];
  if (both.length === 2) return { likely, offer: { kind: 'both', ids: both } };
  return { likely, offer: chooseOffer(likely, sum) };
}
