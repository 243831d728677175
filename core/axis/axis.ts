import type { CompiledCalendar } from '../calendar';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const BACK = 2 * HOUR;
/** Closed stretches at least this long are folded, to the width that this much working time has. */
const FOLDED_FROM = 1.5 * HOUR;
const FOLDED_WIDTH = 0.6 * HOUR;

/** A piece of the axis; x runs from 0 to 1. Folded pieces stand for time in which nobody works. */
export type AxisPiece = { from: number; to: number; x0: number; x1: number; isFolded: boolean };

/** The shared scale of working time on which work is drawn where it falls due. */
export type Axis = {
  from: number;
  to: number;
  pieces: AxisPiece[];
  /** Where an instant lies, from 0 to 1; instants beyond the ends lie on them. */
  position(t: number): number;
  /** The instant at a position. */
  instantAt(x: number): number;
  /** Full hours inside open pieces, `everyHours` apart. */
  ticks(everyHours: number): number[];
};

/** The end of the working day after the one that is now (or comes next), capped at three days of round-the-clock. */
function endOfNextDay(calendar: CompiledCalendar, now: number): number {
  const windows = calendar.windowsBetween(now, now + 14 * DAY);
  const days: number[] = [];
  for (const { from, to } of windows) {
    if (to - from > DAY) return now + 2 * DAY - BACK;
    const last = days.at(-1);
    // Windows with a short break between them belong to one day.
    if (last !== undefined && from - last < 4 * HOUR) days[days.length - 1] = to;
    else days.push(to);
    if (days.length > 2) break;
  }
  return days[1] ?? days[0] ?? now + DAY;
}

function layOut(calendar: Pick<CompiledCalendar, 'windowsBetween'>, from: number, to: number): AxisPiece[] {
  const spans: { from: number; to: number; isFolded: boolean }[] = [];
  const add = (start: number, end: number, isFolded: boolean): void => {
    const last = spans.at(-1);
    if (last && !isFolded && !last.isFolded) last.to = end;
    else if (end > start) spans.push({ from: start, to: end, isFolded });
  };
  let at = from;
  for (const window of calendar.windowsBetween(from, to)) {
    if (window.from > at) add(at, window.from, window.from - at >= FOLDED_FROM);
    add(window.from, window.to, false);
    at = window.to;
  }
  if (at < to) add(at, to, to - at >= FOLDED_FROM);

  const widthOf = (span: (typeof spans)[number]): number =>
    span.isFolded ? FOLDED_WIDTH : span.to - span.from;
  const total = spans.reduce((sum, span) => sum + widthOf(span), 0);
  let x = 0;
  return spans.map((span) => {
    const x0 = x;
    x += widthOf(span) / total;
    return { ...span, x0, x1: x };
  });
}

/**
 * The axis from two hours back to the end of the next working day of a calendar, with what is closed folded thin.
 * @example createAxis(office, tenOClock).position(tenOClock) // a little right of the left edge
 */
export function createAxis(calendar: CompiledCalendar, now: number): Axis {
  return createAxisBetween(calendar, Math.floor((now - BACK) / HOUR) * HOUR, endOfNextDay(calendar, now));
}

/** The axis over a span of a calendar. Instants lie in time that is open, or folded. */
export function createAxisBetween(
  calendar: Pick<CompiledCalendar, 'windowsBetween'>,
  from: number,
  to: number,
): Axis {
  const pieces = layOut(calendar, from, to);

  function position(t: number): number {
    if (t <= from) return 0;
    const piece = pieces.find((candidate) => t <= candidate.to);
    if (!piece) return 1;
    return piece.x0 + ((t - piece.from) / (piece.to - piece.from)) * (piece.x1 - piece.x0);
  }

  function instantAt(x: number): number {
    if (x <= 0) return from;
    const piece = pieces.find((candidate) => x <= candidate.x1);
    if (!piece) return to;
    return Math.round(piece.from + ((x - piece.x0) / (piece.x1 - piece.x0)) * (piece.to - piece.from));
  }

  function ticks(everyHours: number): number[] {
    const marks: number[] = [];
    for (const piece of pieces.filter(({ isFolded }) => !isFolded))
      for (let t = Math.ceil(piece.from / HOUR) * HOUR; t < piece.to; t += everyHours * HOUR) marks.push(t);
    return marks;
  }

  return { from, to, pieces, position, instantAt, ticks };
}
