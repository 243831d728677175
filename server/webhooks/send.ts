import { nextOf, parseRetryAfter, type Outcome } from '../../core/webhooks';
import { callOut, NotAllowed } from '../http/outgoing';
import { unseal } from '../http/seal';
import { startLoop, type Loop } from '../loops/loop';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import type { DeliveryRow, WebhookRow } from './model';

/** So many are on their way at once. */
const AT_ONCE = 24;
/** A receiver that fails is left alone for this long, however much is in line for it. */
const PAUSE_MS = 60_000;
/** What was delivered is kept for this long, and the record of calls as well. */
const KEPT_MS = 30 * 86_400_000;
const CLEARED_AT_ONCE = 500;
const FORGETTING_EVERY_MS = 3_600_000;
const ANSWER_LENGTH = 500;

export const secretOf = (listo: Listo, { id, sealedSecret }: WebhookRow): Promise<string> =>
  unseal(listo, `webhook ${id}`, sealedSecret);

/** Sends one message and says how that went. */
export async function tryToSend(
  listo: Listo,
  webhook: WebhookRow,
  { messageId, body }: Pick<DeliveryRow, 'messageId' | 'body'>,
): Promise<Outcome & { answer: string }> {
  try {
    const secret = await secretOf(listo, webhook);
    const of = { kind: 'webhook' as const, ref: webhook.id };
    const { status, text, retryAfter } = await callOut(listo, {
      ...{ address: webhook.address, body, id: messageId, of, secret },
    });
    const retryAfterMs = parseRetryAfter(retryAfter, listo.clock.now());
    return { status, retryAfterMs, answer: text.slice(0, ANSWER_LENGTH) };
  } catch (error) {
    const isRefused = error instanceof NotAllowed;
    return { status: null, isRefused, answer: (error as Error).message.slice(0, ANSWER_LENGTH) };
  }
}

/** The next of what is due: of one ticket only the first to each webhook, so that its events arrive in their order. */
function claim({ db, clock }: Listo): Promise<DeliveryRow[]> {
  return db.select<DeliveryRow>(
    `SELECT d.* FROM webhook_deliveries d JOIN webhooks w ON w.id = d.webhookId
     WHERE d.state = 'waiting' AND d.nextAt <= :now AND w.isOn AND (w.pausedUntil IS NULL OR w.pausedUntil <= :now)
       AND NOT EXISTS (SELECT 1 FROM webhook_deliveries e WHERE e.webhookId = d.webhookId AND e.ticketNumber = d.ticketNumber
         AND e.state = 'waiting' AND e.id < d.id)
     ORDER BY d.nextAt, d.id LIMIT :limit`,
    { now: clock.now(), limit: AT_ONCE },
  );
}

/** Switches off a webhook whose receiver said that it wants no more, and says so in the journal. */
function stop(listo: Listo, webhook: WebhookRow): Promise<void> {
  return listo.db.transaction(async (tx) => {
    await listo.db.tables.webhooks.update(
      { id: webhook.id },
      { isOn: false, version: webhook.version + 1 },
      tx,
    );
    const data = { webhookId: webhook.id, name: webhook.name, isOn: false };
    await appendSetting({ listo, tx }, { by: null, type: 'webhookSwitched', data });
  });
}

async function deliver(listo: Listo, webhook: WebhookRow, delivery: DeliveryRow): Promise<void> {
  const { tables } = listo.db;
  const outcome = await tryToSend(listo, webhook, delivery);
  const [tries, now] = [delivery.tries + 1, listo.clock.now()];
  const next = nextOf(outcome, tries, now);
  await tables.deliveries.update(
    { id: delivery.id, state: 'waiting' },
    {
      ...{ state: next.state, tries, lastAt: now, status: outcome.status, answer: outcome.answer },
      ...(next.state === 'waiting' && { nextAt: next.at }),
    },
  );
  if (next.state === 'delivered' && webhook.pausedUntil !== null)
    await tables.webhooks.update({ id: webhook.id }, { pausedUntil: null });
  if (next.state === 'waiting')
    await tables.webhooks.update({ id: webhook.id }, { pausedUntil: Math.min(next.at, now + PAUSE_MS) });
  if (next.state === 'undelivered' && next.stops) await stop(listo, webhook);
}

/** Forgets what was delivered long ago and the oldest calls, some in each go. */
export async function forgetOld({ db, clock }: Listo): Promise<void> {
  const values = { before: clock.now() - KEPT_MS, limit: CLEARED_AT_ONCE };
  await db.run(
    "DELETE FROM webhook_deliveries WHERE state = 'delivered' AND at < :before LIMIT :limit",
    values,
  );
  await db.run('DELETE FROM outgoing_calls WHERE at < :before LIMIT :limit', values);
}

/** Sends what is in line, by one process at a time. */
export function startWebhooks(listo: Listo): Loop {
  let forgotAt = -Infinity;
  return startLoop(listo, 'webhooks', async () => {
    const due = await claim(listo);
    if (due.length === 0 && performance.now() - forgotAt > FORGETTING_EVERY_MS) {
      forgotAt = performance.now();
      await forgetOld(listo);
    }
    const ids = [...new Set(due.map(({ webhookId }) => webhookId))];
    const webhooks = ids.length > 0 ? await listo.db.tables.webhooks.find({ id: ids }) : [];
    await Promise.all(
      due.map((delivery) =>
        deliver(
          listo,
          webhooks.find(({ id }) => id === delivery.webhookId)!,
          delivery,
        ),
      ),
    );
    return due.length;
  });
}
