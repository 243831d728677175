import type { Ticket } from '../../contract/tickets';
import type { TicketAction } from '../../core/rights';
import type { Listo } from '../listo';
import type { TicketRecord } from '../tickets/model';

/** The room in which the ticket has its line, where that is not a talk between two. */
async function findRoom({ db }: Listo, number: number): Promise<Ticket['room']> {
  const [room] = await db.select<{ name: string }>(
    `SELECT p.name FROM chat_marks m JOIN chat_places p ON p.roomId = m.roomId AND p.kind IN ('open', 'closed')
     WHERE m.ticketNumber = :number AND m.role = 'line' LIMIT 1`,
    { number },
  );
  return room ?? null;
}

/** Where what it was made of was said; the name of a talk between two is nobody's to read. */
async function findConversation(listo: Listo, number: number): Promise<Ticket['conversation']> {
  const [found] = await listo.db.select<{ roomId: string; messageId: string; room: string | null }>(
    `SELECT m.roomId, m.messageId, p.name AS room FROM chat_marks m
     LEFT JOIN chat_places p ON p.roomId = m.roomId AND p.kind IN ('open', 'closed')
     WHERE m.ticketNumber = :number AND m.role = 'source' ORDER BY m.place LIMIT 1`,
    { number },
  );
  if (!found) return null;
  const { roomId, messageId, room } = found;
  const pattern = listo.config.LISTO_CHAT_LINE_URL ?? `${listo.address}/rooms/{room}?line={line}`;
  return {
    room,
    link: pattern
      .replace('{room}', encodeURIComponent(roomId))
      .replace('{line}', encodeURIComponent(messageId)),
  };
}

/** What a ticket's page shows of the chat: who reads along, and where it came from. */
export async function readChatOf(
  listo: Listo,
  { number, isConfidential }: Pick<TicketRecord, 'number' | 'isConfidential'>,
  rights: readonly TicketAction[],
): Promise<Pick<Ticket, 'room' | 'conversation'>> {
  const [room, conversation] = await Promise.all([
    rights.includes('answer') && !isConfidential ? findRoom(listo, number) : null,
    rights.includes('readNotes') ? findConversation(listo, number) : null,
  ]);
  return { room, conversation };
}
