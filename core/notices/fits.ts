import type { LocalText } from '../forms';
import { listWords } from '../similar';

/** A notice as it is compared with what somebody writes. */
export type Announced = {
  title: LocalText;
  words: LocalText;
  serviceIds: readonly string[];
  siteIds?: readonly string[];
};
/** What somebody writes about, or the ticket that came of it. */
export type Written = { words: string; serviceIds: readonly string[] };

/** This part of what somebody wrote has to stand in the notice. */
const LEAST_SHARE = 0.5;
/** One word alone may be of anything; of a service that is concerned it is enough. */
const LEAST_WORDS = 2;

/** Words that tell one matter from another: numbers do not. */
const wordsOf = (text: string): string[] =>
  [...listWords(text).keys()].filter((word) => word.length > 2 && !/^\d+$/u.test(word));

/**
 * How well a notice fits what somebody writes, from 0 (not at all) to 1. It fits where half of their words stand in it,
 * at least two; fewer are enough for a service that it concerns. Whoever is at the form of such a service and has written nothing yet reads it too.
 * @example fits(networkNotice, { words: 'no network on board', serviceIds: [] }) // 0.67
 */
export function fitsNotice({ title, words, serviceIds }: Announced, written: Written): number {
  const said = [...new Set(wordsOf(written.words))];
  const isOfService = written.serviceIds.some((id) => serviceIds.includes(id));
  if (said.length === 0) return isOfService ? LEAST_SHARE : 0;
  const known = new Set(wordsOf(`${title.en} ${title.pt} ${words.en} ${words.pt}`));
  const shared = said.filter((word) => known.has(word)).length;
  const share = shared / said.length;
  if (isOfService) return LEAST_SHARE + share / 2;
  return share >= LEAST_SHARE && shared >= LEAST_WORDS ? share : 0;
}
