/** The normal quantile of a two-sided interval of 95 %. */
const Z = 1.959964;

/**
 * The lower bound of Wilson's score interval for a share, at 95 %: what it is at least, given how often it was asked.
 * E. B. Wilson, Probable inference, the law of succession, and statistical inference, JASA 22 (1927).
 * @returns between 0 and 1; 0 where nothing was asked
 * @example wilsonLower(180, 200) > wilsonLower(2, 2) // true
 */
export function wilsonLower(yes: number, all: number): number {
  if (all === 0) return 0;
  const share = yes / all;
  const square = Z * Z;
  const middle = share + square / (2 * all);
  const half = Z * Math.sqrt((share * (1 - share)) / all + square / (4 * all * all));
  return Math.max(0, (middle - half) / (1 + square / all));
}

/** The upper bound, by the same interval: what a share is at most. */
export const wilsonUpper = (yes: number, all: number): number =>
  all === 0 ? 1 : 1 - wilsonLower(all - yes, all);

/** How an article fared: how often it was opened, and how often those who said so were helped or not. */
export type Fared = { opened: number; helped: number; notHelped: number };

const LEAST_OPENED = 5;

/**
 * Those that are opened much and help little, the worst first: by the most that they can be said to help, times how
 * many it concerns. One that may help as much as all do together is not among them.
 */
export function rankByNeed<T extends Fared>(articles: T[]): T[] {
  const needOf = ({ opened, helped, notHelped }: Fared): number =>
    opened * (1 - wilsonUpper(helped, helped + notHelped));
  const helped = articles.reduce((sum, each) => sum + each.helped, 0);
  const judged = articles.reduce((sum, each) => sum + each.helped + each.notHelped, 0);
  const isLess = (each: Fared): boolean =>
    wilsonUpper(each.helped, each.helped + each.notHelped) * judged < helped;
  return articles
    .filter((each) => each.opened >= LEAST_OPENED && isLess(each))
    .sort((one, other) => needOf(other) - needOf(one));
}
