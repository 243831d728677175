import type { EChartsCoreOption } from 'echarts/core';
import type { ChartAnswer } from '../../../contract/measures';
import { hourOfWeek, processChart, type Chart, type ProcessChart } from '../../../core/measures';

/** The colours of charts, as the theme has them. */
export type ChartColours = Record<
  'ink' | 'muted' | 'hairline' | 'panel' | 'tint' | 'warn' | 'signal',
  string
> & {
  series: string[];
};

/** How parts and figures are said in a drawing. */
export type ChartSayings = {
  figure(value: number | null): string;
  bucket(at: number): string;
  value(key: ChartAnswer['groups'][number]['key'], name: string | null): string;
  span(minutes: number): string;
  number(value: number): string;
  t(key: string): string;
  weekdays: string[];
};

/** What stands beside the axes is within the drawing. */
const INSIDE = { outerBoundsMode: 'same', outerBoundsContain: 'axisLabel' };

type Drawn = { chart: Chart; answer: ChartAnswer; says: ChartSayings; colours: ChartColours };

const MINUTE = 60_000;

/** What a point that was clicked stands for: a part, a bucket, or both. */
export type Point = { key?: ChartAnswer['groups'][number]['key']; bucket?: number };

function frame({ colours, chart }: Drawn): EChartsCoreOption {
  const hasParts = chart.by !== null || chart.show === 'flow';
  return {
    animation: false,
    color: colours.series,
    textStyle: { fontFamily: 'inherit', color: colours.ink },
    grid: { ...INSIDE, left: 8, right: 16, top: 28, bottom: 4 },
    // Patterns beside colour: who does not tell colours apart tells the parts apart.
    aria: { enabled: true, decal: { show: hasParts } },
  };
}

const axis = ({ colours }: Drawn, given: object = {}) => ({
  axisLine: { lineStyle: { color: colours.hairline } },
  axisTick: { show: false },
  axisLabel: { color: colours.muted, hideOverlap: true },
  splitLine: { lineStyle: { color: colours.hairline } },
  ...given,
});

const valueAxis = (drawn: Drawn, given: object = {}) =>
  axis(drawn, {
    type: 'value',
    ...given,
    axisLabel: {
      color: drawn.colours.muted,
      hideOverlap: true,
      formatter: (value: number) => drawn.says.figure(value),
    },
  });

const tooltip = ({ colours, says }: Drawn, given: object = {}) => ({
  trigger: 'axis',
  confine: true,
  backgroundColor: colours.panel,
  borderColor: colours.hairline,
  textStyle: { color: colours.ink, fontSize: 12 },
  valueFormatter: (value: number | null) => says.figure(value),
  ...given,
});

const legend = ({ colours }: Drawn) => ({
  top: 0,
  left: 0,
  type: 'scroll',
  itemHeight: 10,
  textStyle: { color: colours.ink },
});

/** Lines or bars over time, a series a part. */
function overTime(drawn: Drawn): EChartsCoreOption {
  const { chart, answer, says, colours } = drawn;
  const isBars = chart.show === 'bars';
  const isStacked =
    isBars && chart.by !== null && (chart.what === 'count' || 'sum' in (chart.what as object));
  const aim = chart.aim === null ? {} : { markLine: aimLine(chart.aim, colours) };
  return {
    ...frame(drawn),
    tooltip: tooltip(drawn),
    ...(chart.by !== null && { legend: legend(drawn) }),
    xAxis: axis(drawn, {
      type: 'category',
      data: answer.buckets.map(says.bucket),
      splitLine: { show: false },
    }),
    yAxis: valueAxis(drawn, { min: 0 }),
    series: answer.groups.map(({ key, name, values }, i) => ({
      ...{ name: says.value(key, name), type: isBars ? 'bar' : 'line', data: values },
      ...(isStacked && { stack: 'all' }),
      ...(!isBars && { symbolSize: 6, connectNulls: false }),
      ...(i === 0 && aim),
    })),
  };
}

const aimLine = (aim: number, colours: ChartColours) => ({
  ...{ silent: true, symbol: 'none', label: { show: false } },
  lineStyle: { color: colours.warn, type: 'dashed' },
  data: [{ yAxis: aim }],
});

/** What is usual of the values of a chart; the bucket that is still going on is not judged. */
export function judged({ buckets, groups, at }: ChartAnswer): {
  known: number[];
  places: number[];
  chart: ProcessChart;
} {
  const values = groups[0]?.values ?? [];
  const places = values.flatMap((value, i) =>
    value === null || (buckets[i + 1] ?? Infinity) > at ? [] : [i],
  );
  const known = places.map((place) => values[place]!);
  return { known, places, chart: processChart(known) };
}

