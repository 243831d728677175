import type { Attachment } from 'mailparser';
import type { ToldMessage } from '../../contract/rooms';
import { asConversation, toTitle } from '../../core/chat';
import { definitionOf } from '../catalogue/versions';
import type { TicketRecord } from '../tickets/model';
import { listMissing, withoutFiles, type Answers } from '../../core/forms';
import { URGENCIES } from '../../core/tickets';
import { keepFiles } from '../files/keep';
import type { FileStore } from '../files/store';
import type { Listo } from '../listo';
import { keepAttachments } from '../mail/attachments';
import type { SignedIn } from '../sessions/viewer';
import { createTicket } from '../tickets/create';
import { insertMessage } from '../tickets/messages';
import { makeMove } from '../tickets/move';
import { recordChange } from '../tickets/record';
import type { ChatConnector } from './connector';
import { findByChatId } from './identities';
import { lookUp } from '../notifications/lookUp';
import { queueChat, whenTold } from './queue';
import type { UnitOfWork } from '../unitOfWork';

const WORDS_LIMIT = 19_000;
const ANSWER_LIMIT = 5_000;
export const TITLE_LIMIT = 200;

/** What a process needs to hear the chat. */
export type Hearing = { listo: Listo; chat: ChatConnector; store: FileStore; secret: string };

/** Files said in chat, and words that are too long for the thread as one, kept as the person's own. */
export async function takeFiles(
  { listo, chat, store }: Hearing,
  personId: string,
  messages: Pick<ToldMessage, 'files' | 'text'>[],
): Promise<string[]> {
  const attachments: Pick<Attachment, 'filename' | 'content' | 'size'>[] = [];
  for (const { files, text } of messages) {
    for (const { id } of files) {
      const { name, content } = await chat.readFile(id);
      attachments.push({ filename: name, content, size: content.length });
    }
    if (text.length > WORDS_LIMIT) {
      const content = Buffer.from(text);
      attachments.push({ filename: 'message.txt', content, size: content.length });
    }
  }
  return (await keepAttachments(listo, store, { personId, attachments })).fileIds;
}

export const shortened = (text: string): string =>
  text.length <= WORDS_LIMIT ? text : `${text.slice(0, WORDS_LIMIT)} …`;

export type Wanted = {
  requesterId: string;
  serviceId: string;
  title?: string;
  teamId?: string | null;
  groupId?: string | null;
  assigneeId?: string | null;
  urgency?: string | null;
  /** What the ticket is made of; none where the form alone makes it. */
  messages: ToldMessage[];
  /** Of the service's whole form, where that was filled in. */
  answers?: Answers;
  room: { id: string; isDirect: boolean };
  /** Words that stand for the messages. */
  words?: string;
};

/** Asks the requester, between the two, for what the form needs and nobody has said. */
async function askForMore({ listo, tx }: UnitOfWork, ticket: TicketRecord): Promise<void> {
  const { form } = await definitionOf(listo, ticket, tx);
  if (listMissing(withoutFiles(form), ticket.answers).length === 0) return;
  const entry = await listo.db.tables.journal.findOne({ ticketNumber: ticket.number, type: 'sent' }, tx);
  if (!entry) return;
  const { number: ticketNumber, requesterId: personId } = ticket;
  // An agent may have made it of their words: they hear of it when and where they wish to.
  const nextAt = await whenTold({ listo, tx }, personId, lookUp(listo, tx));
  if (nextAt === null) return;
  const to = { ticketNumber, personId, nextAt };
  await queueChat(listo, tx, { body: { do: 'told', event: 'needs', entryId: entry.id }, to });
}

/**
 * Makes a ticket of what was said: with all of it on its thread, files too, a mark on each message so that it is not made
 * twice, and a line in the room that stays current. All in one transaction, once for a key.
 */
