import pLimit from 'p-limit';
import { mayLeave, writeNotice, type Place } from '../../core/chat';
import type { Language, LocalText } from '../../core/forms';
import { inLanguage } from '../../core/knowledge';
import { findDecision } from '../approvals/outcome';
import { createRights, may } from '../../core/rights';
import type { Listo } from '../listo';
import { findGuarded } from '../tickets/guard';
import type { TicketRecord } from '../tickets/model';
import { composeCard, composeWords, linkTo, type CardRole } from './compose';
import { ChatAway, createConnector, type ChatConnector } from './connector';
import { findByChatId, findChatId } from './identities';
import type { ChatMarkRow, ChatOutRow, ChatRoomRow } from './model';
import { refuseStrangers } from './rooms';
import { say, sayState } from './says';
import { findChat } from './access';
import { composeAsk, composeTold } from './told';

const BATCH = 200;
const AT_ONCE = 20;
/** After so long it is looked anew what is in line: within the lease, and what people say comes soon. */
const TURN_MS = 500;
const RETRY_MS = 1_000;
const LONGEST_RETRY_MS = 30_000;
const MOST_TRIES = 5_000;
const FARTHEST_MS = 2 * 86_400_000;

type Sending = { listo: Listo; chat: ChatConnector; row: ChatOutRow };
type Sent = 'sent' | 'nowhere';

async function findTicket({ listo, row }: Sending): Promise<TicketRecord | null> {
  return row.ticketNumber === null ? null : listo.db.tables.tickets.findOne({ number: row.ticketNumber });
}

/** The team's room, as long as Listo may write there. */
async function findRoom({ listo, chat }: Sending, roomId: string | null): Promise<ChatRoomRow | null> {
  const room = await listo.db.tables.chatRooms.findOne({ roomId: roomId ?? '' });
  if (room?.state !== 'on') return null;
  // Looked at each time: what is the team's never reaches one who came in a moment ago.
  if (room.job === 'team' && (await refuseStrangers(listo, chat, room)) !== null) return null;
  return room;
}

async function mark(
  { listo, row }: Sending,
  { messageId, roomId, role }: { messageId: string; roomId: string; role: ChatMarkRow['role'] },
  more: Partial<ChatMarkRow> = {},
): Promise<void> {
  await listo.db.tables.chatMarks.insertAll(
    [
      {
        messageId,
        roomId,
        ticketNumber: row.ticketNumber!,
        role,
        personId: null,
        wordsId: null,
        place: 0,
        ...more,
      },
    ],
    undefined,
    { updates: ['role'] },
  );
}

async function sendCard(sending: Sending): Promise<Sent> {
  const { listo, chat, row } = sending;
  const ticket = await findTicket(sending);
  const room = await findRoom(sending, row.roomId);
  if (!ticket || !room || ticket.teamId !== room.teamId) return 'nowhere';
  const card = await composeCard(listo, ticket, { role: 'card', language: room.language });
  const { id, roomId } = await chat.post({ key: row.id, roomId: room.roomId, text: '', card });
  await mark(sending, { messageId: id, roomId, role: 'card' });
  return 'sent';
}

async function sendLine(sending: Sending, threadId: string | null): Promise<Sent> {
  const { listo, chat, row } = sending;
  const ticket = await findTicket(sending);
  if (!ticket || ticket.isConfidential || row.roomId === null) return 'nowhere';
  const room = await listo.db.tables.chatRooms.findOne({ roomId: row.roomId });
  const card = await composeCard(listo, ticket, { role: 'line', language: room?.language ?? 'en' });
  const { name, kind } = await chat.listMembers(row.roomId);
  await listo.db.tables.chatPlaces.insertAll([{ roomId: row.roomId, name, kind }], undefined, {
    updates: ['name', 'kind'],
  });
  const { id, roomId } = await chat.post({ key: row.id, roomId: row.roomId, threadId, text: '', card });
  await mark(sending, { messageId: id, roomId, role: 'line' });
  return 'sent';
}

async function languageOf({ db }: Listo, personId: string): Promise<Language> {
  return (await db.tables.people.findOne({ id: personId }))?.language ?? 'en';
}

/** Someone's direct talk about a ticket: one line of it that stays current, all else in its thread. */
async function findDirect(sending: Sending, personId: string): Promise<ChatMarkRow | null> {
  const { listo, chat, row } = sending;
  const { chatMarks } = listo.db.tables;
  const known = await chatMarks.findOne({ ticketNumber: row.ticketNumber!, role: 'direct', personId });
  if (known) return known;
  const chatId = await findChatId(listo, chat, personId);
  const ticket = await findTicket(sending);
  if (chatId === null || !ticket) return null;
  const card = await composeCard(listo, ticket, {
    role: 'direct',
    language: await languageOf(listo, personId),
  });
  const { id, roomId } = await chat.post({
    key: `d${ticket.number}-${personId}`.slice(0, 38),
    personId: chatId,
    text: '',
    card,
  });
  await mark(sending, { messageId: id, roomId, role: 'direct' }, { personId });
  return chatMarks.findOne({ messageId: id });
}

