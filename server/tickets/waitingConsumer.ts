import type { Transaction } from 'sequelize';
import type { Consumer } from '../journal/consumer';
import type { Listo } from '../listo';
import type { TicketRecord } from './model';

/** Done and unanswered, a ticket closes by itself after so many working days of its team. */
export const CLOSES_AFTER_DAYS = 5;

export async function closesAt(
  listo: Listo,
  ticket: Pick<TicketRecord, 'teamId' | 'resolvedAt'>,
): Promise<number | null> {
  if (ticket.resolvedAt === null) return null;
  const team = await listo.db.tables.teams.findOne({ id: ticket.teamId });
  const calendar = (await listo.calendars.getAll())[team?.calendarId ?? ''];
  if (!calendar) return null;
  return calendar.addWorking(ticket.resolvedAt, CLOSES_AFTER_DAYS * calendar.spec.hoursPerDay * 3_600_000);
}

async function setTimers(listo: Listo, number: number, tx: Transaction): Promise<void> {
  const { tables } = listo.db;
  const ticket = await tables.tickets.findOne({ number }, tx);
  if (!ticket) return;
  await tables.timers.remove({ ticketNumber: number, kind: ['closeTicket', 'resumeTicket'] }, tx);
  const set = (kind: 'closeTicket' | 'resumeTicket', at: number) =>
    tables.timers.insert({ ticketNumber: number, kind, ref: '', at }, tx);
  const closing = ticket.state === 'done' ? await closesAt(listo, ticket) : null;
  if (closing !== null) await set('closeTicket', closing);
  if (ticket.state === 'held' && ticket.heldFor === 'date' && ticket.heldUntil !== null)
    await set('resumeTicket', ticket.heldUntil);
}

/** Sets and clears what ends waiting: for the requester's word, and for a date. */
export const waitingConsumer: Consumer = {
  name: 'waiting',
  async handle(listo, entries, tx) {
    // A ticket that has just been opened waits for nothing yet.
    const moved = entries.filter(
      ({ changes, type }) => type !== 'sent' && ('state' in changes || 'heldUntil' in changes),
    );
    for (const number of new Set(moved.map(({ ticketNumber }) => ticketNumber)))
      if (number !== null) await setTimers(listo, number, tx);
  },
};
