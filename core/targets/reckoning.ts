import { replayClock } from './readClock';
import type { Calendars, ClockReading, ClockStretch, HistoryEvent, TargetDefinition } from './types';

/**
 * A line of "why this time?": what a span added, and the counted total after it. What is counted once it is past due
 * says so; what is left from now until it is due is still to come.
 */
export type ReckoningRow = {
  from: number;
  to: number;
  calendarId: string | null;
  kind: 'counted' | 'pastDue' | 'held' | 'outsideHours' | 'notCounted' | 'toCome';
  /** Working time in the span. */
  worked: number;
  /** Counted working time from countedFrom until `to`; of what is to come as well. */
  total: number;
};

/** Whether what was worked in a row adds to its total. */
export function addsToTotal(kind: ReckoningRow['kind']): boolean {
  return kind === 'counted' || kind === 'pastDue' || kind === 'toCome';
}

/** `plainElapsed` is the time that passed on the wall since countedFrom. */
export type Reckoning = { reading: ClockReading; rows: ReckoningRow[]; plainElapsed: number };

type Mode = ClockStretch['mode'];
type Span = { from: number; to: number; isOpen: boolean };

/** Spans of a stretch, cut where working hours open and close. */
function spansOf(
  { from, to, calendarId }: Pick<ClockStretch, 'from' | 'to' | 'calendarId'>,
  calendars: Calendars,
): Span[] {
  const spans: Span[] = [];
  const windows = calendarId === null ? [] : calendars[calendarId]!.windowsBetween(from, to);
  let at = from;
  for (const window of windows) {
    if (window.from > at) spans.push({ from: at, to: window.from, isOpen: false });
    spans.push({ ...window, isOpen: true });
    at = window.to;
  }
  if (at < to) spans.push({ from: at, to, isOpen: false });
  return spans;
}

/** A span as two where something falls into it. */
function cutAt({ from, to, isOpen }: Span, at: number | null): Span[] {
  return at === null || at <= from || at >= to
    ? [{ from, to, isOpen }]
    : [
        { from, to: at, isOpen },
        { from: at, to, isOpen },
      ];
}

/**
 * Explains a clock span by span, cut where working hours open and close, where it begins to count otherwise and where
 * it is due. The rows of what counted add up to `elapsed`, with those of what is to come to the limit. Spans from
 * before the clock counted anything are left out.
 */
export function reckonClock(
  definition: TargetDefinition,
  calendars: Calendars,
  history: HistoryEvent[],
  now: number,
): Reckoning {
  const { reading, stretches } = replayClock(definition, calendars, history, now);
  const { countedFrom, startedAt, dueAt } = reading;
  if (countedFrom === null || startedAt === null) return { reading, rows: [], plainElapsed: 0 };

  /** Stretches from before the start count too when the clock counts from the opening. */
  function modeOf(stretch: ClockStretch): Mode {
    const isEarlier = definition.countFrom === 'opened' && stretch.from < startedAt!;
    if (!isEarlier || countedFrom! >= startedAt!) return stretch.mode;
    return stretch.isPauseHeld && definition.excludeEarlierPauses ? 'paused' : 'running';
  }

  const rows: ReckoningRow[] = [];
  let total = 0;
  function add({ from, to, isOpen }: Span, calendarId: string | null, kind: ReckoningRow['kind']): void {
    if (addsToTotal(kind)) total += to - from;
    const worked = isOpen ? to - from : 0;
    const last = rows.at(-1);
    // What an event did not change for this clock goes on as one row.
    if (last && last.kind === kind && last.calendarId === calendarId && last.to === from)
      Object.assign(last, { to, worked: last.worked + worked, total });
    else rows.push({ from, to, calendarId, kind, worked, total });
  }
  for (const stretch of stretches) {
    if (stretch.from < countedFrom) continue;
    const mode = modeOf(stretch);
    for (const span of spansOf(stretch, calendars).flatMap((each) => cutAt(each, dueAt))) {
      const kind = kindOf(mode, span.isOpen);
      add(
        span,
        stretch.calendarId,
        kind === 'counted' && dueAt !== null && span.from >= dueAt ? 'pastDue' : kind,
      );
    }
  }
  const last = stretches.at(-1);
  if (last && reading.state === 'running' && dueAt !== null && dueAt > now)
    for (const span of spansOf({ from: now, to: dueAt, calendarId: last.calendarId }, calendars))
      add(span, last.calendarId, span.isOpen ? 'toCome' : 'outsideHours');
  return { reading, rows, plainElapsed: (reading.stoppedAt ?? now) - countedFrom };
}

function kindOf(mode: Mode, isOpen: boolean): ReckoningRow['kind'] {
  if (mode === 'idle') return 'notCounted';
  if (!isOpen) return 'outsideHours';
  return mode === 'paused' ? 'held' : 'counted';
}