export async function makeTicketOf(
  { hearing, viewer }: { hearing: Hearing; viewer: SignedIn },
  key: string,
  wanted: Wanted,
): Promise<{ number: number }> {
  const { listo, chat } = hearing;
  const { tables } = listo.db;
  const { messages, room } = wanted;
  const first = messages[0];
  const own = wanted.words ?? first?.text ?? '';
  const fileIds = await takeFiles(hearing, viewer.id, messages);
  const conversation: { by: string; text: string }[] = [];
  for (const { byId, text } of messages) {
    const by = byId === null ? null : await findByChatId(listo, chat, byId);
    conversation.push({ by: by?.name ?? '?', text });
  }
  const requester = await tables.people.findOne({ id: wanted.requesterId });
  const isOthers = messages.length > 1 || viewer.id !== wanted.requesterId;
  const urgency = URGENCIES.find((each) => each === wanted.urgency);
  const via = room.isDirect ? 'directMessage' : 'room';
  return createTicket(
    { listo, viewer, actor: { id: viewer.id, idempotencyKey: key } },
    {
      ...{ serviceId: wanted.serviceId, via, alsoToldIds: [], links: [] },
      title: (wanted.title ?? '').trim().slice(0, TITLE_LIMIT) || toTitle(own),
      ...(wanted.requesterId !== viewer.id && { requesterId: wanted.requesterId }),
      answers: wanted.answers ?? { what: own.slice(0, ANSWER_LIMIT) },
      fileIds: isOthers ? [] : fileIds,
    },
    {
      isLenient: wanted.answers === undefined,
      ...(urgency !== undefined && { urgency }),
      after: async (tx, number) => {
        const ticket = (await tables.tickets.findOne({ number }, tx, true))!;
        const { teamId, groupId = null } = wanted;
        if (teamId && (teamId !== ticket.teamId || (groupId !== null && groupId !== ticket.groupId)))
          await makeMove({ listo, tx }, ticket, {
            ...{ name: 'give', by: 'system', actorId: viewer.id, via, input: { teamId, groupId } },
          });
        if (
          wanted.assigneeId &&
          (await tables.members.findOne({ personId: wanted.assigneeId, teamId: ticket.teamId }, tx))
        )
          await recordChange({ listo, tx }, ticket, {
            changes: { assigneeId: wanted.assigneeId },
            entry: {
              type: 'routed',
              actorId: viewer.id,
              via,
              audience: 'team',
              data: { personId: wanted.assigneeId },
            },
          });
        await askForMore({ listo, tx }, ticket);
        if (isOthers || own.length > ANSWER_LIMIT) {
          // What was said before there was a ticket is no answer of the team's.
          const messageId = await insertMessage(
            { listo, tx },
            {
              ...{
                ticketNumber: number,
                authorId: wanted.requesterId,
                via,
                readBy: 'requester',
                isByTeam: false,
              },
              text: shortened(asConversation(conversation, requester?.name ?? '')),
            },
          );
          if (isOthers && fileIds.length > 0)
            await keepFiles(
              { listo, tx },
              { personId: viewer.id, fileIds },
              { ticketNumber: number, messageId },
            );
          const recorded = { type: 'conversation', actorId: viewer.id, via, data: { messageId } } as const;
          await recordChange({ listo, tx }, ticket, { changes: {}, entry: recorded });
        }
        // What is marked already belongs to another ticket, and stays its own.
        const marked = await tables.chatMarks.find(
          { messageId: messages.map(({ id }) => id) },
          { transaction: tx },
        );
        const source = { roomId: room.id, ticketNumber: number, role: 'source' as const };
        await tables.chatMarks.insertAll(
          messages
            .filter(({ id }) => !marked.some(({ messageId }) => messageId === id))
            .map(({ id }, place) => ({ ...source, messageId: id, personId: null, wordsId: null, place })),
          tx,
        );
        await queueChat(listo, tx, {
          body: {
            do: 'line',
            threadId: room.isDirect ? (first?.threadId ?? first?.id ?? null) : (first?.threadId ?? null),
          },
          to: { ticketNumber: number, roomId: room.id },
        });
      },
    },
  );
}
