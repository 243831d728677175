import { replayClock } from './readClock';
import type { Calendars, ClockReading, ClockStretch, HistoryEvent, TargetDefinition } from './types';

/** A line of "why this time?": what a span added, and the counted total after it. */
export type ReckoningRow = {
  from: number;
  to: number;
  calendarId: string | null;
  kind: 'counted' | 'held' | 'outsideHours' | 'notCounted';
  /** Working time in the span. */
  worked: number;
  /** Counted working time from countedFrom until `to`. */
  total: number;
};

/** `plainElapsed` is the time that passed on the wall since countedFrom. */
export type Reckoning = { reading: ClockReading; rows: ReckoningRow[]; plainElapsed: number };

type Mode = ClockStretch['mode'];

/** Spans of a stretch, cut where working hours open and close. */
function spansOf({ from, to, calendarId }: ClockStretch, calendars: Calendars) {
  const spans: { from: number; to: number; isOpen: boolean }[] = [];
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

/**
 * Explains a clock span by span, cut where working hours open and close and where it begins to count otherwise. The counted rows add up to `elapsed`.
 * Spans from before the clock counted anything are left out.
 */
export function reckonClock(
  definition: TargetDefinition,
  calendars: Calendars,
  history: HistoryEvent[],
  now: number,
): Reckoning {
  const { reading, stretches } = replayClock(definition, calendars, history, now);
  const { countedFrom, startedAt } = reading;
  if (countedFrom === null || startedAt === null) return { reading, rows: [], plainElapsed: 0 };

  /** Stretches from before the start count too when the clock counts from the opening. */
  function modeOf(stretch: ClockStretch): Mode {
    const isEarlier = definition.countFrom === 'opened' && stretch.from < startedAt!;
    if (!isEarlier || countedFrom! >= startedAt!) return stretch.mode;
    return stretch.isPauseHeld && definition.excludeEarlierPauses ? 'paused' : 'running';
  }

  const rows: ReckoningRow[] = [];
  let total = 0;
  for (const stretch of stretches) {
    if (stretch.from < countedFrom) continue;
    const mode = modeOf(stretch);
    for (const { from, to, isOpen } of spansOf(stretch, calendars)) {
      const kind = kindOf(mode, isOpen);
      if (kind === 'counted') total += to - from;
      const worked = isOpen ? to - from : 0;
      const last = rows.at(-1);
      // What an event did not change for this clock goes on as one row.
      if (last && last.kind === kind && last.calendarId === stretch.calendarId && last.to === from)
        Object.assign(last, { to, worked: last.worked + worked, total });
      else rows.push({ from, to, calendarId: stretch.calendarId, kind, worked, total });
    }
  }
  return { reading, rows, plainElapsed: (reading.stoppedAt ?? now) - countedFrom };
}

function kindOf(mode: Mode, isOpen: boolean): ReckoningRow['kind'] {
  if (mode === 'idle') return 'notCounted';
  if (!isOpen) return 'outsideHours';
  return mode === 'paused' ? 'held' : 'counted';
}
