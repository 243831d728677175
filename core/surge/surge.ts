/** The least number of a double that has all its digits: 2^-1022 (IEEE 754). */
const LEAST_NORMAL = 2 ** -1022;

/**
 * Whether more has come than usual: the chance that a Poisson count with the usual mean is at least as large as what
 * came. Arrivals that do not depend on each other are so distributed; a small chance says that they do.
 * Exact sum of P(X = k) = e^-m m^k / k!, from the smaller side, in logarithms where it must be.
 * @example poissonTail(9, 3) // 0.0038: nine or more where three are usual
 */
export function poissonTail(count: number, mean: number): number {
  if (count <= 0) return 1;
  if (mean <= 0) return 0;
  let term = Math.exp(-mean);
  // Below the least normal number a term has lost digits already.
  if (term < LEAST_NORMAL) return largeTail(count, mean);
  let below = 0;
  for (let k = 0; k < count; k++) {
    below += term;
    term *= mean / (k + 1);
  }
  if (below < 0.999_999) return Math.max(0, 1 - below);
  // Close to one, what is left is summed itself: a difference would lose its digits.
  let above = 0;
  for (let k = count; term > above * 1e-17; k++) {
    above += term;
    term *= mean / (k + 1);
  }
  return above;
}

/** For means so large that e^-m is nothing: the same sum, each term from its logarithm. */
function largeTail(count: number, mean: number): number {
  let log = -mean + count * Math.log(mean);
  for (let k = 2; k <= count; k++) log -= Math.log(k);
  let sum = 0;
  for (let k = count; ; k++) {
    const term = Math.exp(log);
    sum += term;
    if (k > mean && term <= sum * 1e-17) return Math.min(1, sum);
    log += Math.log(mean / (k + 1));
  }
}

/** Tickets of one kind in one stretch of time, beside how many came in the same stretch of the week before. */
export type Arrivals = { key: string; count: number; before: number[] };

/** More of one kind than usual: how many came, how many do, and how likely that is by chance (0 to 1). */
export type Surge = { key: string; count: number; usual: number; chance: number };

/** What is never a surge, however unusual: two of anything happen. */
export const LEAST_COUNT = 4;
/** Where nothing ever came before, so much is taken to be usual: half a ticket over all the weeks looked at. */
const UNSEEN = 0.5;

/** How many are usual: the mean of the weeks before. */
export function usualOf(before: number[]): number {
  if (before.length === 0) return UNSEEN;
  return Math.max(UNSEEN / before.length, before.reduce((sum, count) => sum + count, 0) / before.length);
}

/**
 * The surges among some kinds of tickets, the least likely first. `alarmRate` is how often a quiet stretch may raise a
 * false alarm, for all kinds together (so each is judged by its share of it, after Bonferroni).
 * @param alarmRate from 0 to 1, such as 0.01: one quiet stretch in a hundred
 */
export function findSurges(arrivals: Arrivals[], alarmRate: number): Surge[] {
  const each = alarmRate / Math.max(1, arrivals.length);
  return arrivals
    .map(({ key, count, before }) => {
      const usual = usualOf(before);
      return { key, count, usual, chance: poissonTail(count, usual) };
    })
    .filter(({ count, chance }) => count >= LEAST_COUNT && chance <= each)
    .sort((one, other) => one.chance - other.chance);
}
