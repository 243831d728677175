import type { Axis } from '../../../core/axis';
import type { LiveClock } from '../../ui/clocks';

type Span = { from: number; to: number };
/** A fuse on the axis; positions are shares of its width, from 0 to 1. */
export type FuseShape = {
  burnt: Span[];
  held: Span[];
  left: Span | null;
  /** From the due instant until now, when that has passed. */
  over: Span | null;
  tick: number | null;
  /** Where its words begin, and whether they stand inside, before that place. */
  words: { at: number; isInside: boolean };
};

/** Beyond this, words would run out at the right. */
const INSIDE_FROM = 0.76;
const LEAST = 0.002;

/** Cuts the held spans out of a stretch. */
function without(stretch: Span, held: Span[]): Span[] {
  const parts: Span[] = [];
  let at = stretch.from;
  for (const { from, to } of held) {
    if (from > at) parts.push({ from: at, to: Math.min(from, stretch.to) });
    at = Math.max(at, to);
  }
  if (at < stretch.to) parts.push({ from: at, to: stretch.to });
  return parts;
}

/** Lays a clock on the axis: burnt, held and left, up to the due tick. */
export function shapeFuse({ clock }: LiveClock, axis: Axis, now: number): FuseShape {
  const { countedFrom, dueAt, held, state } = clock;
  const x = (t: number): number => axis.position(t);
  const onAxis = ({ from, to }: Span): Span => ({ from: x(from), to: x(to) });
  const isLong = ({ from, to }: Span): boolean => to - from > LEAST;
  const start = countedFrom ?? now;
  const spans = held.map(([from, to]) => ({ from, to: to ?? now }));
  const isOver = dueAt !== null && now > dueAt;
  const end = isOver ? Math.max(dueAt, start) : now;
  const runsOn = dueAt !== null && !isOver && state === 'running';
  const last = Math.max(x(now), dueAt === null ? 0 : x(dueAt));
  return {
    burnt: without({ from: start, to: end }, spans).map(onAxis).filter(isLong),
    held: spans
      .filter(({ to }) => to > start)
      .map(({ from, to }) => onAxis({ from: Math.max(from, start), to: Math.min(to, end) }))
      .filter(isLong),
    left: runsOn ? onAxis({ from: now, to: dueAt }) : null,
    over: isOver ? onAxis({ from: dueAt, to: now }) : null,
    tick: dueAt !== null && dueAt >= axis.from && dueAt <= axis.to ? x(dueAt) : null,
    words: { at: last, isInside: last > INSIDE_FROM },
  };
}
