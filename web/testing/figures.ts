import type { ChartAnswer, ChartGroup } from '../../contract/measures';
import { chartOf, type Chart, type FactKind } from '../../core/measures';
import { AT } from './ticket';

/** A chart, as usual unless said otherwise. */
export const figureChart = (
  show: Chart['show'],
  given: Partial<Chart> = {},
  of: FactKind = 'tickets',
): Chart => ({
  ...chartOf(of, show, given),
  id: given.id ?? 'c1',
});

/** A part of a chart. */
export const partOf = (
  key: ChartGroup['key'],
  total: number | null,
  given: Partial<ChartGroup> = {},
): ChartGroup => ({
  ...{ key, name: null, total, before: null, count: total ?? 0, values: [], counts: [], spread: null },
  ...given,
});

/** What the server answers of a chart. */
export function figuresOf(groups: ChartGroup[], given: Partial<ChartAnswer> = {}): ChartAnswer {
  const total = groups.reduce((sum, group) => sum + (group.total ?? 0), 0);
  return {
    ...{
      at: AT,
      from: AT - 28 * 86_400_000,
      to: AT,
      zone: 'Europe/Lisbon',
      buckets: [],
      total,
      before: null,
    },
    ...{ count: total, groups, more: 0, course: null, isGathering: false },
    ...given,
  };
}
