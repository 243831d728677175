import type { Condition, Scalar } from '../conditions';
import { checkField } from '../worklist';
import { bucketAfter, bucketOf, listBuckets, type Unit } from './buckets';
import { FACT_FIELDS, getFactField, type FactKind } from './fields';
import type { What } from './figure';

/** What counts or sums facts. `at`: the instant by which a fact falls into the period. */
export type Measure = { of: FactKind; what: What; at: string; where: Condition };

/** The last so many hours, days, weeks …, the present one included. */
export type Stretch = { last: number; unit: Unit };

/** How a chart is drawn. */
export const SHOWS = [
  ...(['number', 'line', 'bars', 'shares', 'table', 'heat', 'process', 'box'] as const),
  ...(['flow', 'ageing', 'survival', 'expected'] as const),
];
/** How a chart is drawn. */
export type Show = (typeof SHOWS)[number];

/** A chart: a measure, parted by the values of a field, by time, or both. */
export type Chart = Measure & {
  id: string;
  /** Its own name; empty: its sentence. */
  title: string;
  show: Show;
  by: string | null;
  every: Unit | null;
  /** Its own stretch; null: that of its board. */
  stretch: Stretch | null;
  /** Whether it is compared with the stretch before. */
  isCompared: boolean;
  /** What is aimed at, in the measure's own unit; null: nothing. */
  aim: number | null;
  /** Of twelve columns. */
  width: 3 | 4 | 6 | 8 | 12;
};

/** What is wrong with a chart, and at which of its parts. */
export type ChartProblem = {
  code: 'unknownField' | 'notAskable' | 'wrongValue' | 'wrongShow' | 'tooMany';
  field: string;
};

/** So many stretches of time are shown at most. */
export const MOST_BUCKETS = 1_000;
const MOST_LAST: Record<Unit, number> = {
  hour: 1_000,
  day: 800,
  week: 270,
  month: 120,
  quarter: 40,
  year: 20,
};

/** The field that a measure reckons with; null: it counts. */
export function reckonedBy({ what }: Pick<Measure, 'what'>): string | null {
  if (what === 'count' || 'share' in what) return null;
  return Object.values(what)[0]!;
}

/** Whether a measure's figures of parts add up to that of the whole. */
const addsUp = ({ what }: Measure): boolean => what === 'count' || 'sum' in (what as object);
/** What is drawn from how tickets came, went and stayed, not from one figure a part. */
const OF_COURSE: readonly Show[] = ['flow', 'ageing', 'survival', 'expected'];
const COURSES: Partial<Record<FactKind, Show[]>> = {
  tickets: [...OF_COURSE],
  conversations: ['expected'],
};
/** Whether a chart is drawn from the course of tickets. */
export const isOfCourse = (show: Show): boolean => OF_COURSE.includes(show);

/** How a chart can be drawn, the fitting way first. */
export function showsFor(chart: Pick<Chart, 'of' | 'what' | 'at' | 'where' | 'by' | 'every'>): Show[] {
  const field = reckonedBy(chart);
  const isLength = field !== null && getFactField(chart.of, field)?.is === 'length';
  const course: Show[] = chart.what === 'count' ? (COURSES[chart.of] ?? []) : [];
  if (chart.every !== null)
    return [
      ...(chart.by === null ? (['line', 'bars', 'process'] as const) : (['line', 'bars'] as const)),
      ...(chart.every === 'hour' && chart.by === null && chart.what === 'count' ? (['heat'] as const) : []),
      'table',
      ...(chart.by === null ? course.filter((show) => show === 'flow') : []),
    ];
  if (chart.by !== null)
    return [
      'bars',
      ...(addsUp(chart) ? (['shares'] as const) : []),
      ...(isLength ? (['box'] as const) : []),
      'table',
    ];
  return ['number', ...course.filter((show) => show !== 'flow')];
}

