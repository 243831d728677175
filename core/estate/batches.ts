import { wilson } from './risk';

/** A thing as failures are counted: how often it was broken in the period. */
export type Fared = { id: string; model: string; failures: number };

/**
 * How the things of one model fared.
 * - failed: how many of all were broken at least once
 * - low, high: the score interval of that share
 * - isBad: more of them break than of all the others, beyond what chance would do
 */
export type Batch = {
  model: string;
  all: number;
  failed: number;
  low: number;
  high: number;
  isBad: boolean;
};

/** How models fared, those that break most surely first. What has no model is left out. */
export function batches(things: readonly Fared[]): Batch[] {
  const models = new Map<string, { all: number; failed: number }>();
  for (const { model, failures } of things) {
    if (model === '') continue;
    const counted = models.get(model) ?? { all: 0, failed: 0 };
    models.set(model, { all: counted.all + 1, failed: counted.failed + (failures > 0 ? 1 : 0) });
  }
  const total = [...models.values()].reduce(
    (sum, { all, failed }) => ({ all: sum.all + all, failed: sum.failed + failed }),
    { all: 0, failed: 0 },
  );
  return [...models]
    .map(([model, { all, failed }]) => {
      const { low, high } = wilson(failed, all);
      const others = wilson(total.failed - failed, total.all - all);
      // Two intervals that do not meet: a careful test, which seldom cries wolf.
      return { model, all, failed, low, high, isBad: total.all > all && low > others.high };
    })
    .sort((a, b) => b.low - a.low || a.model.localeCompare(b.model));
}
