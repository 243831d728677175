import { WEEKDAYS, type CalendarSpec, type Window } from './types';

/** Minutes of a day without a change of the clocks. */
export const DAY_MINUTES = 1440;
/** Minutes of a week without a change of the clocks. */
export const WEEK_MINUTES = 7 * DAY_MINUTES;

/** Minutes of the week, from Monday 00:00; `to` may lie beyond the week's end when it runs into Monday. */
export type WeekSpan = { from: number; to: number };
type Weekly = CalendarSpec['weekly'];

const minutesOf = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
const timeOf = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

function spanOf(day: number, { from, to }: Window): WeekSpan {
  const start = day * DAY_MINUTES + minutesOf(from);
  const end = day * DAY_MINUTES + minutesOf(to);
  return { from: start, to: end > start ? end : end + DAY_MINUTES };
}

/** The working spans of a week inside [0, WEEK_MINUTES), merged and in order: what a drawn week shows. */
export function toSpans(weekly: Weekly): WeekSpan[] {
  const spans = WEEKDAYS.flatMap((day, i) => (weekly[day] ?? []).map((window) => spanOf(i, window)));
  return mergeSpans(
    spans.flatMap(({ from, to }) =>
      to <= WEEK_MINUTES
        ? [{ from, to }]
        : [
            { from, to: WEEK_MINUTES },
            { from: 0, to: to - WEEK_MINUTES },
          ],
    ),
  );
}

function mergeSpans(spans: WeekSpan[]): WeekSpan[] {
  const merged: WeekSpan[] = [];
  for (const { from, to } of [...spans].sort((a, b) => a.from - b.from)) {
    const last = merged.at(-1);
    if (last && from <= last.to) last.to = Math.max(last.to, to);
    else if (to > from) merged.push({ from, to });
  }
  return merged;
}

/** Windows of a span: one that runs over midnight stays whole when it is shorter than a day, a longer one is cut at midnights. */
function windowsOf({ from, to }: WeekSpan): { day: number; window: Window }[] {
  const windows: { day: number; window: Window }[] = [];
  for (let at = from; at < to;) {
    const day = Math.floor(at / DAY_MINUTES);
    const midnight = (day + 1) * DAY_MINUTES;
    const isShift = to > midnight && to - at < DAY_MINUTES && at > day * DAY_MINUTES;
    const end = to <= midnight || isShift ? to : midnight;
    const endOfDay = end - day * DAY_MINUTES;
    const until = endOfDay > DAY_MINUTES ? endOfDay - DAY_MINUTES : endOfDay;
    windows.push({ day: day % 7, window: { from: timeOf(at - day * DAY_MINUTES), to: timeOf(until) } });
    at = end;
  }
  return windows;
}

/** A week's windows from its working spans. A span that ends the week and one that begins it are one shift. */
export function fromSpans(spans: WeekSpan[]): Weekly {
  const merged = mergeSpans(spans);
  const [first, last] = [merged[0], merged.at(-1)];
  if (first && last && first !== last && first.from === 0 && last.to === WEEK_MINUTES) {
    last.to += first.to;
    merged.shift();
  }
  const weekly: Weekly = {};
  for (const { day, window } of merged.flatMap(windowsOf)) (weekly[WEEKDAYS[day]!] ??= []).push(window);
  for (const windows of Object.values(weekly)) windows.sort((a, b) => minutesOf(a.from) - minutesOf(b.from));
  return weekly;
}

/**
 * The week with a stretch of it made working time, or free.
 * @example paintWeek({}, { from: 480, to: 1080 }, true) // { mon: [{ from: '08:00', to: '18:00' }] }
 */
export function paintWeek(weekly: Weekly, stretch: WeekSpan, isWorking: boolean): Weekly {
  const spans = toSpans(weekly);
  if (isWorking) return fromSpans([...spans, stretch]);
  return fromSpans(
    spans.flatMap(({ from, to }) => [
      { from, to: Math.min(to, stretch.from) },
      { from: Math.max(from, stretch.to), to },
    ]),
  );
}