function process(drawn: Drawn): EChartsCoreOption {
  const { answer, colours } = drawn;
  const { places, chart } = judged(answer);
  const unusual = new Set(chart.signals.map(({ at }) => places[at]!));
  const values = answer.groups[0]?.values ?? [];
  const line = (at: number | null, type: string) => (at === null ? [] : [{ yAxis: at, lineStyle: { type } }]);
  return {
    ...overTime(drawn),
    legend: { show: false },
    series: [
      {
        ...{ type: 'line', lineStyle: { color: colours.muted }, symbol: 'circle' },
        data: values.map((value, i) => ({
          value,
          symbolSize: unusual.has(i) ? 13 : 7,
          symbol: unusual.has(i) ? 'diamond' : 'circle',
          itemStyle: { color: unusual.has(i) ? colours.signal : colours.series[0] },
        })),
        markLine: {
          ...{
            silent: true,
            symbol: 'none',
            label: { show: false },
            lineStyle: { color: colours.series[0] },
          },
          data: [
            ...line(chart.mean, 'solid'),
            ...line(chart.lower, 'dashed'),
            ...line(chart.upper, 'dashed'),
          ],
        },
      },
    ],
  };
}

/** How many came in each hour of the week. */
export function byHourOfWeek({ buckets, groups, zone }: ChartAnswer): number[] {
  const hours = Array.from({ length: 168 }, () => 0);
  buckets.forEach((bucket, i) => {
    hours[hourOfWeek(bucket, zone)]! += groups[0]?.values[i] ?? 0;
  });
  return hours;
}

function heat(drawn: Drawn): EChartsCoreOption {
  const { answer, says, colours } = drawn;
  const hours = byHourOfWeek(answer);
  return {
    ...frame(drawn),
    aria: { enabled: true },
    grid: { ...INSIDE, left: 8, right: 16, top: 8, bottom: 44 },
    tooltip: tooltip(drawn, {
      trigger: 'item',
      formatter: ({ value: [hour, day, count] }: { value: [number, number, number] }) =>
        `${says.weekdays[day]!} ${String(hour).padStart(2, '0')}:00 · ${says.number(count)}`,
    }),
    xAxis: axis(drawn, { type: 'category', data: Array.from({ length: 24 }, (_, i) => String(i)) }),
    yAxis: axis(drawn, { type: 'category', inverse: true, data: says.weekdays }),
    visualMap: {
      ...{
        min: 0,
        max: Math.max(1, ...hours),
        orient: 'horizontal',
        left: 'center',
        bottom: 0,
        itemHeight: 120,
      },
      inRange: { color: [colours.tint, colours.series[0]] },
      textStyle: { color: colours.muted },
    },
    series: [
      {
        ...{ type: 'heatmap', itemStyle: { borderColor: colours.panel, borderWidth: 1 } },
        data: hours.map((count, i) => [i % 24, Math.floor(i / 24), count]),
      },
    ],
  };
}

function box(drawn: Drawn): EChartsCoreOption {
  const { answer, says, colours } = drawn;
  const groups = answer.groups.filter(({ spread }) => spread !== null);
  return {
    ...frame(drawn),
    grid: { ...INSIDE, left: 8, right: 16, top: 8, bottom: 4 },
    tooltip: tooltip(drawn, {
      trigger: 'item',
      formatter: ({ dataIndex }: { dataIndex: number }) => {
        const { key, name, spread } = groups[dataIndex]!;
        return `${says.value(key, name)}<br>${spread!.map((value) => says.figure(value)).join(' · ')}`;
      },
    }),
    // From the least to the ninth tenth: one that took for months would press the rest together.
    xAxis: valueAxis(drawn, { min: 0, max: Math.max(1, ...groups.map(({ spread }) => spread![3]!)) * 1.6 }),
    yAxis: axis(drawn, {
      type: 'category',
      inverse: true,
      data: groups.map(({ key, name }) => says.value(key, name)),
    }),
    series: [
      {
        type: 'boxplot',
        itemStyle: { color: colours.tint, borderColor: colours.series[0] },
        data: groups.map(({ spread }) => spread!),
      },
    ],
  };
}

function flow(drawn: Drawn): EChartsCoreOption {
  const { answer, says, colours } = drawn;
  const course = answer.course?.flow ?? [];
  const bars = (name: 'opened' | 'ended') => ({
    ...{ name: says.t(`boards/flow/${name}`), type: 'bar' },
    data: course.map((each) => each[name]),
  });
  return {
    ...frame(drawn),
    tooltip: tooltip(drawn),
    legend: legend(drawn),
    xAxis: axis(drawn, {
      type: 'category',
      data: answer.buckets.map(says.bucket),
      splitLine: { show: false },
    }),
    yAxis: [valueAxis(drawn, { min: 0 }), valueAxis(drawn, { min: 0, splitLine: { show: false } })],
    series: [
      bars('opened'),
      bars('ended'),
      {
        ...{
          name: says.t('boards/flow/open'),
          type: 'line',
          yAxisIndex: 1,
          symbol: 'none',
          lineStyle: { width: 3 },
        },
        // Of a day that is yet to come nothing is known.
        data: course.map(({ open }, i) => (answer.buckets[i]! > answer.at ? null : open)),
        color: colours.series[2],
      },
    ],
  };
}

