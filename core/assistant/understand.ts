import type { Language } from '../forms';
import type { Synonyms } from '../search';
import { crossValidate, findTemperature } from './calibrate';
import { scoresOf, softmax, train, type Classifier, type Example } from './classifier';
import { ELSEWHERE } from './elsewhere';
import { createReader, type Features } from './features';

/** What the assistant learns a matter from. */
export type Learned = { id: string; phrasings: { text: string; language: Language }[] };

/** How likely a matter is what was meant; `id` null: something else. */
export type Likely = { id: string | null; sureness: number };

/** What a phrasing would have been taken for by one that had not learned it, and what it means. */
export type JudgedPhrasing = { id: string; text: string; likely: Likely[] };

/** Fewer phrasings say too little to tell a matter by. */
export const LEAST_PHRASINGS = 3;

type SynonymsBy = Partial<Record<Language, Synonyms>>;

/** What has been learned, as plain data. */
export type Understanding = {
  ids: string[];
  temperature: number;
  classifier: Classifier;
  synonyms: SynonymsBy;
  judged: JudgedPhrasing[];
};

function rank(scores: Float64Array, ids: string[], temperature: number): Likely[] {
  return [...softmax(scores, temperature)]
    .map((sureness, i): Likely => ({ id: ids[i] ?? null, sureness }))
    .sort((one, other) => other.sureness - one.sureness);
}

/** Learns matters from their phrasings, and how sure it may be from those that it was not shown. */
export function learn(matters: Learned[], synonyms: SynonymsBy = {}): Understanding {
  const readers = { en: createReader('en', synonyms.en), pt: createReader('pt', synonyms.pt) };
  const known = matters.filter(({ phrasings }) => phrasings.length >= LEAST_PHRASINGS);
  const ids = known.map(({ id }) => id);
  const said = known.flatMap(({ id, phrasings }, label) =>
    phrasings.map(({ text, language }) => ({
      ...{ text, id },
      example: { features: readers[language](text), label },
    })),
  );
  const others = ELSEWHERE.map((text): Example => ({ features: readers.en(text), label: ids.length }));
  const examples = [...said.map(({ example }) => example), ...others];
  const judged = crossValidate(examples, ids.length + 1);
  const temperature = findTemperature(judged);
  return {
    ...{ ids, temperature, synonyms },
    classifier: train(examples, ids.length + 1),
    judged: said.map(({ id, text }, i) => ({ id, text, likely: rank(judged[i]!.scores, ids, temperature) })),
  };
}

/** From this share of known pieces on, words are taken for known ones that are spelt otherwise. */
const KNOWN_PIECES = 0.6;

/** Whether anything of what was said was ever heard: a word, or words much like it. */
function isHeard({ numberOf }: Classifier, features: Features): boolean {
  const names = [...features.keys()];
  if (names.some((name) => !name.startsWith('c ') && numberOf.has(name))) return true;
  const pieces = names.filter((name) => name.startsWith('c '));
  return (
    pieces.length > 0 && pieces.filter((name) => numberOf.has(name)).length >= KNOWN_PIECES * pieces.length
  );
}

/** All matters, and something else, the most likely first. */
export function understand(
  { classifier, ids, temperature, synonyms }: Understanding,
  text: string,
  language: Language,
): Likely[] {
  const features = createReader(language, synonyms[language])(text);
  // That is no matter, rather than any.
  if (!isHeard(classifier, features))
    return [{ id: null, sureness: 1 }, ...ids.map((id): Likely => ({ id, sureness: 0 }))];
  return rank(scoresOf(classifier, features), ids, temperature);
}
