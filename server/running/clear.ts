import type { TimerHandler } from '../timers/runner';
import type { UnitOfWork } from '../unitOfWork';

const DAY_MS = 86_400_000;
const AT_ONCE = 2_000;
const EVERY_MS = 3_600_000;

/** What is done and asked for by nobody any more goes after so many days; `old` says of a row that it may go. */
const RULES = [
  // An answer is given again to who sends the same thing again; nobody does so for days.
  { table: 'kept_answers', days: 2, old: 'at < :before' },
  { table: 'sessions', days: 30, old: 'seenAt < :before' },
  {
    ...{ table: 'bulk_items', days: 90 },
    old: "jobId IN (SELECT id FROM bulk_jobs WHERE at < :before AND state <> 'running')",
  },
  { table: 'replays', days: 90, old: "at < :before AND state <> 'running'" },
] as const;

/** What is cleared by itself, and after how many days. */
export const CLEARED = RULES.map(({ table, days }) => ({ table, days }));

async function clearNow({ listo, tx }: UnitOfWork): Promise<void> {
  for (const { table, days, old } of RULES)
    await listo.db.run(
      `DELETE FROM ${table} WHERE ${old} LIMIT :atOnce`,
      { before: listo.clock.now() - days * DAY_MS, atOnce: AT_ONCE },
      tx,
    );
}

/** Each hour some of what is done goes; the next hour's timer is set in the same transaction. */
export const clearAway: TimerHandler = async (listo, due, tx) => {
  await clearNow({ listo, tx });
  for (const { ref } of due)
    await listo.db.tables.timers.insert(
      { ticketNumber: 0, kind: 'clearAway', ref, at: listo.clock.now() + EVERY_MS },
      tx,
    );
};
