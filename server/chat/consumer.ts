import { factsOfEntry } from '../../core/journal';
import { mayLeave, type NoticeEvent } from '../../core/chat';
import { isNews } from '../../core/telling';
import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import type { TicketRecord } from '../tickets/model';
import type { ChatMarkRow, ChatNoticeRow, ChatRoomRow } from './model';
import { idOf, queueChat, whenTold } from './queue';
import { findChat } from './access';
import type { UnitOfWork } from '../unitOfWork';

type Around = {
  tickets: Map<number, TicketRecord>;
  rooms: ChatRoomRow[];
  notices: ChatNoticeRow[];
  marks: ChatMarkRow[];
  /** Tickets and rooms for which a card is on its way or there: "number roomId". */
  carded: Set<string>;
  /** Tickets of which all messages will be made current. */
  updated: Set<number>;
};

async function readAround({ listo, tx }: UnitOfWork, numbers: number[]): Promise<Around> {
  const { tables, select } = listo.db;
  const within = { transaction: tx };
  const tickets = await tables.tickets.find({ number: numbers }, within);
  const cards = await select<{ ticketNumber: number; roomId: string }>(
    "SELECT ticketNumber, roomId FROM chat_out WHERE kind = 'card' AND ticketNumber IN (:numbers)",
    { numbers },
    tx,
  );
  const updates = await select<{ ticketNumber: number }>(
    "SELECT ticketNumber FROM chat_out WHERE kind = 'update' AND state = 'waiting' AND ticketNumber IN (:numbers)",
    { numbers },
    tx,
  );
  return {
    tickets: new Map(tickets.map((ticket) => [ticket.number, ticket])),
    rooms: await tables.chatRooms.find({ state: 'on' }, within),
    notices: await tables.chatNotices.find({ isOn: true }, within),
    marks: await tables.chatMarks.find({ ticketNumber: numbers }, within),
    carded: new Set(cards.map(({ ticketNumber, roomId }) => `${ticketNumber} ${roomId}`)),
    updated: new Set(updates.map(({ ticketNumber }) => ticketNumber)),
  };
}

const isUpcoming = ({ state, heldFor }: TicketRecord): boolean => state === 'held' && heldFor === 'approval';

/**
 * A card for a ticket that has come to a team whose room is connected, once in each room. What came as no news has one
 * when someone does something about it.
 */
async function cardIt(
  { listo, tx }: UnitOfWork,
  { type, actorId }: JournalRow,
  { ticket, around }: { ticket: TicketRecord; around: Around },
): Promise<void> {
  if (isUpcoming(ticket) || (!isNews(ticket) && (type === 'sent' || actorId === null))) return;
  for (const { roomId, job, teamId } of around.rooms) {
    const key = `${ticket.number} ${roomId}`;
    if (job !== 'team' || teamId !== ticket.teamId || around.carded.has(key)) continue;
    around.carded.add(key);
    await queueChat(listo, tx, { body: { do: 'card' }, to: { ticketNumber: ticket.number, roomId } });
  }
}

/** Words of the thread go to the ticket's threads in chat: where they may, and not back to where they came from. */
async function passWords(
  { listo, tx }: UnitOfWork,
  entry: JournalRow,
  { ticket, around }: { ticket: TicketRecord; around: Around },
): Promise<void> {
  const { tables } = listo.db;
  const { ticketNumber } = entry;
  const { messageId } = factsOfEntry(entry);
  if (messageId === undefined) return;
  const message = await tables.messages.findOne({ id: messageId }, tx);
  if (!message) return;
  const said = await tables.chatMarks.find(
    { ticketNumber: ticketNumber!, role: 'words', wordsId: messageId },
    { transaction: tx },
  );
  const cameFrom = new Set(said.map(({ roomId }) => roomId));
  const roots = [
    ...around.rooms.flatMap(({ roomId, job }) =>
      job === 'team' && around.carded.has(`${ticket.number} ${roomId}`)
        ? [{ roomId, role: 'card' as const }]
        : [],
    ),
    ...around.marks.flatMap(({ roomId, role }) =>
      role === 'line' ? [{ roomId, role: 'line' as const }] : [],
    ),
  ];
  for (const { roomId, role } of roots) {
    // Who is in a room is asked when it leaves.
    if (cameFrom.has(roomId) || !mayLeave(message.readBy, role === 'card' ? 'teamRoom' : 'readersRoom'))
      continue;
    await queueChat(listo, tx, {
      body: { do: 'words', messageId, role },
      to: { ticketNumber: ticket.number, roomId },
    });
  }
}

