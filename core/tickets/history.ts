import { setOwn } from '../records';
import type { HistoryEvent } from '../targets';

/** The part of a journal entry that clocks rest on. */
export type RecordedChange = {
  at: number;
  /** Values before and after, by field. */
  changes: Record<string, { from: unknown; to: unknown }>;
};

/**
 * The history that target clocks are read from: every recorded change of a piece of work, as the values that came to
 * hold. `work` says from the opening on what kind it is.
 * @param work 'ticket', or another kind with its id, such as 'approval:x1'
 */
export function toHistory(entries: RecordedChange[], work = 'ticket'): HistoryEvent[] {
  const [kind] = work.split(':');
  return entries.map(({ at, changes }, i) => {
    const set: HistoryEvent['set'] = i === 0 ? { work: kind } : {};
    for (const field in changes) setOwn(set, field, changes[field]!.to);
    return { at, set };
  });
}
