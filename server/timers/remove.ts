import type { Transaction } from 'sequelize';
import type { Listo } from '../listo';
import type { TimerRow } from './model';

/** Removes just these timers, in one statement however many they are. */
export async function removeTimers(listo: Listo, timers: TimerRow[], tx: Transaction): Promise<void> {
  if (timers.length === 0) return;
  await listo.db.runBound(
    `DELETE t FROM timers t JOIN JSON_TABLE($1, '$[*]' COLUMNS
       (ticketNumber BIGINT PATH '$.ticketNumber', kind VARCHAR(20) PATH '$.kind', ref VARCHAR(160) PATH '$.ref')) d
       ON d.ticketNumber = t.ticketNumber AND d.kind = t.kind AND d.ref = t.ref`,
    [JSON.stringify(timers)],
    tx,
  );
}
