import type { DeliveryView } from '../../contract/webhooks';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import type { Changing } from '../unitOfWork';
import type { DeliveryState } from './model';

const PAGE = 50;

/** What was told to a webhook, the newest first, without the messages themselves. */
export async function listDeliveries(
  { db }: Listo,
  webhookId: string,
  { state, before }: { state?: DeliveryState | undefined; before?: number | undefined },
): Promise<{ rows: DeliveryView[]; before: number | null }> {
  const parts = [
    'webhookId = :webhookId',
    ...(state ? ['state = :state'] : []),
    ...(before ? ['id < :before'] : []),
  ];
  const rows = await db.select<DeliveryView>(
    `SELECT id, messageId, entryId, ticketNumber, type, state, tries, at, nextAt, lastAt, status, answer
     FROM webhook_deliveries WHERE ${parts.join(' AND ')} ORDER BY id DESC LIMIT :limit`,
    { webhookId, state: state ?? '', before: before ?? 0, limit: PAGE + 1 },
  );
  return { rows: rows.slice(0, PAGE), before: rows.length > PAGE ? rows[PAGE - 1]!.id : null };
}

/** One delivery with the message that was sent. */
export async function readDelivery({ db }: Listo, id: number): Promise<DeliveryView & { body: string }> {
  const row = await db.tables.deliveries.findOne({ id });
  if (!row) throw new ProblemError('notFound');
  const { webhookId: _webhookId, ...delivery } = row;
  return delivery;
}

/** Puts what was not delivered in line once more: one, or all of a webhook. @returns how many */
export function sendAgain(
  { listo, actor }: Changing,
  which: { id: number } | { webhookId: string },
): Promise<{ count: number }> {
  return change(listo, actor, async (tx) => {
    const state: DeliveryState[] = 'id' in which ? ['delivered', 'undelivered'] : ['undelivered'];
    const again = { state: 'waiting' as const, tries: 0, nextAt: listo.clock.now() };
    const count = await listo.db.tables.deliveries.update({ ...which, state }, again, tx);
    if ('id' in which && count === 0) throw new ProblemError('notFound');
    return { count };
  });
}
