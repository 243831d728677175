import type { Sequelize } from 'sequelize';
import type { ChatEvent } from '../../contract/rooms';
import type { NoticeEvent, QuietHours } from '../../core/chat';
import type { Language, LocalText } from '../../core/forms';
import { autoNumber, flag, id, instant, integer, json, Table, text } from '../database/table';

export type ChatIdentityRow = { chatId: string; personId: string; at: number };

/** A room that Listo has something to do in. */
export type ChatRoomRow = {
  roomId: string;
  name: string;
  /** team: the closed room of a team. ask: where employees ask; what they say becomes tickets of a service. */
  job: 'team' | 'ask';
  teamId: string | null;
  serviceId: string | null;
  /** Whether each first message becomes a ticket, or only what an agent says should. */
  isEach: boolean;
  language: Language;
  state: 'on' | 'stopped';
  /** Why it was stopped. */
  reason: string | null;
  version: number;
};

export type ChatInRow = {
  id: string;
  roomId: string;
  seq: number;
  receivedAt: number;
  body: ChatEvent;
  state: 'waiting' | 'handled';
  tries: number;
  outcome: string | null;
  detail: string | null;
  ticketNumber: number | null;
};

/** What is to be said in chat. What it says is composed as it leaves, so that it is what holds then. */
export type ChatOutBody =
  | { do: 'card' }
  | { do: 'words'; messageId: string; role: 'card' | 'line' }
  | { do: 'told'; event: string; entryId: number }
  | { do: 'ask'; askId: string }
  | { do: 'update' }
  | { do: 'line'; threadId: string | null }
  | {
      do: 'say';
      text: string;
      forId: string | null;
      threadId: string | null;
      actions?: { id: string; name: string }[];
    }
  | { do: 'notice'; noticeId: string; isTrial: boolean }
  /** What a rule says in a room. */
  | { do: 'ruled'; words: LocalText };

export type ChatOutRow = {
  place: number;
  id: string;
  at: number;
  kind: ChatOutBody['do'];
  ticketNumber: number | null;
  /** To a room, or to a person's direct talk. */
  roomId: string | null;
  personId: string | null;
  body: ChatOutBody;
  state: 'waiting' | 'sent' | 'failed';
  tries: number;
  nextAt: number;
  sentAt: number | null;
  error: string | null;
};

/**
 * A message in chat that has to do with a ticket. card, line, direct: shows its state, and its thread is the ticket's.
 * ask: someone decides by it. source: the ticket was made of it. words: it is the same as words of the ticket's thread.
 */
export type ChatMarkRow = {
  messageId: string;
  roomId: string;
  ticketNumber: number;
  role: 'card' | 'line' | 'direct' | 'ask' | 'source' | 'words';
  personId: string | null;
  /** The words of the thread, or the ask. */
  wordsId: string | null;
  /** Of several lines that a ticket was made of, which it is, from 0. */
  place: number;
};

/** A room with the line of a ticket, as it was called when that was put there. */
export type ChatPlaceRow = { roomId: string; name: string; kind: string };

export type ChatWishRow = { personId: string; wantsChat: boolean; quiet: QuietHours | null };

export type ChatNoticeRow = {
  id: string;
  name: string;
  event: NoticeEvent;
  teamId: string | null;
  roomId: string | null;
  personId: string | null;
  toTeamId: string | null;
  toGroupId: string | null;
  words: string;
  isOn: boolean;
  triedAt: number | null;
  version: number;
};

/** What comes in from the chat, what goes out to it, and which of its messages are of which ticket. */
function createMessageTables(sequelize: Sequelize) {
  return {
    chatIn: new Table<ChatInRow>(sequelize, 'chat_in', {
      ...{ id, roomId: id, seq: integer, receivedAt: instant, body: json, state: text(12), tries: integer },
      ...{ outcome: text(30), detail: text(500), ticketNumber: integer },
    }),
    chatOut: new Table<ChatOutRow>(
      sequelize,
      'chat_out',
      {
        ...{ place: autoNumber, id, at: instant, kind: text(12), ticketNumber: integer, roomId: id },
        ...{ personId: id, body: json, state: text(12), tries: integer, nextAt: instant, sentAt: instant },
        error: text(500),
      },
      ['place'],
    ),
    chatMarks: new Table<ChatMarkRow>(
      sequelize,
      'chat_marks',
      {
        messageId: id,
        roomId: id,
        ticketNumber: integer,
        role: text(12),
        personId: id,
        wordsId: id,
        place: integer,
      },
      ['messageId'],
    ),
  };
}

export function createChatTables(sequelize: Sequelize) {
  return {
    ...createMessageTables(sequelize),
    chatIdentities: new Table<ChatIdentityRow>(
      sequelize,
      'chat_identities',
      { chatId: id, personId: id, at: instant },
      ['chatId'],
    ),
    chatRooms: new Table<ChatRoomRow>(
      sequelize,
      'chat_rooms',
      {
        ...{ roomId: id, name: text(80), job: text(12), teamId: id, serviceId: id, isEach: flag },
        ...{ language: text(2), state: text(12), reason: text(200), version: integer },
      },
      ['roomId'],
    ),
    chatHeard: new Table<{ roomId: string; lastSeq: number }>(
      sequelize,
      'chat_heard',
      { roomId: id, lastSeq: integer },
      ['roomId'],
    ),
    chatPlaces: new Table<ChatPlaceRow>(
      sequelize,
      'chat_places',
      { roomId: id, name: text(80), kind: text(12) },
      ['roomId'],
    ),
    chatWishes: new Table<ChatWishRow>(
      sequelize,
      'chat_wishes',
      { personId: id, wantsChat: flag, quiet: json },
      ['personId'],
    ),
    chatNotices: new Table<ChatNoticeRow>(sequelize, 'chat_notices', {
      ...{ id, name: text(120), event: text(12), teamId: id, roomId: id, personId: id },
      ...{ toTeamId: id, toGroupId: id },
      ...{ words: text(1000), isOn: flag, triedAt: instant, version: integer },
    }),
  };
}
