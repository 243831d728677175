import type { Language } from '../forms';
import { analyserOf, listWords } from './analyse';

/** A piece of a text, marked where it is what was looked for. */
export type PassagePart = { text: string; isMarked: boolean };

const MOST_LETTERS = 190;

/** Sentences of a text; one that announces something goes with what it announces. */
function listSentences(text: string): string[] {
  return text
    .replace(/:\s*\n+/g, ': ')
    .split(/(?<=[.!?…])\s+|\n+/u)
    .map((sentence) => sentence.trim())
    .filter((sentence) => sentence !== '');
}

function shorten(sentence: string, from: number): string {
  if (sentence.length <= MOST_LETTERS) return sentence;
  // What is marked stands a few words after the beginning.
  const start = from < MOST_LETTERS / 2 ? 0 : sentence.lastIndexOf(' ', from - 40) + 1;
  const end = start + MOST_LETTERS;
  const cut = end >= sentence.length ? sentence.length : Math.max(sentence.lastIndexOf(' ', end), start + 40);
  return `${start > 0 ? '… ' : ''}${sentence.slice(start, cut)}${cut < sentence.length ? ' …' : ''}`;
}

/**
 * The passage of a text that answers best: the sentence that holds most of what was looked for, with those words
 * marked.
 * @param weights how much each stem says; see TextIndex.weigh
 */
export function findPassage(text: string, weights: Map<string, number>, language: Language): PassagePart[] {
  const { analyse } = analyserOf(language);
  let best = { sentence: '', worth: -1, from: 0 };
  listSentences(text).forEach((sentence, i) => {
    const met = new Map<string, number>();
    let from = 0;
    for (const word of listWords(sentence)) {
      const { stem } = analyse(word.text);
      const weight = weights.get(stem);
      if (weight === undefined) continue;
      if (met.size === 0) from = word.from;
      met.set(stem, weight);
    }
    // Of two that say as much, the earlier; a heading alone answers nothing.
    const worth =
      [...met.values()].reduce((sum, weight) => sum + weight, 0) * (sentence.length < 25 ? 0.6 : 1) -
      i * 1e-6;
    if (worth > best.worth) best = { sentence, worth, from };
  });
  return mark(shorten(best.sentence, best.from), weights, language);
}

/** A text with the words marked that something was found by. */
export function mark(text: string, weights: Map<string, number>, language: Language): PassagePart[] {
  const { analyse } = analyserOf(language);
  const parts: PassagePart[] = [];
  let at = 0;
  const push = (to: number, isMarked: boolean): void => {
    if (to > at) parts.push({ text: text.slice(at, to), isMarked });
    at = to;
  };
  for (const word of listWords(text)) {
    if (!weights.has(analyse(word.text).stem)) continue;
    push(word.from, false);
    push(word.to, true);
  }
  push(text.length, false);
  return parts;
}
