import { useMemo } from 'react';
import { createAxis, type Axis } from '../../../core/axis';
import type { CompiledCalendar } from '../../../core/calendar';

const MINUTE = 60_000;

/** The axis of the viewer's calendar, laid out anew each minute. */
export function useAxis(calendar: CompiledCalendar | undefined, now: number): Axis | null {
  const minute = Math.floor(now / MINUTE) * MINUTE;
  return useMemo(() => (calendar ? createAxis(calendar, minute) : null), [calendar, minute]);
}