function survival(drawn: Drawn): EChartsCoreOption {
  const { answer, says } = drawn;
  const shares = answer.course?.survival?.shares ?? [];
  const percent = (value: number): string => `${says.number(value)} %`;
  return {
    ...frame(drawn),
    tooltip: tooltip(drawn, { valueFormatter: percent }),
    xAxis: axis(drawn, {
      type: 'category',
      data: shares.map(({ after }) => says.span(Math.round(after / MINUTE))),
      splitLine: { show: false },
    }),
    yAxis: axis(drawn, {
      type: 'value',
      min: 0,
      max: 100,
      axisLabel: { color: drawn.colours.muted, formatter: percent },
    }),
    series: [
      {
        ...{
          name: says.t('boards/survival/open'),
          type: 'line',
          step: 'end',
          symbol: 'none',
          areaStyle: { opacity: 0.15 },
        },
        data: shares.map(({ share }) => 100 * share),
      },
    ],
  };
}

/** What of an expectation is named; that the band begins at its low bound needs no name. */
const LEGEND = ['band', 'mean', 'agents'];

function expected(drawn: Drawn): EChartsCoreOption {
  const { answer, says, colours } = drawn;
  const hours = answer.course?.expected ?? [];
  const hasAgents = hours.some(({ agents }) => agents !== null);
  const band = { type: 'line', stack: 'band', symbol: 'none', lineStyle: { opacity: 0 } };
  return {
    ...frame(drawn),
    aria: { enabled: true },
    tooltip: tooltip(drawn, {
      formatter: (points: { dataIndex: number }[]) => {
        const hour = hours[points[0]!.dataIndex]!;
        const agents = hour.agents === null ? '' : `<br>${says.t('boards/expected/agents')}: ${hour.agents}`;
        return `${says.bucket(hour.at)}<br>${says.number(hour.mean)} (${hour.low}–${hour.high})${agents}`;
      },
    }),
    legend: { ...legend(drawn), data: LEGEND.map((name) => says.t(`boards/expected/${name}`)) },
    xAxis: axis(drawn, {
      type: 'category',
      data: hours.map(({ at }) => says.bucket(at)),
      splitLine: { show: false },
    }),
    yAxis: axis(drawn, { type: 'value', min: 0 }),
    series: [
      {
        ...band,
        name: 'low',
        data: hours.map(({ low }) => low),
        tooltip: { show: false },
        legendHoverLink: false,
      },
      {
        ...{ ...band, name: says.t('boards/expected/band'), color: colours.series[0] },
        ...{
          areaStyle: { color: colours.series[0], opacity: 0.2 },
          data: hours.map(({ low, high }) => high - low),
        },
      },
      {
        ...{ name: says.t('boards/expected/mean'), type: 'line', symbol: 'none', color: colours.series[0] },
        data: hours.map(({ mean }) => mean),
      },
      ...(hasAgents
        ? [
            {
              ...{ name: says.t('boards/expected/agents'), type: 'line', step: 'end', symbol: 'none' },
              ...{ color: colours.series[1], data: hours.map(({ agents }) => agents) },
            },
          ]
        : []),
    ],
  };
}

const DRAWN: Partial<Record<Chart['show'], (drawn: Drawn) => EChartsCoreOption>> = {
  ...{ line: overTime, bars: overTime, process, heat, box, flow, survival, expected },
};

/** Whether a chart is drawn by the library of charts; numbers and lists of bars are plain elements. */
export const isDrawn = ({ show, every }: Pick<Chart, 'show' | 'every'>): boolean =>
  DRAWN[show] !== undefined && (show !== 'bars' || every !== null);

/** What the library of charts draws. @throws RangeError where it draws no such chart */
export function toOption(drawn: Drawn): EChartsCoreOption {
  const draw = DRAWN[drawn.chart.show];
  if (!draw) throw new RangeError(`${drawn.chart.show} is drawn otherwise`);
  return draw(drawn);
}

/** What was clicked in a drawing; null: nothing that stands for facts of its own. */
export function pointAt(
  { show, by }: Pick<Chart, 'show' | 'by'>,
  { buckets, groups }: Pick<ChartAnswer, 'buckets' | 'groups'>,
  { seriesIndex = 0, dataIndex = 0 }: { seriesIndex?: number; dataIndex?: number },
): Point | null {
  if (show === 'box') {
    const group = groups.filter(({ spread }) => spread !== null)[dataIndex];
    return group ? { key: group.key } : null;
  }
  if (show !== 'line' && show !== 'bars' && show !== 'process') return null;
  const bucket = buckets[dataIndex];
  if (bucket === undefined) return null;
  return by === null ? { bucket } : { bucket, key: groups[seriesIndex]?.key ?? null };
}
