import type { Transaction } from 'sequelize';
import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import { settleDue } from './dueByHand';
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

/** Those of some tickets that carry a due instant or a reminder, or a timer of one. */
async function listDueByHand(listo: Listo, numbers: number[], tx: Transaction): Promise<number[]> {
  if (numbers.length === 0) return [];
  const rows = await listo.db.select<{ number: number }>(
    `SELECT number FROM tickets WHERE number IN (:numbers) AND (dueAt IS NOT NULL OR remindAt IS NOT NULL)
     UNION SELECT ticketNumber FROM timers WHERE ticketNumber IN (:numbers) AND kind IN ('dueByHand', 'remind')`,
    { numbers },
    tx,
  );
  return rows.map(({ number }) => number);
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

/** What a ticket waits for hangs on these. */
const WAITED = ['state', 'heldUntil'];
/** And the instants that are set by hand on these. */
const HOLDERS = ['assigneeId', 'teamId', 'state', 'progressFinishedAt', 'dueAt', 'dueDate', 'remindAt'];

const isOneIn = (fields: string[], { changes }: JournalRow): boolean =>
  fields.some((field) => field in changes);

/** Sets and clears what ends waiting (for the requester's word, for a date) and what was set by hand. */
export const waitingConsumer: Consumer = {
  name: 'waiting',
  // A ticket that has just been opened waits for nothing yet.
  hears: (entry) => entry.type !== 'sent' && (isOneIn(WAITED, entry) || isOneIn(HOLDERS, entry)),
  async handle(listo, entries, tx) {
    const moved = entries.filter((entry) => isOneIn(WAITED, entry));
    for (const number of new Set(moved.map(({ ticketNumber }) => ticketNumber)))
      if (number !== null) await setTimers(listo, number, tx);
    const touched = entries.filter((entry) => isOneIn(HOLDERS, entry));
    const numbers = [...new Set(touched.map(({ ticketNumber }) => ticketNumber!))];
    for (const number of await listDueByHand(listo, numbers, tx)) await settleDue(listo, number, tx);
  },
};
