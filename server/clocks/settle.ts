import {
  replayClock,
  type Calendars,
  type ClockReading,
  type ClockStretch,
  type HistoryEvent,
} from '../../core/targets';
import { NOTHING_DUE } from '../tickets/model';
import type { ClockRow, TargetRow } from './model';

/** Adjoining held stretches as one; the last is open while the clock is held. */
function heldSpans(stretches: ClockStretch[], { state, countedFrom }: ClockReading): ClockRow['held'] {
  const spans: ClockRow['held'] = [];
  for (const { from, to, mode } of stretches) {
    if (mode !== 'paused' || (countedFrom !== null && from < countedFrom)) continue;
    const last = spans.at(-1);
    if (last && last[1] === from) last[1] = to;
    else spans.push([from, to]);
  }
  if (state === 'paused' && spans.length > 0) spans.at(-1)![1] = null;
  return spans;
}

/** What is stored of a clock beside whose it is and what it owes. */
type StoredClock = Omit<ClockRow, 'ticketNumber' | 'work' | 'edition' | 'fired' | 'owed' | 'nextAt'>;

/** Reads a clock for storing, with the whole reading. */
export function toClockRow(
  target: TargetRow,
  calendars: Calendars,
  history: HistoryEvent[],
  now: number,
): { clock: StoredClock; reading: ClockReading } {
  const { reading, stretches } = replayClock(target.definition, calendars, history, now);
  const { state, startedAt, countedFrom, elapsed, pausedFor, limit, dueAt, breachedAt, stoppedAt } = reading;
  const clock = {
    targetId: target.id,
    state,
    startedAt,
    countedFrom,
    elapsed,
    pausedFor,
    limit,
    dueAt,
    breachedAt,
    stoppedAt,
    calendarId:
      stretches.findLast(({ mode }) => mode !== 'idle')?.calendarId ?? stretches.at(-1)?.calendarId ?? null,
    held: heldSpans(stretches, reading),
  };
  return { clock, reading };
}

/** What a breach is called among notices; warnings are called by their percentage. */
export const LATE = 'late';

/** Names a notice: of which work and target, what, and when. */
export function toNoticeRef(work: string, targetId: string, what: string, at: number): string {
  return [work, targetId, what, at].join('|');
}

export function fromNoticeRef(ref: string): { work: string; targetId: string; what: string; at: number } {
  const [work = '', targetId = '', what = '', at = ''] = ref.split('|');
  return { work, targetId, what, at: Number(at) };
}

/**
 * Whether a notice counts as given: at that instant or, where it lies in the past, at another since the clock began to
 * count. A changed calendar moves what was crossed long ago, and nobody is to be told of it twice.
 */
export function isGiven(
  [what, at]: ClockRow['owed'][number],
  { fired, countedFrom }: Pick<ClockRow, 'fired' | 'countedFrom'>,
  readAt: number,
): boolean {
  return fired.some((ref) => {
    if (!ref.includes(`|${what}|`)) return false;
    const given = fromNoticeRef(ref);
    return given.at === at || (at <= readAt && countedFrom !== null && given.at >= countedFrom);
  });
}

/** The notices of a clock, past and to come, in their order: its breach and its warnings, each at its instant. */
export function noticesOf(
  target: TargetRow,
  calendars: Calendars,
  { clock, reading, readAt }: { clock: StoredClock; reading: ClockReading; readAt: number },
): ClockRow['owed'] {
  const { calendarId, limit, elapsed } = clock;
  const notices: ClockRow['owed'] = [];
  const lateAt = reading.breachedAt ?? (reading.state === 'running' ? reading.dueAt : null);
  if (lateAt !== null) notices.push([LATE, lateAt]);
  for (const { percent, at } of reading.warnings) notices.push([`${percent}`, at]);
  const inOrder = () => notices.sort(([, one], [, other]) => one - other);
  if (reading.state !== 'running' || calendarId === null || limit === null || reading.dueAt === null)
    return inOrder();
  const crossed = new Set(reading.warnings.map(({ percent }) => percent));
  for (const percent of new Set(target.definition.warnAtPercent)) {
    const missing = Math.ceil((percent * limit) / 100) - elapsed;
    if (!crossed.has(percent) && missing > 0)
      notices.push([`${percent}`, calendars[calendarId]!.addWorking(readAt, missing)]);
  }
  return inOrder();
}

export function tightestOf(rows: Pick<ClockRow, 'state' | 'dueAt'>[]): number {
  const due = rows.filter(
    ({ state, dueAt }) => (state === 'running' || state === 'paused') && dueAt !== null,
  );
  return Math.min(NOTHING_DUE, ...due.map(({ dueAt }) => dueAt!));
}
