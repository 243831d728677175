import type { HistoryEvent } from '../targets';

/** The part of a journal entry that clocks rest on. */
export type RecordedChange = {
  at: number;
  /** Values before and after, by field. */
  changes: Record<string, { from: unknown; to: unknown }>;
};

/**
 * The history that target clocks are read from: every recorded change, as the values that came to hold.
 * The fields are those of the ticket, plus `answered` and `taken`, which become true once.
 */
export function toHistory(entries: RecordedChange[]): HistoryEvent[] {
  return entries.map(({ at, changes }) => ({
    at,
    set: Object.fromEntries(Object.entries(changes).map(([field, { to }]) => [field, to])),
  }));
}
