import { toEventType, WEBHOOK_KINDS } from '../../core/webhooks';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import { readClosedTeams } from '../sessions/viewer';
import { visibleTo } from '../tickets/visibility';
import { composeEvents, type WebhookBody } from './compose';
import type { WebhookRow } from './model';

/** What is sent where nothing has happened yet that could be told. */
const MADE_UP: Omit<WebhookBody, 'timestamp'> = {
  type: toEventType('sent'),
  data: { entryId: 0, ticket: { number: 1, title: 'An example', state: 'received' }, changes: {} },
};

/**
 * An example of what a webhook would be told: the newest event of its kinds that its program may know, marked as an
 * example.
 */
export async function composeExample(listo: Listo, webhook: WebhookRow): Promise<WebhookBody> {
  const program = (await listo.db.tables.programs.findOne({ id: webhook.programId }))!;
  const closedTeamIds = await readClosedTeams(listo, program);
  const { sql, values } = visibleTo({ ...program, closedTeamIds });
  const kinds: string[] = webhook.kinds.length > 0 ? webhook.kinds : WEBHOOK_KINDS;
  const [newest] = await listo.db.select<{ id: number }>(
    `SELECT j.id FROM journal j JOIN tickets t ON t.number = j.ticketNumber
     WHERE j.type IN (:kinds) AND j.audience = 'requester' AND t.isConfidential = 0 AND ${sql} ORDER BY j.id DESC LIMIT 1`,
    { kinds, ...values },
  );
  const timestamp = new Date(listo.clock.now()).toISOString();
  const [event] = newest
    ? await listo.db.transaction(async (tx) => {
        const entry = (await listo.db.tables.journal.findOne({ id: newest.id }, tx)) as JournalRow;
        const ticket = (await listo.db.tables.tickets.findOne({ number: entry.ticketNumber! }, tx))!;
        return composeEvents({ listo, tx }, [entry], new Map([[ticket.number, ticket]]));
      })
    : [];
  const body = event?.body ?? { ...MADE_UP, timestamp };
  return { ...body, data: { ...body.data, isExample: true } };
}
