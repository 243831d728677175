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
  return entries.map(({ at, changes }, i) => ({
    at,
    set: {
      ...(i === 0 && { work: work.split(':')[0] }),
      ...Object.fromEntries(Object.entries(changes).map(([field, { to }]) => [field, to])),
    },
  }));
}
