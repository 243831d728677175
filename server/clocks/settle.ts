import {
  calendarOf,
  heldSpans,
  isDelivered,
  replayClock,
  type Calendars,
  type ClockNotice,
  type ClockReading,
  type HistoryEvent,
} from '../../core/targets';
import type { ClockRow, TargetRow } from './model';

/** What is stored of a clock beside whose it is and what it owes. */
type StoredClock = Omit<ClockRow, 'ticketNumber' | 'work' | 'edition' | 'fired' | 'owed' | 'nextAt'>;

/** Reads a clock for storing, with the whole reading. */
export function toClockRow(
  target: TargetRow,
  calendars: Calendars,
  { history, now }: { history: HistoryEvent[]; now: number },
): { clock: StoredClock; reading: ClockReading } {
  const { reading, stretches } = replayClock(target.definition, calendars, history, now);
  const { percent: _, warnings: __, ...kept } = reading;
  return {
    clock: {
      targetId: target.id,
      ...kept,
      calendarId: calendarOf(stretches),
      held: heldSpans(stretches, reading),
    },
    reading,
  };
}

/** Names a notice: of which work and target, what, and when. */
export function toNoticeRef(
  work: string,
  { targetId, what }: { targetId: string; what: string },
  at: number,
): string {
  return [work, targetId, what, at].join('|');
}

export function fromNoticeRef(ref: string): { work: string; targetId: string; what: string; at: number } {
  const [work = '', targetId = '', what = '', at = ''] = ref.split('|');
  return { work, targetId, what, at: Number(at) };
}

/** Whether a stored clock has given a notice. @param readAt ms since 1970 */
export function isGiven(
  notice: ClockNotice,
  { fired, countedFrom }: Pick<ClockRow, 'fired' | 'countedFrom'>,
  readAt: number,
): boolean {
  const delivered = fired.map((ref): ClockNotice => {
    const { what, at } = fromNoticeRef(ref);
    return [what, at];
  });
  return isDelivered(notice, delivered, { countedFrom, readAt });
}
