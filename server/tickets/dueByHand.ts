import type { Transaction } from 'sequelize';
import { dueInstant, judgeDue, type DueByHand, type DueStanding } from '../../core/due';
import { finishedAt, isOpen } from '../../core/tickets';
import { append } from '../journal/append';
import type { Listo } from '../listo';
import type { TimerHandler } from '../timers/runner';
import type { TicketRecord } from './model';
import { recordChange } from './record';
import type { UnitOfWork } from '../unitOfWork';

type Held = Pick<TicketRecord, 'assigneeId' | 'teamId'>;

/** The zone of whoever holds a ticket: its assignee's site, else its team's calendar. */
async function zoneOfHolder(listo: Listo, { assigneeId, teamId }: Held, tx: Transaction): Promise<string> {
  const { tables } = listo.db;
  const assignee = assigneeId === null ? null : await tables.people.findOne({ id: assigneeId }, tx);
  const site = assignee && (await tables.sites.findOne({ id: assignee.siteId }, tx));
  if (site) return site.timeZone;
  const team = await tables.teams.findOne({ id: teamId }, tx);
  return (await listo.calendars.getAll())[team?.calendarId ?? '']?.spec.timeZone ?? 'UTC';
}

/** The columns that say when someone wants it done; null takes it back. */
export async function toDueColumns(
  { listo, tx }: UnitOfWork,
  ticket: Held,
  due: DueByHand | null,
): Promise<Pick<TicketRecord, 'dueAt' | 'dueDate'>> {
  if (due === null) return { dueAt: null, dueDate: null };
  if ('at' in due) return { dueAt: due.at, dueDate: null };
  return { dueAt: dueInstant(due, await zoneOfHolder(listo, ticket, tx)), dueDate: due.date };
}

export type Due = { at: number; date: string | null; remindAt: number | null; standing: DueStanding };

type Judged = Pick<TicketRecord, 'dueAt' | 'dueDate' | 'remindAt' | 'resolvedAt' | 'progressFinishedAt'>;

/** How a ticket stands to what was set by hand. Reopened, it has not been finished. */
export function readDue(ticket: Judged, now: number): Due | null {
  const { dueAt, dueDate, remindAt } = ticket;
  if (dueAt === null) return null;
  return { at: dueAt, date: dueDate, remindAt, standing: judgeDue(dueAt, finishedAt(ticket), now) };
}

/** Whether what was set by hand is still awaited. */
const isAwaited = (ticket: Pick<TicketRecord, 'state' | 'resolvedAt' | 'progressFinishedAt'>): boolean =>
  isOpen(ticket.state) && finishedAt(ticket) === null;

/** Follows a ticket that changed hands or state: a bare date ends where its holder is, and timers go with it. */
export async function settleDue(listo: Listo, number: number, tx: Transaction): Promise<void> {
  const { tables } = listo.db;
  const ticket = await tables.tickets.findOne({ number }, tx, true);
  if (!ticket) return;
  if (ticket.dueDate !== null) {
    const moved = await toDueColumns({ listo, tx }, ticket, { date: ticket.dueDate });
    if (moved.dueAt !== ticket.dueAt)
      await recordChange({ listo, tx }, ticket, {
        changes: moved,
        entry: {
          type: 'changed',
          actorId: null,
          via: 'rule',
          audience: 'team',
        },
      });
  }
  await settleTimer({ listo, tx }, ticket, { kind: 'dueByHand', at: ticket.dueAt });
  await settleTimer({ listo, tx }, ticket, { kind: 'remind', at: ticket.remindAt });
}

/** One that is set already for that instant stays, also when it is overdue and not yet done. */
async function settleTimer(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  { kind, at }: { kind: 'dueByHand' | 'remind'; at: number | null },
): Promise<void> {
  const { timers } = listo.db.tables;
  const { number } = ticket;
  const wanted = isAwaited(ticket) ? at : null;
  const known = await timers.findOne({ ticketNumber: number, kind }, tx);
  if (known && known.at !== wanted) await timers.remove({ ticketNumber: number, kind }, tx);
  if (wanted !== null && known?.at !== wanted && wanted >= listo.clock.now())
    await timers.insert({ ticketNumber: number, kind, ref: '', at: wanted }, tx);
}

function wordHandler(type: 'dueWarned' | 'reminded'): TimerHandler {
  return async (listo, timers, tx) => {
    for (const { ticketNumber, at } of timers) {
      const ticket = await listo.db.tables.tickets.findOne({ number: ticketNumber }, tx, true);
      if (!ticket || !isAwaited(ticket)) continue;
      await append(
        { listo, tx },
        {
          ...{ actorId: null, via: 'timer', type, ticketNumber, audience: 'team' },
          data: { dueAt: at },
        },
      );
    }
  };
}

/** Past what was set by hand. */
export const giveDueWord = wordHandler('dueWarned');
export const remind = wordHandler('reminded');
