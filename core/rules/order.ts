import type { Happening, Rule } from './types';

/** So many rules one after the other, and no further one is asked. */
export const LONGEST_CHAIN = 8;

const compare = <T extends string | number>(a: T, b: T): number => (a < b ? -1 : a > b ? 1 : 0);

/** The order in which rules are asked: by their place, then by id. */
export const inOrder = (a: Rule, b: Rule): number => compare(a.order, b.order) || compare(a.id, b.id);

/** Whether a rule may hear of what came about by rules: none goes round in a ring, no chain is without end. */
export const mayHear = (rule: Rule, { byRules }: Happening): boolean =>
  byRules.length < LONGEST_CHAIN && !byRules.includes(rule.id);
