import { useComputedColorScheme } from '@mantine/core';
import { useMemo } from 'react';
import type { ChartColours } from './options';

/** The colours of charts, read from the theme: what is drawn as SVG does not know its variables. */
export function useColours(): ChartColours {
  const scheme = useComputedColorScheme('light');
  return useMemo(() => {
    const style = getComputedStyle(document.documentElement);
    const of = (name: string): string => style.getPropertyValue(`--${name}`).trim() || '#888';
    return {
      ...{ ink: of('ink'), muted: of('muted'), hairline: of('hairline'), panel: of('panel') },
      ...{ tint: of('sea-tint'), warn: of('ochre'), signal: of('brick') },
      series: ['sea', 'ochre', 'burnt', 'brick', 'slate-edge', 'sea-edge', 'edge'].map(of),
    };
    // Another scheme gives the same names other colours.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [scheme]);
}
