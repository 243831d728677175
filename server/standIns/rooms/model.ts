import type { Sequelize } from 'sequelize';
import type { ChatEvent, RoomFile, RoomKind, RoomsLive } from '../../../contract/rooms';
import type { Card, CardAction } from '../../../core/chat';
import { autoNumber, flag, id, instant, integer, json, longText, Table, text } from '../../database/table';

export type RoomPersonRow = {
  id: string;
  handle: string;
  name: string;
  email: string;
  /** Who signs in as them here. */
  personId: string | null;
};
export type RoomRow = {
  id: string;
  name: string;
  topic: string;
  kind: RoomKind;
  /** Of a direct talk: those in it, so that there is one. */
  pair: string | null;
  hasListo: boolean;
  /** How much has been told to the one connected. */
  toldSeq: number;
  createdAt: number;
};
export type RoomMemberRow = { roomId: string; personId: string; joinedAt: number; readPlace: number };
export type RoomMessageRow = {
  place: number;
  id: string;
  roomId: string;
  threadId: string | null;
  byId: string | null;
  at: number;
  text: string;
  card: Card | null;
  actions: CardAction[];
  files: RoomFile[];
  forId: string | null;
  editedAt: number | null;
  deletedAt: number | null;
  replies: number;
  lastReplyAt: number | null;
};
export type RoomFileRow = RoomFile & { roomId: string | null; byId: string; content: Buffer };
export type RoomChangeRow = {
  id: number;
  roomId: string;
  kind: RoomsLive['kind'];
  ref: string | null;
  forId: string | null;
  body: object | null;
  at: number;
};
export type RoomEventRow = {
  id: string;
  roomId: string;
  seq: number;
  body: ChatEvent;
  state: 'waiting' | 'told';
  tries: number;
  nextAt: number;
};

export function createRoomsTables(sequelize: Sequelize) {
  return {
    roomPeople: new Table<RoomPersonRow>(sequelize, 'room_people', {
      ...{ id, handle: text(60), name: text(), email: text(), personId: id },
    }),
    rooms: new Table<RoomRow>(sequelize, 'rooms', {
      ...{ id, name: text(80), topic: text(200), kind: text(12), pair: text(200), hasListo: flag },
      ...{ toldSeq: integer, createdAt: instant },
    }),
    roomMembers: new Table<RoomMemberRow>(
      sequelize,
      'room_members',
      { roomId: id, personId: id, joinedAt: instant, readPlace: integer },
      ['roomId', 'personId'],
    ),
    roomMessages: new Table<RoomMessageRow>(
      sequelize,
      'room_messages',
      {
        ...{ place: autoNumber, id, roomId: id, threadId: id, byId: id, at: instant, text: longText },
        ...{ card: json, actions: json, files: json, forId: id, editedAt: instant, deletedAt: instant },
        ...{ replies: integer, lastReplyAt: instant },
      },
      ['place'],
    ),
    roomFiles: new Table<Omit<RoomFileRow, 'content'>>(sequelize, 'room_files', {
      ...{ id, name: text(), type: text(120), size: integer, roomId: id, byId: id },
    }),
    roomChanges: new Table<RoomChangeRow>(sequelize, 'room_changes', {
      ...{ id: autoNumber, roomId: id, kind: text(12), ref: id, forId: id, body: json, at: instant },
    }),
    roomEvents: new Table<RoomEventRow>(sequelize, 'room_events', {
      ...{ id, roomId: id, seq: integer, body: json, state: text(12), tries: integer, nextAt: instant },
    }),
  };
}
