import { foldText } from '../text';

/** A setting to be found: by its name, by what it does, by what people call it or worry about. */
export type Setting = { id: string; name: string; help: string; others: string };

/** So many letters at the least are one word with its forms. */
const LEAST_STEM = 4;
/** An ending is at most so long. */
const MOST_ENDING = 3;
const NAME_WEIGHT = 3;
const OTHERS_WEIGHT = 2;
/** Of the best one's weight, so much makes another worth showing. */
const WORTH_SHOWING = 0.5;

const STOP_WORDS = new Set(
  (
    'a an and any at be by can do does for from has have how i in is it my not nothing of on or our out so that the ' +
    'their them they this to too us we what when where who why with you your ' +
    'ao aos as com como da das de do dos e em eu há isso já mas me na nas não nem no nos o os ou para pela pelo por ' +
    'porque quando que quem se sem ser seu são tem têm um uma'
  )
    .split(' ')
    .map(foldText),
);

const listWords = (text: string): string[] => foldText(text).match(/[\p{L}\p{N}]+/gu) ?? [];

/** Whether one word is the other, the beginning of it, or another form of it. */
function isLike(asked: string, word: string): boolean {
  if (word.startsWith(asked)) return true;
  const stem = Math.max(LEAST_STEM, Math.max(asked.length, word.length) - MOST_ENDING);
  return asked.length >= stem && word.startsWith(asked.slice(0, stem));
}

/**
 * The settings that words lead to, the best first. What is asked may be a worry in plain words: what says little is
 * passed over, forms of words are one, and words that few settings have count more.
 * @example findSettings(settings, 'customers hear nothing at night') // ['outOfHours', …]
 */
export function findSettings(settings: Setting[], asked: string, most = 8): string[] {
  const all = listWords(asked);
  // The last word may be the beginning of another.
  const telling = all.filter((word, i) => !STOP_WORDS.has(word) || (i === all.length - 1 && i === 0));
  const read = settings.map(({ id, name, help, others }) => ({
    id,
    fields: [
      { words: listWords(name), weight: NAME_WEIGHT },
      { words: listWords(others), weight: OTHERS_WEIGHT },
      { words: listWords(help), weight: 1 },
    ],
  }));
  const weights = new Map<string, number>();
  for (const word of new Set(telling)) {
    const met = read.flatMap(({ id, fields }) => {
      const weight = Math.max(
        ...fields.map((field) => (field.words.some((each) => isLike(word, each)) ? field.weight : 0)),
      );
      return weight > 0 ? [{ id, weight }] : [];
    });
    const rarity = Math.log(1 + settings.length / Math.max(met.length, 1));
    for (const { id, weight } of met) weights.set(id, (weights.get(id) ?? 0) + weight * rarity);
  }
  const found = [...weights].sort(([, one], [, other]) => other - one);
  const least = (found[0]?.[1] ?? 0) * WORTH_SHOWING;
  return found
    .filter(([, weight]) => weight >= least)
    .slice(0, most)
    .map(([id]) => id);
}
