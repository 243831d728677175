import { WEEKDAYS, type CalendarSpec, type Window } from './types';
import { createZoneClock, type ZoneClock } from './zone';

const DAY_MS = 86_400_000;

/** Working time as sorted, disjoint [start, end) instants, flattened for binary search. */
export type Edges = { starts: Float64Array; ends: Float64Array; before: Float64Array };

function minuteOf(time: string): number {
  return Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
}

/** A function from a range of local dates (epoch days, end exclusive) to the merged windows that start in it. */
export function createWindowBuilder(spec: CalendarSpec): (firstDay: number, endDay: number) => Edges {
  const weekly = WEEKDAYS.map((day) => spec.weekly[day] ?? []);
  const exceptions = new Map(
    spec.exceptions.map(({ date, windows }) => [Date.parse(`${date}T00:00:00Z`) / DAY_MS, windows]),
  );

  function windowsOf(epochDay: number): Window[] {
    // 1970-01-01 was a Thursday, the fourth day of the week.
    const weekday = (((epochDay + 3) % 7) + 7) % 7;
    return exceptions.get(epochDay) ?? weekly[weekday] ?? [];
  }

  function spansOf(zone: ZoneClock, epochDay: number): [number, number][] {
    const windows = windowsOf(epochDay);
    if (windows.length === 0 || !zone.hasDate(epochDay)) return [];
    return windows.map(({ from, to }) => {
      const [start, end] = [minuteOf(from), minuteOf(to)];
      const endsNextDay = end <= start || end === 1440;
      const ends = endsNextDay ? zone.toInstant(epochDay + 1, end % 1440) : zone.toInstant(epochDay, end);
      return [zone.toInstant(epochDay, start), ends];
    });
  }

  return (firstDay, endDay) => {
    const zone = createZoneClock(spec.timeZone, firstDay, endDay);
    const spans: [number, number][] = [];
    for (let day = firstDay; day < endDay; day++) spans.push(...spansOf(zone, day));
    return toEdges(merge(spans));
  };
}

function merge(spans: [number, number][]): [number, number][] {
  const sorted = spans.filter(([start, end]) => end > start).sort((a, b) => a[0] - b[0]);
  const merged: [number, number][] = [];
  for (const [start, end] of sorted) {
    const last = merged.at(-1);
    if (last && start <= last[1]) last[1] = Math.max(last[1], end);
    else merged.push([start, end]);
  }
  return merged;
}

function toEdges(spans: [number, number][]): Edges {
  const before = new Float64Array(spans.length + 1);
  spans.forEach(([start, end], i) => (before[i + 1] = before[i]! + end - start));
  return {
    starts: Float64Array.from(spans, ([start]) => start),
    ends: Float64Array.from(spans, ([, end]) => end),
    before,
  };
}
