import { clocksConsumer, settleClocks } from '../clocks/consumer';
import { appendSetting } from '../journal/append';
import { handleAfter } from '../journal/consumer';
import type { Listo } from '../listo';
import type { RecountRow } from './model';
import type { UnitOfWork } from '../unitOfWork';

const CHUNK = 1000;

/** Whether a recount waits for somebody to go on with it. */
export async function isRecountWaiting(listo: Listo): Promise<boolean> {
  const rows = await listo.db.select<{ id: number }>(
    'SELECT id FROM recounts WHERE finishedAt IS NULL LIMIT 1',
  );
  return rows.length > 0;
}

/** The next tickets to read: with going clocks of those promises, or all that are open. */
async function listNext(
  { listo: { db }, tx }: UnitOfWork,
  { targetIds, afterNumber }: RecountRow,
): Promise<number[]> {
  const values = { afterNumber, targetIds, limit: CHUNK };
  const rows = await db.select<{ number: number }>(
    targetIds
      ? `SELECT DISTINCT ticketNumber AS number FROM clocks WHERE ticketNumber > :afterNumber
         AND targetId IN (:targetIds) AND state IN ('running', 'paused') ORDER BY ticketNumber LIMIT :limit`
      : `SELECT number FROM tickets WHERE number > :afterNumber AND state IN ('received', 'inWork', 'held')
         ORDER BY number LIMIT :limit`,
    values,
    tx,
  );
  return rows.map(({ number }) => number);
}

/**
 * Reads the clocks of the next open tickets anew. The cursor of the clocks' consumer is held meanwhile, so that no
 * ticket is read twice at once and an older reading never overwrites a newer one; what waits for that consumer is
 * done first, so that clocks keep up with what happens while all are read.
 * @returns false when there is nothing (more) to do here
 */
export async function recountSome(listo: Listo): Promise<boolean> {
  const { db } = listo;
  return db.transaction(async (tx) => {
    const [recount] = await db.select<RecountRow>(
      'SELECT * FROM recounts WHERE finishedAt IS NULL ORDER BY id LIMIT 1 FOR UPDATE SKIP LOCKED',
      {},
      tx,
    );
    if (!recount) return false;
    const [cursor] = await db.select<{ position: number }>(
      'SELECT position FROM consumers WHERE name = :name FOR UPDATE',
      { name: clocksConsumer.name },
      tx,
    );
    if (cursor) await handleAfter({ listo, tx }, clocksConsumer, cursor);
    const { id, afterNumber, counted, moved, why, targetIds } = recount;
    const numbers = await listNext({ listo, tx }, recount);
    const now = numbers.length > 0 ? await settleClocks({ listo, tx }, numbers, targetIds) : 0;
    const isLast = numbers.length < CHUNK;
    await db.tables.recounts.update(
      { id },
      {
        afterNumber: numbers.at(-1) ?? afterNumber,
        counted: counted + numbers.length,
        moved: moved + now,
        ...(isLast && { finishedAt: listo.clock.now() }),
      },
      tx,
    );
    if (isLast)
      await appendSetting(
        { listo, tx },
        {
          by: null,
          type: 'recounted',
          data: { why, counted: counted + numbers.length, moved: moved + now },
        },
      );
    return true;
  });
}
