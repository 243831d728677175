/**
 * The quantile of some values by linear interpolation between order statistics (R. J. Hyndman and Y. Fan, 1996, type 7);
 * null where there are none.
 * @throws RangeError where q lies outside [0, 1]
 */
export function quantile(values: number[], q: number): number | null {
  if (!(q >= 0 && q <= 1)) throw new RangeError(`${q}: a quantile lies between 0 and 1`);
  return quantileOfSorted(Float64Array.from(values).sort(), q);
}

function quantileOfSorted(sorted: Float64Array, q: number): number | null {
  if (sorted.length === 0) return null;
  const at = (sorted.length - 1) * q;
  const below = Math.floor(at);
  const low = sorted[below]!;
  return at === below ? low : low + (at - below) * (sorted[below + 1]! - low);
}

/** Some values in a few figures; null where there are none. */
export type Summary = {
  count: number;
  sum: number;
  mean: number | null;
  median: number | null;
  p90: number | null;
  least: number | null;
  most: number | null;
};

/** How many values, their sum, mean, median, ninth decile, least and most. */
export function summarise(values: number[]): Summary {
  const sorted = Float64Array.from(values).sort();
  const count = sorted.length;
  const sum = values.reduce((total, value) => total + value, 0);
  return {
    ...{ count, sum, mean: count > 0 ? sum / count : null },
    ...{ median: quantileOfSorted(sorted, 0.5), p90: quantileOfSorted(sorted, 0.9) },
    ...{ least: sorted[0] ?? null, most: sorted[count - 1] ?? null },
  };
}
