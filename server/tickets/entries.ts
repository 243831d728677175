import type { Entry } from '../../contract/tickets';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';
import type { MessageRow } from './model';

/** What is shown of each: of a long thread, every value costs. */
const ENTRY = ['id', 'at', 'type', 'actorId', 'via', 'audience', 'changes', 'data', 'ticketNumber'];
const MESSAGE = ['id', 'text', 'format', 'readBy', 'isByTeam', 'links'];
const FILE = ['id', 'name', 'type', 'size', 'messageId'];

/** What happened on a ticket, in order, as far as the reader may see it, each with the words sent with it. */
export async function readEntries(listo: Listo, number: number, isTeamSide: boolean): Promise<Entry[]> {
  const { tables } = listo.db;
  // What goes on here as the same matter brought its thread along, for the team: one requester's words are not another's.
  const below = !isTeamSide
    ? []
    : await tables.tickets.find({ underNumber: number, underAs: 'same' }, { attributes: ['number'] });
  const numbers = [number, ...below.map((ticket) => ticket.number)];
  const audience = isTeamSide ? {} : { audience: 'requester' as const };
  const readBy = isTeamSide ? {} : { readBy: 'requester' as const };
  const [entries, messages, files] = await Promise.all([
    tables.journal.find({ ticketNumber: numbers, ...audience }, { order: ['id'], attributes: ENTRY }),
    tables.messages.find({ ticketNumber: numbers, ...readBy }, { attributes: MESSAGE }),
    tables.files.find({ ticketNumber: numbers }, { attributes: FILE }),
  ]);
  const people = await readPeople(
    listo,
    entries.flatMap(({ actorId, data }) => [actorId, data.personId, data.fromId]),
  );
  const messagesById = new Map<unknown, MessageRow>(messages.map((message) => [message.id, message]));
  const messageOf = (id: unknown): Entry['message'] => {
    const message = messagesById.get(id);
    if (!message) return null;
    const sent = files.filter(({ messageId }) => messageId === message.id);
    const { text, format, readBy: readers, isByTeam, links } = message;
    return {
      id: message.id,
      text,
      format,
      readBy: readers,
      isByTeam,
      links,
      files: sent.map(({ id: fileId, name, type, size }) => ({ id: fileId, name, type, size })),
    };
  };
  const nameIn = (data: Entry['data']): Entry['data'] => ({
    ...data,
    ...(typeof data.personId === 'string' && { person: people.get(data.personId)?.name }),
    ...(typeof data.fromId === 'string' && { former: people.get(data.fromId)?.name }),
  });
  return entries.map(({ id, at, type, actorId, via, audience: readers, changes, data, ticketNumber }) => ({
    id,
    at,
    type,
    actor: actorId === null ? null : (people.get(actorId) ?? null),
    via,
    audience: readers,
    from: ticketNumber === number ? null : ticketNumber,
    changes: isTeamSide ? changes : {},
    message: messageOf(data.messageId),
    data: nameIn(data),
  }));
}
