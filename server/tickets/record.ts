import type { Transaction } from 'sequelize';
import { append } from '../journal/append';
import type { Changes, JournalRow, Via } from '../journal/model';
import type { Listo } from '../listo';
import type { TicketRecord } from './model';

type Recorded = {
  type: string;
  actorId: string | null;
  via: Via;
  audience?: JournalRow['audience'];
  data?: Record<string, unknown>;
};

function differences(ticket: TicketRecord, wanted: Partial<TicketRecord>): Changes {
  const changes: Changes = {};
  for (const [field, to] of Object.entries(wanted)) {
    const from = ticket[field as keyof TicketRecord];
    if (from !== to && !(typeof from === 'number' && typeof to === 'boolean' && Boolean(from) === to))
      changes[field] = { from, to };
  }
  return changes;
}

/**
 * Changes a (locked) ticket and records it: the one door through which tickets change. Fields that would stay as
 * they are, are left out; the entry carries the version that came of it.
 */
export async function recordChange(
  listo: Listo,
  tx: Transaction,
  ticket: TicketRecord,
  wanted: Partial<TicketRecord>,
  { type, actorId, via, audience = 'requester', data = {} }: Recorded,
): Promise<{ version: number; entryId: number }> {
  const now = listo.clock.now();
  const changes = differences(ticket, wanted);
  const isChanged = Object.keys(changes).length > 0;
  const version = isChanged ? ticket.version + 1 : ticket.version;
  const row = Object.fromEntries(Object.entries(changes).map(([field, { to }]) => [field, to]));
  await listo.db.tables.tickets.update({ number: ticket.number }, { ...row, version, changedAt: now }, tx);
  const entryId = await append(listo, tx, {
    at: now,
    actorId,
    via,
    type,
    ticketNumber: ticket.number,
    audience,
    changes,
    data: { ...data, version },
  });
  Object.assign(ticket, row, { version, changedAt: now });
  return { version, entryId };
}