function checkCondition(of: FactKind, condition: Condition): ChartProblem[] {
  if ('all' in condition) return condition.all.flatMap((part) => checkCondition(of, part));
  if ('any' in condition) return condition.any.flatMap((part) => checkCondition(of, part));
  if ('not' in condition) return checkCondition(of, condition.not);
  const field = getFactField(of, condition.field);
  if (!field) return [{ code: 'unknownField', field: condition.field }];
  const as: Parameters<typeof checkField>[0] =
    field.is === 'split' ? field.as : { kind: field.is === 'instant' ? 'instant' : 'number' };
  const code = checkField(as, condition);
  return code === null ? [] : [{ code, field: condition.field }];
}

/** What is wrong with a chart: fields that there are not (any more), ways in which it cannot be drawn. */
export function checkChart(chart: Chart): ChartProblem[] {
  const { of, what, at, where, by, show, stretch } = chart;
  const problems: ChartProblem[] = [];
  if (getFactField(of, at)?.is !== 'instant') problems.push({ code: 'unknownField', field: 'at' });
  const field = reckonedBy(chart);
  if (field !== null && !['length', 'amount'].includes(getFactField(of, field)?.is ?? ''))
    problems.push({ code: 'unknownField', field: 'what' });
  if (what !== 'count' && 'share' in what) problems.push(...checkCondition(of, what.share));
  problems.push(...checkCondition(of, where));
  if (by !== null && getFactField(of, by)?.is !== 'split')
    problems.push({ code: 'unknownField', field: 'by' });
  if (!showsFor(chart).includes(show)) problems.push({ code: 'wrongShow', field: 'show' });
  if (stretch && stretch.last > MOST_LAST[stretch.unit]) problems.push({ code: 'tooMany', field: 'stretch' });
  return problems;
}

/** Where a stretch begins and ends (ms since the epoch): it ends with the bucket in which `now` lies. */
export function periodOf({ last, unit }: Stretch, now: number, zone: string): { from: number; to: number } {
  let from = bucketOf(now, unit, zone);
  const to = bucketAfter(from, unit, zone);
  for (let i = 1; i < last; i++) from = bucketOf(from - 1, unit, zone);
  return { from, to };
}

/** The stretch of the same length before a period. */
export function periodBefore(
  { last, unit }: Stretch,
  from: number,
  zone: string,
): { from: number; to: number } {
  return { from: periodOf({ last, unit }, from - 1, zone).from, to: from };
}

/** Every bucket of a chart's period; none where it is not parted by time. @throws RangeError where there are too many */
export function bucketsOf(
  every: Unit | null,
  { from, to }: { from: number; to: number },
  zone: string,
): number[] {
  if (every === null) return [];
  const buckets = listBuckets(from, to, every, zone);
  if (buckets.length > MOST_BUCKETS) throw new RangeError(`${buckets.length} stretches of time are too many`);
  return buckets;
}

/**
 * What each chart of a board is narrowed to by what is chosen in the others, as a condition: the same as `narrowed` says
 * of facts. A chart whose facts do not have the field of a choice is not narrowed by it.
 */
export function conditionsOf(
  charts: Pick<Chart, 'id' | 'by' | 'of'>[],
  chosen: Record<string, Scalar[]>,
): Record<string, Condition> {
  const choices = charts.flatMap(({ id, by }) =>
    by !== null && Object.hasOwn(chosen, id) && chosen[id]!.length > 0
      ? [{ id, by, values: chosen[id]! }]
      : [],
  );
  return Object.fromEntries(
    charts.map(({ id, of }) => [
      id,
      {
        all: choices
          .filter((choice) => choice.id !== id && Object.hasOwn(FACT_FIELDS[of], choice.by))
          .map(({ by, values }) => oneOf(by, values)),
      },
    ]),
  );
}

/** That a field has one of some values; flags are asked one by one. */
export function oneOf(field: string, values: Scalar[]): Condition {
  const plain = values.filter((value) => typeof value !== 'boolean');
  const flags = values.filter((value) => typeof value === 'boolean');
  const parts: Condition[] = [
    ...(plain.length > 0 ? [{ field, op: 'in' as const, value: plain }] : []),
    ...flags.map((value) => ({ field, op: 'is' as const, value })),
  ];
  return parts.length === 1 ? parts[0]! : { any: parts };
}
