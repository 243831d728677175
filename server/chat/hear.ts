import type { ChatEvent, ToldMessage } from '../../contract/rooms';
import { isQuestion, isTakingBack, MOST_LINES, readAddressed, readTaken } from '../../core/chat';
import { createRights, isAgent, may } from '../../core/rights';
import { courtesyOf, withoutCourtesies } from '../../core/text';
import { change } from '../http/change';
import { findAnswer } from '../knowledge/find';
import { ProblemError } from '../http/problems';
import { append } from '../journal/append';
import type { SignedIn } from '../sessions/viewer';
import { findGuarded } from '../tickets/guard';
import { writeWithin } from '../tickets/messages';
import { askForTicket, hearAction, hearForm, move, whisper } from './act';
import { linkTo } from './compose';
import { guessService } from './guess';
import { findByChatId } from './identities';
import { makeTicketOf, shortened, takeFiles, type Hearing } from './make';
import type { ChatInRow, ChatMarkRow } from './model';
import { refuseStrangers } from './rooms';
import { say } from './says';
import { sayOutcome } from '../approvals/outcome';
import { talkInChat } from './talk';

export type Became = { outcome: string; detail?: string; ticketNumber?: number };

/** What came later than this says so. */
const LATE_MS = 60_000;

type Heard = {
  hearing: Hearing;
  viewer: SignedIn;
  event: ChatEvent;
  message: ToldMessage;
  receivedAt: number;
};

/** Something said in a thread that is a ticket's: the same words on its thread. */
async function hearReply(heard: Heard, root: ChatMarkRow): Promise<Became> {
  const { hearing, viewer, event, message, receivedAt } = heard;
  const { listo } = hearing;
  const { ticketNumber: number } = root;
  const found = await findGuarded(listo, number);
  const rights = createRights(viewer);
  // In the team's room one speaks to the team; where the requester reads along, to all who read the ticket.
  const readBy = root.role === 'card' ? ('team' as const) : ('requester' as const);
  const isAllowed =
    found &&
    (readBy === 'team'
      ? may(rights, 'note', found.guarded)
      : may(rights, 'write', found.guarded) || may(rights, 'answer', found.guarded));
  if (!isAllowed) {
    await whisper(hearing, event, say('notYours', viewer.language, { number: String(number) }));
    return { outcome: 'notTheirs', ticketNumber: number };
  }
  if (root.role !== 'card' && isTakingBack(message.text) && may(rights, 'own', found.guarded)) {
    await move({ hearing, viewer, event }, number, {
      name: 'withdraw',
      by: 'requester',
      input: { reason: message.text },
    });
    await whisper(hearing, event, say('takenBack', viewer.language, { number: String(number) }));
    return { outcome: 'done', detail: 'none', ticketNumber: number };
  }
  const fileIds = await takeFiles(hearing, viewer.id, [message]);
  const text = message.text.trim() === '' ? '📎' : shortened(message.text);
  const by = event.roomKind === 'listo' || event.roomKind === 'direct' ? 'directMessage' : 'room';
  await change(listo, { id: viewer.id, idempotencyKey: event.id }, async (tx) => {
    const lateBy = receivedAt - message.at;
    const written = await writeWithin({ listo, tx, viewer }, number, {
      ...{ text, readBy, links: [], fileIds, by },
      ...(lateBy > LATE_MS && { saidAt: message.at }),
    });
    await listo.db.tables.chatMarks.insertAll(
      [
        {
          ...{ messageId: message.id, roomId: event.roomId, ticketNumber: number, role: 'words' },
          ...{ personId: viewer.id, wordsId: written.messageId, place: 0 },
        },
      ],
      tx,
      { updates: ['wordsId'] },
    );
    return written;
  });
  return { outcome: readBy === 'team' ? 'noted' : 'answered', ticketNumber: number };
}

/** What is handed in from the typing line, or where every first message is a ticket. */
async function handIn(
  { hearing, viewer, event, message }: Heard,
  words: string,
  serviceId: string | null,
): Promise<Became> {
  const { listo } = hearing;
  const guess = serviceId === null ? (await guessService(listo, viewer, words)).serviceId : serviceId;
  const isDirect = event.roomKind === 'direct' || event.roomKind === 'listo';
  const { number } = await makeTicketOf({ hearing, viewer }, event.id, {
    ...{ requesterId: viewer.id, serviceId: guess, messages: [message], words },
    room: { id: event.roomId, isDirect },
  });
  const link = linkTo(listo, number, 'line');
  await whisper(hearing, event, {
    text: say('madeYou', viewer.language, { number: String(number), link }),
    actions: [{ id: `none:${number}`, name: say('none', viewer.language) }],
  });
  return { outcome: 'newTicket', ticketNumber: number };
}

/**
 * A first message where every one is a matter: greetings and thanks are none, and what is written already is shown to the
 * one who asks.
 */
async function hearFirst(heard: Heard, serviceId: string | null): Promise<Became> {
  const { hearing, viewer, event, message } = heard;
  const { text } = message;
  if (message.files.length === 0 && courtesyOf(text) !== null) return { outcome: 'heard' };
  const answer = isQuestion(text) ? await findAnswer(hearing.listo, viewer, withoutCourtesies(text)) : null;
  if (!answer) return handIn(heard, text, serviceId);
  const link = `${hearing.listo.address}/ask/articles/${answer.id}`;
  await whisper(hearing, event, say('written', viewer.language, { title: answer.title, link }));
  return { outcome: 'heard', detail: answer.id };
}

