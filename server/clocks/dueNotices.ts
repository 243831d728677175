import type { Transaction } from 'sequelize';
import type { Database } from '../database/database';
import type { Due } from '../timers/model';
import type { ClockRow } from './model';
import { toNoticeRef } from './settle';

/** The notices that clocks owe by now, their rows locked; those that another process has locked are left to it. */
export async function findDueNotices(
  db: Database,
  { now, limit }: { now: number; limit: number },
  tx: Transaction,
): Promise<Due[]> {
  const clocks = await db.select<Pick<ClockRow, 'ticketNumber' | 'work' | 'targetId' | 'owed'>>(
    `SELECT ticketNumber, work, targetId, owed FROM clocks WHERE nextAt <= :now
     ORDER BY nextAt, ticketNumber LIMIT :limit FOR UPDATE SKIP LOCKED`,
    { now, limit },
    tx,
  );
  return clocks.flatMap(({ ticketNumber, work, targetId, owed }) =>
    owed
      .filter(([, at]) => at <= now)
      .map(([what, at]) => ({
        ticketNumber,
        kind: 'notice',
        ref: toNoticeRef(work, { targetId, what }, at),
        at,
      })),
  );
}