async function sendTold(sending: Sending): Promise<Sent> {
  const { listo, chat, row } = sending;
  const { personId, body } = row;
  if (body.do !== 'told' || personId === null) return 'nowhere';
  const language = await languageOf(listo, personId);
  const root = await findDirect(sending, personId);
  if (!root) return 'nowhere';
  const told = await composeTold(listo, body, language);
  if (told === null) return 'sent';
  const { id } = await chat.post({
    key: row.id,
    roomId: root.roomId,
    threadId: root.messageId,
    text: told.text,
  });
  await mark(sending, { messageId: id, roomId: root.roomId, role: 'words' }, { wordsId: told.messageId });
  return 'sent';
}

async function sendAsk(sending: Sending, askId: string): Promise<Sent> {
  const { listo, chat, row } = sending;
  const ticket = await findTicket(sending);
  const chatId = row.personId === null ? null : await findChatId(listo, chat, row.personId);
  // What was decided before it was asked here is not asked.
  const isOver = (await findDecision(listo, askId)) !== null;
  const asked =
    ticket && row.personId !== null && !isOver
      ? await composeAsk(listo, ticket, { askId, personId: row.personId })
      : null;
  if (!asked || chatId === null) return 'nowhere';
  const { id, roomId } = await chat.post({ key: row.id, personId: chatId, ...asked });
  await mark(sending, { messageId: id, roomId, role: 'ask' }, { personId: row.personId, wordsId: askId });
  return 'sent';
}

/** Whether all who are in a room may read a ticket, or others read along there. Looked at each time: people come and go. */
async function placeOf({ listo, chat }: Sending, number: number, roomId: string): Promise<Place> {
  const found = await findGuarded(listo, number);
  const { kind, people } = await chat.listMembers(roomId);
  if (!found || kind === 'open') return 'openRoom';
  for (const { id } of people) {
    const viewer = await findByChatId(listo, chat, id);
    if (!viewer || !may(createRights(viewer), 'read', found.guarded)) return 'openRoom';
  }
  return 'readersRoom';
}

/** Words of the thread into the threads that are the ticket's in chat: each only where such words may go. */
async function sendWords(sending: Sending, messageId: string, role: CardRole): Promise<Sent> {
  const { listo, chat, row } = sending;
  const { chatMarks } = listo.db.tables;
  const [root] = await chatMarks.find({ ticketNumber: row.ticketNumber!, role, roomId: row.roomId! });
  if (!root) return 'nowhere';
  const room = role === 'card' ? await findRoom(sending, row.roomId) : null;
  if (role === 'card' && !room) return 'nowhere';
  // What has become confidential is said in its own team's room alone.
  const ticket = await findTicket(sending);
  if (!ticket || (ticket.isConfidential && room?.teamId !== ticket.teamId)) return 'nowhere';
  const words = await composeWords(listo, messageId, room?.language ?? 'en');
  if (!words) return 'nowhere';
  const place = role === 'card' ? 'teamRoom' : await placeOf(sending, ticket.number, root.roomId);
  if (!mayLeave(words.readBy, place, words.isPublic)) return 'nowhere';
  const { id } = await chat.post({
    key: row.id,
    roomId: root.roomId,
    threadId: root.messageId,
    text: words.text,
  });
  await mark(sending, { messageId: id, roomId: root.roomId, role: 'words' }, { wordsId: messageId });
  return 'sent';
}

/** What was asked in direct talks shows what became of it, whichever door that came by. */
async function updateAsks({ listo, chat }: Sending, ticket: TicketRecord): Promise<void> {
  const asked = await listo.db.tables.chatMarks.find({ ticketNumber: ticket.number, role: 'ask' });
  for (const { messageId, wordsId, personId } of asked) {
    if (wordsId === null || personId === null || (await findDecision(listo, wordsId)) === null) continue;
    const composed = await composeAsk(listo, ticket, { askId: wordsId, personId });
    if (composed) await chat.update({ messageId, ...composed });
  }
}

