import { isDate } from '../forms';
import { findBadText } from '../text';

/** A name, a tag, a number or a place of a thing may have so many letters. */
export const THING_TEXT_LIMITS = {
  name: 120,
  tag: 60,
  serial: 80,
  model: 120,
  place: 120,
  vessel: 60,
  contract: 200,
};
type TextFact = keyof typeof THING_TEXT_LIMITS;

/** What is known of every thing, whatever its kind. Days are ISO 8601, cost is cents, `dependable` a share of the time. */
export type ThingFacts = Record<TextFact, string> & {
  cost: number | null;
  boughtOn: string | null;
  warrantyUntil: string | null;
  /** Which part of the time it works by itself, 0 … 1; null: not known. */
  dependable: number | null;
};

/** What is wrong with a fact of a thing. */
export type ThingProblem = {
  field: keyof ThingFacts;
  code: 'missing' | 'tooLong' | 'badCharacter' | 'malformed' | 'notADate' | 'endsTooSoon';
};

/** A tag or serial number as it is compared: people and scanners write it with and without spaces, large and small. */
export const toMark = (words: string): string => words.replace(/\s+/g, '').toUpperCase();

/** Everything that is wrong with the facts of a thing; nothing: it can be kept. */
export function checkThing(facts: ThingFacts): ThingProblem[] {
  const problems: ThingProblem[] = [];
  const wrong = (field: keyof ThingFacts, code: ThingProblem['code']): void =>
    void problems.push({ field, code });
  if (facts.name.trim() === '') wrong('name', 'missing');
  for (const field of Object.keys(THING_TEXT_LIMITS) as TextFact[]) {
    if (facts[field].length > THING_TEXT_LIMITS[field]) wrong(field, 'tooLong');
    if (findBadText(facts[field])) wrong(field, 'badCharacter');
  }
  const { cost, boughtOn, warrantyUntil, dependable } = facts;
  if (cost !== null && !(Number.isSafeInteger(cost) && cost >= 0)) wrong('cost', 'malformed');
  if (dependable !== null && !(dependable >= 0 && dependable <= 1)) wrong('dependable', 'malformed');
  if (boughtOn !== null && !isDate(boughtOn)) wrong('boughtOn', 'notADate');
  if (warrantyUntil !== null && !isDate(warrantyUntil)) wrong('warrantyUntil', 'notADate');
  else if (boughtOn !== null && warrantyUntil !== null && warrantyUntil < boughtOn)
    wrong('warrantyUntil', 'endsTooSoon');
  return problems;
}

/** By what a thing from outside is known again, the surest first. */
export const MATCHED_BY = ['serial', 'tag', 'name'] as const;
/** Something by which a thing is known again. */
export type MatchedBy = (typeof MATCHED_BY)[number];

/** What a row or a report says of a thing, as it is matched. */
export type Matched = Record<MatchedBy, string> & { kindId: string };

/** Things that are here, by mark: `of('serial', 'AB12')` are the ids of all with that serial number. */
export type KnownThings = { of(by: MatchedBy, mark: string, kindId: string): readonly string[] };

/**
 * Which thing is meant: the first mark in order that names exactly one decides. A mark that names several is asked
 * about, never guessed; a name counts within its kind alone.
 */
export function matchThing(
  said: Matched,
  known: KnownThings,
  order: readonly MatchedBy[] = MATCHED_BY,
): { id: string; by: MatchedBy } | { severalBy: MatchedBy } | null {
  for (const by of order) {
    const mark = toMark(said[by]);
    const ids = mark === '' ? [] : known.of(by, mark, said.kindId);
    if (ids.length === 1) return { id: ids[0]!, by };
    if (ids.length > 1) return { severalBy: by };
  }
  return null;
}
