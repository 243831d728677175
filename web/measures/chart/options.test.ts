import { LineChart } from 'echarts/charts';
import { init, use as take } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import {
  AriaComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TooltipComponent,
} from 'echarts/components';
import { SHOWS, type Chart } from '../../../core/measures';
import { figureChart, figuresOf, partOf } from '../../testing/figures';
import {
  byHourOfWeek,
  isDrawn,
  judged,
  pointAt,
  toOption,
  type ChartColours,
  type ChartSayings,
} from './options';

const HOUR = 3_600_000;
const WEEK = 7 * 24 * HOUR;
const MONDAY = Date.parse('2026-10-05T00:00:00+01:00');
const weeks = (count: number): number[] => Array.from({ length: count }, (_, i) => MONDAY + i * WEEK);
const colours: ChartColours = {
  ...{ ink: '#1', muted: '#2', hairline: '#3', panel: '#4', tint: '#5', warn: '#6', signal: '#7' },
  series: ['#a', '#b', '#c'],
};
const says: ChartSayings = {
  ...{ figure: (value) => `${value} of them`, bucket: (at) => new Date(at).toISOString().slice(0, 10) },
  ...{ value: (key) => `part ${String(key)}`, span: (minutes) => `${minutes} min`, number: String },
  ...{ t: (key) => key, weekdays: ['m', 't', 'w', 't', 'f', 's', 's'] },
};
type Option = {
  series: {
    type: string;
    data: unknown[];
    stack?: string;
    name?: string;
    markLine?: { data: { yAxis: number }[] };
  }[];
  xAxis: { data?: string[] };
  legend?: { data?: string[] };
};
const drawn = (chart: Chart, answer: ReturnType<typeof figuresOf>): Option =>
  toOption({ chart, answer, says, colours }) as unknown as Option;

describe('over time', () => {
  const answer = figuresOf(
    [partOf('desk', 6, { values: [1, 2, 3] }), partOf(null, 3, { values: [1, null, 2] })],
    { buckets: weeks(3) },
  );

  test('every part is a series with its values by bucket', () => {
    const option = drawn(figureChart('line', { by: 'teamId', every: 'week' }), answer);
    expect(option.series.map(({ name, data }) => [name, data])).toEqual([
      ['part desk', [1, 2, 3]],
      ['part null', [1, null, 2]],
    ]);
    expect(option.xAxis.data).toEqual(['2026-10-04', '2026-10-11', '2026-10-18']);
  });

  test('bars of what adds up stand on each other, others do not', () => {
    const stacks = (what: Chart['what']) =>
      drawn(figureChart('bars', { by: 'teamId', every: 'week', what }), answer).series.map(
        ({ stack }) => stack,
      );
    expect(stacks('count')).toEqual(['all', 'all']);
    expect(stacks({ sum: 'toDone' })).toEqual(['all', 'all']);
    expect(stacks({ median: 'toDone' })).toEqual([undefined, undefined]);
  });

  test('what is aimed at is a line across', () => {
    const option = drawn(figureChart('line', { every: 'week', aim: 90 }), answer);
    expect(option.series[0]!.markLine!.data).toEqual([{ yAxis: 90 }]);
  });
});

describe('what is usual', () => {
  const values = [10, 11, 9, 10, 12, 10, 40, 3];
  const answer = figuresOf([partOf(null, 0, { values })], { buckets: weeks(8), at: MONDAY + 7.5 * WEEK });

  test('is judged without the week that still goes on', () => {
    expect(judged(answer).known).toEqual(values.slice(0, 7));
    expect(judged({ ...answer, at: MONDAY + 9 * WEEK }).known).toHaveLength(7);
  });

  test('has its limits drawn, and what is unusual stands out', () => {
    const { chart } = judged(answer);
    expect(chart.signals.map(({ at }) => at)).toContain(6);
    const option = drawn(figureChart('process', { every: 'week' }), answer);
    expect(option.series[0]!.markLine!.data.map(({ yAxis }) => yAxis)).toEqual([
      chart.mean,
      chart.lower,
      chart.upper,
    ]);
    const marks = option.series[0]!.data as { symbol: string }[];
    expect(marks.map(({ symbol }) => symbol)).toEqual([
      ...Array.from({ length: 6 }, () => 'circle'),
      'diamond',
      'circle',
    ]);
  });
});