/** Makes all messages that show the ticket show it as it is now. */
async function sendUpdate(sending: Sending): Promise<Sent> {
  const { listo, chat } = sending;
  const { tables } = listo.db;
  const ticket = await findTicket(sending);
  if (!ticket) return 'nowhere';
  const marks = await tables.chatMarks.find({
    ticketNumber: ticket.number,
    role: ['card', 'line', 'direct'] as never,
  });
  await updateAsks(sending, ticket);
  for (const { messageId, roomId, role, personId } of marks) {
    const room = await tables.chatRooms.findOne({ roomId });
    if (role === 'card' && room?.state !== 'on') continue;
    const language = personId === null ? (room?.language ?? 'en') : await languageOf(listo, personId);
    // A ticket that has gone to another team is that team's to work on.
    const isGone = role === 'card' && ticket.teamId !== room?.teamId;
    // What has become confidential stays as it was last shown to others.
    if (ticket.isConfidential && (isGone || role === 'line')) continue;
    const card = await composeCard(listo, ticket, { role: role as CardRole, language });
    await chat.update({ messageId, card: isGone ? { ...card, actions: [], isOver: true } : card });
  }
  return 'sent';
}

/** Whether those who read a message out work at the desk; in other rooms there are also those who ask. */
async function readerRole({ listo, row }: Sending): Promise<'card' | 'line'> {
  const { chatRooms, members } = listo.db.tables;
  const isDesk =
    row.roomId !== null
      ? (await chatRooms.findOne({ roomId: row.roomId }))?.job === 'team'
      : (await members.findOne({ personId: row.personId ?? '' })) !== null;
  return isDesk ? 'card' : 'line';
}

async function sendNotice(sending: Sending, noticeId: string, isTrial: boolean): Promise<Sent> {
  const { listo, chat, row } = sending;
  const { tables } = listo.db;
  const notice = await tables.chatNotices.findOne({ id: noticeId });
  const ticket = await findTicket(sending);
  if (!notice || (!ticket && !isTrial) || ticket?.isConfidential) return 'nowhere';
  const chatId = row.personId === null ? null : await findChatId(listo, chat, row.personId);
  if (row.roomId === null && chatId === null) return 'nowhere';
  const words = writeNotice(notice.words, await noticeFacts(listo, ticket));
  const link = ticket ? ` ${linkTo(listo, ticket.number, await readerRole(sending))}` : '';
  await chat.post({
    key: row.id,
    ...(row.roomId !== null ? { roomId: row.roomId } : { personId: chatId! }),
    text: `${isTrial ? say('trial', 'en', { words }) : words}${link}`,
  });
  return 'sent';
}

/** What a rule says in a room, in its language, with the way to the ticket. What is in confidence never leaves so. */
async function sendRuled(sending: Sending, words: LocalText): Promise<Sent> {
  const { listo, chat, row } = sending;
  const ticket = await findTicket(sending);
  const room = await listo.db.tables.chatRooms.findOne({ roomId: row.roomId ?? '' });
  if (!ticket || ticket.isConfidential || room?.state !== 'on') return 'nowhere';
  const link = linkTo(listo, ticket.number, await readerRole(sending));
  await chat.post({
    key: row.id,
    roomId: room.roomId,
    text: `${inLanguage(words, room.language)} ${link}`,
  });
  return 'sent';
}

const SAMPLE = {
  ...{
    number: '20418',
    title: 'Kiosk 3 frozen on payment',
    requester: 'Tomás Veiga',
    team: 'Onboard systems',
  },
  ...{
    service: 'A self-service kiosk',
    priority: 'P1',
    place: 'Port Alder',
    state: 'received',
    assignee: '–',
  },
};

/** What the words of a notice are composed from: the ticket's, or a sample where there is none yet. */
export async function noticeFacts(
  listo: Listo,
  ticket: TicketRecord | null,
): Promise<Record<string, string>> {
  if (!ticket) return SAMPLE;
  const { tables } = listo.db;
  const nameOf = async (id: string | null): Promise<string> =>
    id === null ? '–' : ((await tables.people.findOne({ id }))?.name ?? '–');
  const team = await tables.teams.findOne({ id: ticket.teamId });
  const service = await tables.services.findOne({ id: ticket.serviceId });
  return {
    ...{ number: String(ticket.number), title: ticket.title, priority: ticket.priority, place: ticket.place },
    requester: await nameOf(ticket.requesterId),
    assignee: await nameOf(ticket.assigneeId),
    team: team ? inLanguage(team.name, 'en') : '',
    service: service ? inLanguage(service.title, 'en') : '',
    state: sayState(ticket.state, ticket.heldFor, 'en'),
  };
}

async function sendSay(sending: Sending): Promise<Sent> {
  const { chat, row } = sending;
  const { body, roomId } = row;
  if (body.do !== 'say' || roomId === null) return 'nowhere';
  const { text, forId, threadId, actions = [] } = body;
  await chat.post({ key: row.id, roomId, text, forId, threadId, actions });
  return 'sent';
}

