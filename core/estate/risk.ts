import type { Level } from './types';

/** 95 % of a normal distribution lie within so many deviations of its mean. */
const Z = 1.959964;

/**
 * The score interval of a share (E. B. Wilson, 1927): within which bounds the true share lies when k of n were so.
 * @param z deviations of the normal distribution, by default for 95 %
 * @throws RangeError unless k and n are whole, 0 ≤ k ≤ n and z > 0
 */
export function wilson(k: number, n: number, z = Z): { low: number; high: number } {
  if (!Number.isInteger(k) || !Number.isInteger(n) || k < 0 || k > n)
    throw new RangeError(`${k} of ${n}: whole numbers with 0 ≤ k ≤ n are asked for`);
  if (!(z > 0)) throw new RangeError(`${z}: more than 0 is asked for`);
  if (n === 0) return { low: 0, high: 1 };
  const share = k / n;
  const middle = share + (z * z) / (2 * n);
  const reach = z * Math.sqrt((share * (1 - share)) / n + (z * z) / (4 * n * n));
  const whole = 1 + (z * z) / n;
  return {
    low: k === 0 ? 0 : Math.max(0, (middle - reach) / whole),
    high: k === n ? 1 : Math.min(1, (middle + reach) / whole),
  };
}

/** How likely a change goes wrong, by the upper end of what past ones allow: to 10 % low, to 30 % medium. */
export function likelihoodOf({ failed, all }: { failed: number; all: number }): Level {
  const { high } = wilson(failed, all);
  if (high <= 0.1) return 'low';
  return high <= 0.3 ? 'medium' : 'high';
}

/** How much a change reaches: things that would be down, things with less behind them, people; `many` is what counts as many people. */
export function impactOf(
  { down, weakened, people }: { down: number; weakened: number; people: number },
  many: number,
): Level {
  if (down > 0 || people >= many) return 'high';
  return weakened > 0 || people > 0 ? 'medium' : 'low';
}

/** Risk by impact, then by likelihood. */
export const RISK_TABLE: Record<Level, Record<Level, Level>> = {
  low: { low: 'low', medium: 'low', high: 'medium' },
  medium: { low: 'medium', medium: 'medium', high: 'high' },
  high: { low: 'medium', medium: 'high', high: 'high' },
};

/** The risk of a change, by a table of impact and likelihood. */
export function riskOf(impact: Level, likelihood: Level, table = RISK_TABLE): Level {
  return table[impact][likelihood];
}