test('hours of the week add up over the weeks, also over the change of the clocks', () => {
  // Sunday 25 October 2026 has 25 hours in Lisbon: the hour from one to two comes twice.
  const from = Date.parse('2026-10-24T23:00:00Z');
  const buckets = Array.from({ length: 25 }, (_, i) => from + i * HOUR);
  const hours = byHourOfWeek(figuresOf([partOf(null, 25, { values: buckets.map(() => 1) })], { buckets }));
  expect(hours.reduce((sum, count) => sum + count, 0)).toBe(25);
  expect(hours.slice(144, 147)).toEqual([1, 2, 1]);
});

describe('the course of tickets', () => {
  const course = {
    flow: [
      { opened: 3, ended: 1, open: 2 },
      { opened: 0, ended: 0, open: 2 },
    ],
    ...{ ageing: [], survival: null, expected: [] },
  };
  test('says nothing of what is yet to come', () => {
    const answer = figuresOf([], { course, buckets: weeks(2), at: MONDAY + HOUR });
    expect(drawn(figureChart('flow', { every: 'week' }), answer).series[2]!.data).toEqual([2, null]);
  });

  test('names of the band only what one can read', () => {
    const hour = { at: MONDAY, mean: 2.5, low: 1, high: 5, agents: 2 };
    const answer = figuresOf([], { course: { ...course, expected: [hour] } });
    const option = drawn(figureChart('expected'), answer);
    expect(option.legend!.data).not.toContain('low');
    expect(option.series.map(({ data }) => data)).toEqual([[1], [4], [2.5], [2]]);
  });
});

describe('a point that is clicked', () => {
  const answer = figuresOf([partOf('desk', 1), partOf('network', 2, { spread: [1, 2, 3, 4, 5] })], {
    buckets: weeks(2),
  });
  test.each<[string, Chart, object, object | null]>([
    [
      'a bar of a part',
      figureChart('bars', { by: 'teamId', every: 'week' }),
      { seriesIndex: 1, dataIndex: 1 },
      { key: 'network', bucket: weeks(2)[1] },
    ],
    [
      'a point of the only line',
      figureChart('line', { every: 'week' }),
      { dataIndex: 0 },
      { bucket: MONDAY },
    ],
    ['a box', figureChart('box', { by: 'teamId' }), { dataIndex: 0 }, { key: 'network' }],
    ['what is beyond', figureChart('line', { every: 'week' }), { dataIndex: 7 }, null],
    ['an hour of the week', figureChart('heat', { every: 'hour' }), { dataIndex: 0 }, null],
  ])('%s', (_, chart, clicked, point) => {
    expect(pointAt(chart, answer, clicked)).toEqual(point);
  });
});

test('numbers, lists and tables are no drawings; what is drawn is drawn by the library', () => {
  const plain = SHOWS.filter((show) => !isDrawn({ show, every: null }));
  expect(plain.sort()).toEqual(['ageing', 'bars', 'number', 'shares', 'table']);
  expect(isDrawn({ show: 'bars', every: 'week' })).toBe(true);
  expect(() => drawn(figureChart('number'), figuresOf([]))).toThrow(RangeError);
  take([
    LineChart,
    SVGRenderer,
    AriaComponent,
    GridComponent,
    LegendComponent,
    MarkLineComponent,
    TooltipComponent,
  ]);
  const chart = init(null, null, { renderer: 'svg', ssr: true, width: 300, height: 200 });
  const answer = figuresOf([partOf(null, 3, { values: [1, 2] })], { buckets: weeks(2) });
  chart.setOption(drawn(figureChart('line', { every: 'week' }), answer));
  expect(chart.renderToSVGString()).toContain('2026-10-04');
  chart.dispose();
});
