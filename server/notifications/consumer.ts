import type { Transaction } from 'sequelize';
import { whoIsTold, type Parties, type ToldEvent } from '../../core/telling';
import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import type { TicketRecord } from '../tickets/model';

/** Which told events an entry of the journal is. */
const EVENTS: Record<string, ToldEvent> = {
  sent: 'sent',
  taken: 'taken',
  answered: 'answered',
  noted: 'noted',
  held: 'held',
  givenOn: 'givenOn',
  decided: 'decided',
  done: 'done',
  reopened: 'reopened',
  withdrawn: 'withdrawn',
  warned: 'warned',
  late: 'late',
};

function eventsOf({ type }: JournalRow, ticket: TicketRecord): ToldEvent[] {
  const event = EVENTS[type];
  if (!event) return [];
  return event === 'sent' && ticket.raisedById !== null ? ['raisedFor', 'sent'] : [event];
}

/** Whether, at this entry, the team still had to wait for a decision. */
function isAwaiting({ type, data }: JournalRow, ticket: TicketRecord): boolean {
  if (type === 'sent') return data.awaitsApproval === true;
  if (type === 'decided') return data.outcome !== 'approved';
  return ticket.state === 'held' && ticket.heldFor === 'approval';
}

async function readParties(
  listo: Listo,
  entry: JournalRow,
  ticket: TicketRecord,
  tx: Transaction,
): Promise<Parties> {
  const { tables } = listo.db;
  const within = { transaction: tx };
  const followers = await tables.followers.find({ ticketNumber: ticket.number, role: 'alsoTold' }, within);
  const asks = await tables.asks.find({ ticketNumber: ticket.number }, within);
  const members = await tables.members.find({ teamId: ticket.teamId }, within);
  // Within a group, its members are the team.
  const grouped = members.filter(({ groupId }) => ticket.groupId !== null && groupId === ticket.groupId);
  return {
    requester: [ticket.requesterId],
    alsoTold: followers.map(({ personId }) => personId),
    assignee: ticket.assigneeId === null ? [] : [ticket.assigneeId],
    team: (grouped.length > 0 ? grouped : members).map(({ personId }) => personId),
    approver: asks.map(({ askedId }) => askedId),
    lead: members.filter(({ role }) => role === 'lead').map(({ personId }) => personId),
    isAwaitingApproval: isAwaiting(entry, ticket),
  };
}

/** Tells people, in the application, what concerns them. */
export const tellingConsumer: Consumer = {
  name: 'telling',
  async handle(listo, entries, tx) {
    const { tables } = listo.db;
    for (const entry of entries) {
      if (entry.ticketNumber === null || !EVENTS[entry.type]) continue;
      const ticket = await tables.tickets.findOne({ number: entry.ticketNumber }, tx);
      if (!ticket) continue;
      const parties = await readParties(listo, entry, ticket, tx);
      const rows = eventsOf(entry, ticket).flatMap((event) =>
        whoIsTold(event, parties, entry.actorId).map(({ personId, as }) => ({
          personId,
          ticketNumber: ticket.number,
          journalId: entry.id,
          event,
          relation: as,
          at: entry.at,
          readAt: null,
        })),
      );
      await tables.notifications.insertAll(rows, tx);
    }
  },
};
