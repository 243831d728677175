/** Why a value is unusual: beyond a limit, one of many on one side of the mean, one of several near a limit. */
export type SignalRule = 'outside' | 'run' | 'near';

/** A line over time with what is usual of it; mean and limits are null where there are no values. */
export type ProcessChart = {
  mean: number | null;
  lower: number | null;
  upper: number | null;
  signals: { at: number; rule: SignalRule }[];
};

/** Three standard deviations in mean moving ranges of two, 3 / 1.128 (W. A. Shewhart's constant d2). */
const LIMIT = 2.66;
const TOLERANCE = 1e-9;
const LEAST_VALUES = 6;
const RUN = 8;
const [NEAR, NEAR_OF] = [3, 4];

/** By how far, in which direction: 0 within the tolerance. */
const sideOf = (distance: number, tolerance: number): number =>
  Math.abs(distance) <= tolerance ? 0 : Math.sign(distance);

/**
 * The chart of individual values (XmR): its limits are the mean ± 2.66 × the mean moving range. Unusual is what lies
 * beyond a limit, the eighth and later in a row on one side of the mean, and the third of four that are nearer to one
 * limit than to the mean. With fewer than six values nothing is said to be unusual.
 */
export function processChart(values: number[]): ProcessChart {
  if (values.length === 0) return { mean: null, lower: null, upper: null, signals: [] };
  const ranges = values.slice(1).map((value, i) => Math.abs(value - values[i]!));
  const range = ranges.length > 0 ? ranges.reduce((sum, each) => sum + each, 0) / ranges.length : 0;
  // Where nothing moves, the mean is that value itself, without what adding up would do to it.
  const mean = range === 0 ? values[0]! : values.reduce((sum, each) => sum + each, 0) / values.length;
  const reach = LIMIT * range;
  const chart = { mean, lower: mean - reach, upper: mean + reach };
  if (values.length < LEAST_VALUES) return { ...chart, signals: [] };
  const tolerance = TOLERANCE * range;
  const sides = values.map((value) => sideOf(value - mean, tolerance));
  const near = values.map((value) => {
    const side = Math.sign(value - mean);
    return Math.abs(value - mean) - reach / 2 > tolerance ? side : 0;
  });
  const isOutside = (i: number): boolean => Math.abs(values[i]! - mean) - reach > tolerance;
  const isRun = (i: number): boolean =>
    i + 1 >= RUN && sides[i] !== 0 && sides.slice(i + 1 - RUN, i + 1).every((side) => side === sides[i]);
  const isNear = (i: number): boolean =>
    near[i] !== 0 &&
    near.slice(Math.max(0, i + 1 - NEAR_OF), i + 1).filter((side) => side === near[i]).length >= NEAR;
  const signals = values.flatMap((_, at): ProcessChart['signals'] => {
    if (isOutside(at)) return [{ at, rule: 'outside' }];
    if (isRun(at)) return [{ at, rule: 'run' }];
    return isNear(at) ? [{ at, rule: 'near' }] : [];
  });
  return { ...chart, signals };
}
