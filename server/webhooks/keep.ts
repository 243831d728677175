import { nanoid } from 'nanoid';
import { randomBytes } from 'node:crypto';
import type { WebhookBody, WebhookView } from '../../contract/webhooks';
import { checkSubscription, isTaken } from '../../core/webhooks';
import { change } from '../http/change';
import { mayCallOut } from '../http/outgoing';
import { ProblemError } from '../http/problems';
import { seal } from '../http/seal';
import { OK } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import type { Changing, UnitOfWork } from '../unitOfWork';
import type { WebhookRow } from './model';
import { tryToSend } from './send';
import { composeExample } from './example';

type Counts = { webhookId: string; state: string; count: number };

/** The webhooks of a program, with how much is in line for each. */
export async function listWebhooks({ db }: Listo, programId: string): Promise<WebhookView[]> {
  const webhooks = await db.tables.webhooks.find({ programId }, { order: ['name', 'id'] });
  const counts = await db.select<Counts>(
    `SELECT webhookId, state, COUNT(*) AS count FROM webhook_deliveries WHERE webhookId IN (:ids) AND state <> 'delivered'
     GROUP BY webhookId, state`,
    { ids: ['', ...webhooks.map(({ id }) => id)] },
  );
  const countOf = (id: string, state: string): number =>
    counts.find((each) => each.webhookId === id && each.state === state)?.count ?? 0;
  return webhooks.map(({ sealedSecret: _sealed, ...webhook }) => ({
    ...webhook,
    ...{ waiting: countOf(webhook.id, 'waiting'), undelivered: countOf(webhook.id, 'undelivered') },
  }));
}

function check(listo: Listo, body: WebhookBody): void {
  const fields = checkSubscription(body);
  if (!mayCallOut(listo, body.address)) fields.push({ field: 'address', code: 'addressNotAllowed' });
  if (fields.length > 0) throw new ProblemError('fieldsNotValid', { fields });
}

async function requireWebhook({ listo, tx }: UnitOfWork, id: string): Promise<WebhookRow> {
  const row = await listo.db.tables.webhooks.findOne({ id }, tx, true);
  if (!row) throw new ProblemError('notFound');
  return row;
}

/** Makes a webhook, switched off until a trial is taken. Its secret is in the answer alone. */
export function createWebhook(
  { listo, viewer, actor }: Changing,
  programId: string,
  body: WebhookBody,
): Promise<{ id: string; secret: string }> {
  check(listo, body);
  // The answer is not kept for a repeat: a secret would lie in the table of kept answers.
  return change(listo, { id: actor.id }, async (tx) => {
    if (!(await listo.db.tables.programs.findOne({ id: programId }, tx))) throw new ProblemError('notFound');
    const id = nanoid(12);
    const secret = `whsec_${randomBytes(24).toString('base64')}`;
    await listo.db.tables.webhooks.insert(
      {
        ...{ ...body, id, programId, sealedSecret: await seal(listo, `webhook ${id}`, secret) },
        ...{ isOn: false, triedAt: null, pausedUntil: null, createdAt: listo.clock.now(), version: 1 },
      },
      tx,
    );
    const data = { webhookId: id, name: body.name };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'webhookMade', data });
    return { id, secret };
  });
}

/** Changes a webhook. Another address has to be tried anew, and nothing is sent to it before. */
export function updateWebhook(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, ...body }: WebhookBody & { version: number },
): Promise<{ version: number }> {
  check(listo, body);
  return change(listo, actor, async (tx) => {
    const before = await requireWebhook({ listo, tx }, id);
    if (before.version !== version) throw new ProblemError('stale');
    const isMoved = before.address !== body.address;
    const next = version + 1;
    await listo.db.tables.webhooks.update(
      { id },
      { ...body, ...(isMoved && { isOn: false, triedAt: null, pausedUntil: null }), version: next },
      tx,
    );
    const data = { webhookId: id, name: body.name };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'webhookChanged', data });
    return { version: next };
  });
}

export function switchWebhook(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, isOn }: { version: number; isOn: boolean },
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const before = await requireWebhook({ listo, tx }, id);
    if (before.version !== version) throw new ProblemError('stale');
    if (isOn && before.triedAt === null) throw new ProblemError('webhookNotTried');
    const next = version + 1;
    await listo.db.tables.webhooks.update({ id }, { isOn, pausedUntil: null, version: next }, tx);
    const data = { webhookId: id, name: before.name, isOn };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'webhookSwitched', data });
    return { version: next };
  });
}

/** Does away with a webhook and with what is in line for it. */
export function removeWebhook({ listo, viewer, actor }: Changing, id: string): Promise<typeof OK> {
  return change(listo, actor, async (tx) => {
    const { name } = await requireWebhook({ listo, tx }, id);
    await listo.db.tables.deliveries.remove({ webhookId: id }, tx);
    await listo.db.tables.webhooks.remove({ id }, tx);
    const data = { webhookId: id, name };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'webhookRemoved', data });
    return OK;
  });
}

/** Sends an example to a webhook's address and says what was sent and how it was answered. */
export async function tryWebhook(
  { listo }: Changing,
  id: string,
): Promise<{ isTaken: boolean; status: number | null; answer: string; sent: string }> {
  const { tables } = listo.db;
  const webhook = await tables.webhooks.findOne({ id });
  if (!webhook) throw new ProblemError('notFound');
  const sent = JSON.stringify(await composeExample(listo, webhook), null, 2);
  const { status, answer } = await tryToSend(listo, webhook, { messageId: `msg_${nanoid()}`, body: sent });
  if (isTaken(status))
    await tables.webhooks.update(
      { id, address: webhook.address },
      { triedAt: listo.clock.now(), pausedUntil: null },
    );
  return { isTaken: isTaken(status), status, answer, sent };
}