/**
 * What an agent takes of a room by a command: the lines before it that they said, or of a thread all. What has become a
 * ticket already stays that one's.
 * @returns null where nothing was said before
 */
async function takeConversation(
  { hearing, viewer, event, message }: Heard,
  { count, title }: { count: number; title: string },
): Promise<Became | null> {
  const said = await hearing.chat.readBefore(message.id, count);
  const marks = await hearing.listo.db.tables.chatMarks.find({ messageId: said.map(({ id }) => id) });
  const messages = said.filter(({ id }) => !marks.some(({ messageId }) => messageId === id));
  if (messages.length === 0) return null;
  return askForTicket({ hearing, viewer, event: { ...event, messages } }, title);
}

/** What an agent's words to Listo in a room take of what was said there; null: they are a matter of their own. */
function readCommand({ viewer, event, message }: Heard, words: string) {
  if (!isAgent(viewer) || event.roomKind === 'listo') return null;
  const taken = readTaken(words);
  return taken ?? (message.threadId === null ? null : { count: MOST_LINES, title: words });
}

async function hearMessage(heard: Heard): Promise<Became> {
  const { hearing, event, message } = heard;
  const { tables } = hearing.listo.db;
  const root =
    message.threadId === null ? null : await tables.chatMarks.findOne({ messageId: message.threadId });
  if (root && root.role !== 'words' && root.role !== 'ask') return hearReply(heard, root);
  const addressed = readAddressed(message.text);
  if (addressed !== null) {
    const command = readCommand(heard, addressed);
    const taken = command && (await takeConversation(heard, command));
    return taken ?? handIn(heard, addressed, null);
  }
  if (event.roomKind === 'listo') return talkInChat(heard.hearing, heard.viewer, { event, message });
  const room = await tables.chatRooms.findOne({ roomId: event.roomId });
  if (room?.job === 'ask' && room.isEach && message.threadId === null && room.state === 'on')
    return hearFirst(heard, room.serviceId);
  return { outcome: 'heard' };
}

/** Something that had become a ticket's was reworded or taken back: the thread says so, the journal keeps both. */
async function hearChange({ hearing: { listo }, viewer, event, message }: Heard): Promise<Became> {
  const mark = await listo.db.tables.chatMarks.findOne({ messageId: message.id });
  if (mark?.role !== 'words' && mark?.role !== 'source') return { outcome: 'heard' };
  const words = mark.wordsId === null ? null : await listo.db.tables.messages.findOne({ id: mark.wordsId });
  await change(listo, { id: viewer.id, idempotencyKey: event.id }, async (tx) => {
    await append(
      { listo, tx },
      {
        ...{ actorId: viewer.id, via: 'room', ticketNumber: mark.ticketNumber },
        audience: words?.readBy ?? 'requester',
        ...(event.type === 'edited'
          ? { type: 'reworded', data: { words: shortened(message.text) } }
          : { type: 'takenBack' }),
      },
    );
    return { ok: true };
  });
  return { outcome: event.type, ticketNumber: mark.ticketNumber };
}

/** Hears one thing that the chat told, whose turn it is. */
export async function hearOne(hearing: Hearing, { body: event, receivedAt }: ChatInRow): Promise<Became> {
  const { listo, chat } = hearing;
  if (event.type === 'joined') {
    const room = await listo.db.tables.chatRooms.findOne({ roomId: event.roomId });
    if (room?.job !== 'team' || room.state !== 'on') return { outcome: 'heard' };
    const stranger = await refuseStrangers(listo, chat, room);
    return stranger === null ? { outcome: 'heard' } : { outcome: 'stopped', detail: stranger };
  }
  // By nobody of the people: an echo of what Listo said itself.
  if (event.byId === null) return { outcome: 'echo' };
  const viewer = await findByChatId(listo, chat, event.byId);
  if (!viewer) {
    if (event.type !== 'edited' && event.type !== 'deleted')
      await whisper(hearing, event, say('unknown', 'en'));
    return { outcome: 'unknownPerson', detail: event.byId };
  }
  try {
    if (event.type === 'action') return await hearAction({ hearing, viewer, event });
    if (event.type === 'form') return await hearForm({ hearing, viewer, event });
    const heard = { hearing, viewer, event, message: event.message!, receivedAt };
    return event.type === 'message' ? await hearMessage(heard) : await hearChange(heard);
  } catch (error) {
    // What the rules refuse will be refused again; anything else may go another time.
    if (!(error instanceof ProblemError)) throw error;
    const mark = await listo.db.tables.chatMarks.findOne({ messageId: event.messages?.[0]?.id ?? '' });
    const number = mark?.ticketNumber ?? Number(event.callback?.number);
    const isKnown = Number.isSafeInteger(number);
    const saying = !isKnown
      ? 'notDone'
      : ['forbidden', 'notFound'].includes(error.problem)
        ? 'notYours'
        : 'refused';
    if (error.problem === 'alreadyDecided' && mark?.wordsId) {
      const outcome = await sayOutcome(listo, mark.wordsId, viewer.language);
      if (outcome !== null) {
        await whisper(hearing, event, outcome);
        return { outcome: 'refused', detail: error.problem, ticketNumber: mark.ticketNumber };
      }
    }
    const link = isKnown ? linkTo(listo, number, 'line') : '';
    await whisper(hearing, event, say(saying, viewer.language, { number: String(number), link }));
    return { outcome: 'refused', detail: error.problem };
  }
}
