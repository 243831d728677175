import type { Transaction } from 'sequelize';
import type { Database } from '../database/database';
import type { TimerRow } from './model';

/** Removes just these timers, in one statement however many they are. */
export async function removeTimers(db: Database, timers: TimerRow[], tx: Transaction): Promise<void> {
  if (timers.length === 0) return;
  await db.runBound(
    `DELETE t FROM timers t JOIN JSON_TABLE(?, '$[*]' COLUMNS
       (ticketNumber BIGINT PATH '$.ticketNumber', kind VARCHAR(20) PATH '$.kind', ref VARCHAR(160) PATH '$.ref')) d
       ON d.ticketNumber = t.ticketNumber AND d.kind = t.kind AND d.ref = t.ref`,
    [JSON.stringify(timers)],
    tx,
  );
}
