import type { Condition } from '../conditions';
import { quantile, summarise } from './summary';

/** What a figure says of the facts that it counts. */
export type What =
  | 'count'
  | { sum: string }
  | { mean: string }
  | { median: string }
  | { p90: string }
  /** The share of those that meet it, in percent. */
  | { share: Condition };

/**
 * Facts as far as a figure needs them. `known`: how many hold something in the field that it reckons with, `sum`: how much
 * together; `values`: what, where a figure rests on each of them. `met`: how many meet its condition.
 */
export type Gathered = { count: number; met: number; known: number; sum: number; values: number[] };

/** No facts at all. */
export const NO_FACTS: Gathered = { count: 0, met: 0, known: 0, sum: 0, values: [] };

/** Whether a figure rests on every value, and not on their sum. */
export const restsOnValues = (what: What): boolean => what !== 'count' && ('median' in what || 'p90' in what);

/** The facts of several parts together. */
export function gatherAll(parts: Gathered[]): Gathered {
  const add = (of: 'count' | 'met' | 'known' | 'sum'): number =>
    parts.reduce((sum, part) => sum + part[of], 0);
  return {
    ...{ count: add('count'), met: add('met'), known: add('known'), sum: add('sum') },
    values: parts.length === 1 ? parts[0]!.values : parts.flatMap(({ values }) => values),
  };
}

/** The figure of some facts: a count, ms, percent or a plain number; null where there is nothing to say it of. */
export function figureOf(what: What, { count, met, known, sum, values }: Gathered): number | null {
  if (what === 'count') return count;
  if ('share' in what) return count === 0 ? null : (100 * met) / count;
  if ('sum' in what) return sum;
  if ('mean' in what) return known === 0 ? null : sum / known;
  return quantile(values, 'median' in what ? 0.5 : 0.9);
}

/** How values spread: the least, the quartiles with the median between, the most; null where there are none. */
export function spreadOf(values: number[]): [number, number, number, number, number] | null {
  const { least, median, most } = summarise(values);
  if (least === null || median === null || most === null) return null;
  return [least, quantile(values, 0.25)!, median, quantile(values, 0.75)!, most];
}
