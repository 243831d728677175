import { nanoid } from 'nanoid';
import { holds, type Fields } from '../../core/conditions';
import { WEBHOOK_KINDS, hearsOf } from '../../core/webhooks';
import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import type { ProgramRow } from '../programs/model';
import { readClosedTeams } from '../sessions/viewer';
import { readFields } from '../rules/read';
import type { TicketRecord } from '../tickets/model';
import { visibleTo } from '../tickets/visibility';
import type { UnitOfWork } from '../unitOfWork';
import { composeEvents } from './compose';
import type { WebhookRow } from './model';

const KINDS = new Set<string>(WEBHOOK_KINDS);

/**
 * The tickets that a program may be told of: those that its account may read. Tickets of a team in confidence are told to
 * no program.
 */
async function readVisible(
  { listo, tx }: UnitOfWork,
  program: ProgramRow,
  numbers: number[],
): Promise<Map<number, TicketRecord>> {
  const closedTeamIds = await readClosedTeams(listo, program);
  const { sql, values } = visibleTo({ ...program, closedTeamIds });
  const rows = await listo.db.select<{ number: number }>(
    `SELECT t.number FROM tickets t WHERE t.number IN (:numbers) AND t.isConfidential = 0 AND ${sql}`,
    { numbers, ...values },
    tx,
  );
  const visible = rows.map(({ number }) => number);
  const tickets = visible.length
    ? await listo.db.tables.tickets.find({ number: visible }, { transaction: tx })
    : [];
  return new Map(tickets.map((ticket) => [ticket.number, ticket]));
}

/** Whether an account works at all: one that is switched off or over is told nothing. */
const works = ({ isOn, endsAt }: ProgramRow, now: number): boolean =>
  isOn && (endsAt === null || now < endsAt);

/** The requester's side alone where the account does not read the team's. */
const mayHear = ({ teams, isAdministrator }: ProgramRow, { audience }: JournalRow): boolean =>
  audience === 'requester' || isAdministrator || teams.length > 0;

type Heard = { entries: JournalRow[]; fields: Map<number, Fields> };

/** Puts what a webhook is told in line for it. */
async function enqueue(
  work: UnitOfWork,
  { webhook, program }: { webhook: WebhookRow; program: ProgramRow },
  { entries, fields }: Heard,
): Promise<void> {
  const { listo, tx } = work;
  const asked = entries.filter((entry) => {
    const facts = fields.get(entry.ticketNumber!);
    return (
      hearsOf(webhook, entry) &&
      mayHear(program, entry) &&
      facts !== undefined &&
      holds(webhook.provided, facts)
    );
  });
  if (asked.length === 0) return;
  const numbers = [...new Set(asked.map(({ ticketNumber }) => ticketNumber!))];
  const events = await composeEvents(work, asked, await readVisible(work, program, numbers));
  const now = listo.clock.now();
  await listo.db.tables.deliveries.insertAll(
    events.map(({ entry, body }) => ({
      ...{ messageId: `msg_${nanoid()}`, webhookId: webhook.id, entryId: entry.id },
      ...{
        ticketNumber: entry.ticketNumber!,
        type: body.type,
        body: JSON.stringify(body),
        state: 'waiting' as const,
      },
      ...{ tries: 0, at: now, nextAt: now, lastAt: null, status: null, answer: null },
    })),
    tx,
  );
}

/**
 * Puts what happens to tickets in line for the webhooks that want to know it. The rows commit together with the cursor, so
 * that an event is in line once.
 */
export const webhooksConsumer: Consumer = {
  name: 'webhooks',
  hears: ({ ticketNumber, type }) => ticketNumber !== null && KINDS.has(type),
  async handle(listo, entries, tx) {
    const { tables } = listo.db;
    const webhooks = await tables.webhooks.find({ isOn: true }, { transaction: tx });
    if (webhooks.length === 0) return;
    const programs = await tables.programs.find(
      { id: webhooks.map(({ programId }) => programId) },
      { transaction: tx },
    );
    const numbers = [...new Set(entries.map(({ ticketNumber }) => ticketNumber!))];
    const heard = { entries, fields: await readFields(listo, numbers, tx) };
    for (const webhook of webhooks) {
      const program = programs.find(({ id }) => id === webhook.programId);
      if (program && works(program, listo.clock.now()))
        await enqueue({ listo, tx }, { webhook, program }, heard);
    }
  },
};