const isNew = ({ type }: JournalRow, ticket: TicketRecord): boolean => type === 'sent' && isNews(ticket);

const NOTICED: Record<NoticeEvent, (entry: JournalRow, ticket: TicketRecord) => boolean> = {
  newTicket: isNew,
  priorityOne: (entry, ticket) =>
    ticket.priority === 'P1' &&
    (entry.type === 'sent' ? isNew(entry, ticket) : entry.changes.priority !== undefined),
  late: ({ type }) => type === 'late',
  reopened: ({ type }) => type === 'reopened',
  done: ({ type }) => type === 'done',
};

/** The people whom a notice goes to. */
async function peopleOf(
  { listo: { db }, tx }: UnitOfWork,
  { personId, toTeamId, toGroupId }: ChatNoticeRow,
): Promise<string[]> {
  if (personId !== null) return [personId];
  const within = { teamId: toTeamId!, ...(toGroupId !== null && { groupId: toGroupId }) };
  return (await db.tables.members.find(within, { transaction: tx })).map((member) => member.personId);
}

async function notice(
  { listo, tx }: UnitOfWork,
  entry: JournalRow,
  { ticket, around: { notices } }: { ticket: TicketRecord; around: Around },
): Promise<void> {
  for (const each of notices) {
    const isMeant = each.teamId === null || each.teamId === ticket.teamId;
    if (!isMeant || ticket.isConfidential || !NOTICED[each.event](entry, ticket)) continue;
    const body = { do: 'notice', noticeId: each.id, isTrial: false } as const;
    if (each.roomId !== null) {
      const id = idOf('n', `${entry.id}-${each.id}`);
      await queueChat(listo, tx, { body, to: { ticketNumber: ticket.number, id, roomId: each.roomId } });
      continue;
    }
    for (const personId of await peopleOf({ listo, tx }, each)) {
      const nextAt = await whenTold({ listo, tx }, personId);
      if (nextAt !== null)
        await queueChat(listo, tx, { body, to: { ticketNumber: ticket.number, personId, nextAt } });
    }
  }
}

/** What follows from the journal in chat: cards, what is said in their threads, and notices. */
export const chatConsumer: Consumer = {
  name: 'chat',
  hears: ({ ticketNumber }) => ticketNumber !== null,
  async handle(listo, ofTickets, tx) {
    if (!(await findChat(listo))) return;
    const around = await readAround({ listo, tx }, [
      ...new Set(ofTickets.map(({ ticketNumber }) => ticketNumber!)),
    ]);
    if (around.rooms.length + around.notices.length + around.marks.length === 0) return;
    for (const entry of ofTickets) {
      const ticket = around.tickets.get(entry.ticketNumber!);
      if (!ticket) continue;
      await cardIt({ listo, tx }, entry, { ticket, around });
      await passWords({ listo, tx }, entry, { ticket, around });
      await notice({ listo, tx }, entry, { ticket, around });
      const isShown = around.marks.some(
        ({ ticketNumber, role }) => ticketNumber === ticket.number && role !== 'words',
      );
      const isOnItsWay = around.rooms.some(({ roomId }) => around.carded.has(`${ticket.number} ${roomId}`));
      if (entry.type === 'sent' || (!isShown && !isOnItsWay) || around.updated.has(ticket.number)) continue;
      around.updated.add(ticket.number);
      await queueChat(listo, tx, { body: { do: 'update' }, to: { ticketNumber: ticket.number } });
    }
  },
};