function send(sending: Sending): Promise<Sent> {
  const { body } = sending.row;
  switch (body.do) {
    case 'card':
      return sendCard(sending);
    case 'line':
      return sendLine(sending, body.threadId);
    case 'told':
      return sendTold(sending);
    case 'ask':
      return sendAsk(sending, body.askId);
    case 'words':
      return sendWords(sending, body.messageId, body.role);
    case 'update':
      return sendUpdate(sending);
    case 'notice':
      return sendNotice(sending, body.noticeId, body.isTrial);
    case 'ruled':
      return sendRuled(sending, body.words);
    case 'say':
      return sendSay(sending);
  }
}

/** Whether it went: what cannot go now waits, with all that is for the same place after it. */
async function sendOne(listo: Listo, chat: ChatConnector, row: ChatOutRow): Promise<boolean> {
  const { chatOut } = listo.db.tables;
  const tries = row.tries + 1;
  const now = listo.clock.now();
  try {
    const sent = await send({ listo, chat, row });
    const error = sent === 'nowhere' ? 'nowhere to say it' : null;
    await chatOut.update({ place: row.place }, { state: 'sent', tries, sentAt: now, error });
    return true;
  } catch (error) {
    const isAway = error instanceof ChatAway;
    const isOver = !isAway || tries >= MOST_TRIES;
    const wait = Math.min(LONGEST_RETRY_MS, RETRY_MS * 2 ** Math.min(tries - 1, 8));
    if (!isAway) listo.log.warn({ err: error, chatOut: row.id }, 'could not be said in chat');
    await chatOut.update(
      { place: row.place },
      {
        state: isOver ? 'failed' : 'waiting',
        tries,
        nextAt: now + wait,
        error: (error as Error).message.slice(0, 500),
      },
    );
    return !isAway;
  }
}

/** What is for one place on one ticket keeps its order. */
const keyOf = ({ roomId, personId, ticketNumber }: ChatOutRow): string =>
  `${ticketNumber ?? ''} ${roomId ?? personId ?? ''}`;

/** What is due, but for what has to wait for something before it. */
function findDue(listo: Listo, now: number): Promise<ChatOutRow[]> {
  return listo.db.select<ChatOutRow>(
    `SELECT o.* FROM chat_out o WHERE o.state = 'waiting' AND (o.nextAt <= :now OR o.nextAt > :farthest) AND NOT EXISTS (
       SELECT 1 FROM chat_out e WHERE e.state = 'waiting' AND e.nextAt > :now AND e.nextAt <= :farthest AND e.place < o.place
         AND e.ticketNumber <=> o.ticketNumber AND e.roomId <=> o.roomId AND e.personId <=> o.personId)
     ORDER BY o.place LIMIT :limit`,
    // Nothing waits longer than quiet hours last: what stands further ahead is so by a clock that was set back.
    { now, farthest: now + FARTHEST_MS, limit: BATCH },
  );
}

/** What people say to each other and are asked: somebody waits for it. */
const TALK = new Set<ChatOutRow['body']['do']>(['words', 'say', 'ask']);
const isTalkLine = (line: ChatOutRow[]): boolean => line.some(({ body }) => TALK.has(body.do));

/** Says what is in line, to each place in its order, some at once; talk first, what else there is gives way. @returns how much went, or that the chat is away */
export async function sendWaiting(listo: Listo): Promise<number | 'wait'> {
  const rows = await findDue(listo, listo.clock.now());
  if (rows.length === 0) return 0;
  const access = await findChat(listo);
  if (!access) return 0;
  const chat = createConnector(access);
  const lines = new Map<string, ChatOutRow[]>();
  for (const row of rows) lines.set(keyOf(row), [...(lines.get(keyOf(row)) ?? []), row]);
  const going = { sent: 0, isAway: false };
  const end = performance.now() + TURN_MS;
  async function sendLineOf(line: ChatOutRow[]): Promise<void> {
    const isTalk = isTalkLine(line);
    for (const row of line) {
      if (going.isAway || (!isTalk && performance.now() > end)) return;
      if (!isTalk) await listo.traffic.giveWay();
      if (await sendOne(listo, chat, row)) going.sent++;
      else going.isAway = true;
    }
  }
  const limit = pLimit(AT_ONCE);
  const inTurn = [...lines.values()].sort(
    (one, other) => Number(isTalkLine(other)) - Number(isTalkLine(one)),
  );
  await Promise.all(inTurn.map((line) => limit(() => sendLineOf(line))));
  return going.sent === 0 && going.isAway ? 'wait' : going.sent;
}
