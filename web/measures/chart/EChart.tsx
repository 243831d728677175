import { BarChart, BoxplotChart, HeatmapChart, LineChart } from 'echarts/charts';
import {
  AriaComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TooltipComponent,
  VisualMapComponent,
} from 'echarts/components';
import { init, use as take, type EChartsCoreOption, type EChartsType } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';

take([BarChart, BoxplotChart, HeatmapChart, LineChart, SVGRenderer]);
take([
  ...[AriaComponent, GridComponent, LegendComponent, MarkLineComponent, TooltipComponent, VisualMapComponent],
]);

type Clicked = { seriesIndex?: number; dataIndex?: number };

/** A drawing by the library of charts, as large as what it stands in. */
export default function EChart({
  option,
  label,
  onClick,
}: {
  option: EChartsCoreOption;
  label: string;
  onClick(clicked: Clicked): void;
}) {
  const place = useRef<HTMLDivElement>(null);
  const drawn = useRef<EChartsType | null>(null);
  const clicked = useRef(onClick);
  useEffect(() => {
    clicked.current = onClick;
  }, [onClick]);
  useEffect(() => {
    const element = place.current;
    if (!element) return undefined;
    const chart = init(element, null, { renderer: 'svg' });
    drawn.current = chart;
    chart.on('click', (event) => clicked.current(event));
    const watching = new ResizeObserver(() => chart.resize());
    watching.observe(element);
    return () => {
      watching.disconnect();
      chart.dispose();
    };
  }, []);
  useEffect(() => {
    drawn.current?.setOption(option, { notMerge: true });
    // The library writes a label of its own, in its own language.
    place.current?.setAttribute('aria-label', label);
  }, [option, label]);
  return <div ref={place} role="img" aria-label={label} style={{ width: '100%', height: '100%' }} />;
}
