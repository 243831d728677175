import express, { Router } from 'express';
import type * as z from 'zod';
import { botSchemas } from '../../../contract/rooms';
import { findChat } from '../../chat/access';
import { isSigned } from '../../http/signing';
import { isDuplicate } from '../../database/failures';
import type { Listo } from '../../listo';
import type { RoomFileRow, RoomMessageRow, RoomPersonRow } from './model';
import { openDirect } from './people';
import { noteChange, sayIn, toTold } from './said';
import type { RoomsWire } from './wire';

type Name = keyof typeof botSchemas;
type Asked<N extends Name> = z.output<(typeof botSchemas)[N]>;
type Refusal = { status: number; error: string };

const readJson = (body: unknown): unknown => {
  try {
    return JSON.parse(String(body)) as unknown;
  } catch {
    return null;
  }
};
const isRefusal = (answer: object): answer is Refusal => 'status' in answer;

/** What the one connected may ask of the workplace chat: each request signed with the shared secret. */
export function createBotRoutes(listo: Listo, wire: RoomsWire): Router {
  const router = Router();
  const { tables, select, transaction } = listo.db;

  const answers: { [N in Name]: (asked: Asked<N>) => Promise<object> } = {
    async post({ key, roomId, personId, ...message }) {
      const id = `l-${key}`.slice(0, 40);
      const known = await tables.roomMessages.findOne({ id });
      if (known) return { id, roomId: known.roomId };
      if (personId !== undefined && !(await tables.roomPeople.findOne({ id: personId })))
        return { status: 404, error: 'no such person' };
      try {
        return await transaction(async (tx) => {
          const room =
            personId === undefined
              ? await tables.rooms.findOne({ id: roomId ?? '' }, tx)
              : await openDirect({ listo, tx }, [personId], { withListo: true });
          if (!room) return { status: 404, error: 'no such room' };
          await sayIn({ listo, tx }, room, { ...message, id, roomId: room.id });
          return { id, roomId: room.id };
        });
      } catch (error) {
        if (!isDuplicate(error)) throw error;
        return { id, roomId: (await tables.roomMessages.findOne({ id }))!.roomId };
      }
    },
    async update({ messageId, ...changes }) {
      const message = await tables.roomMessages.findOne({ id: messageId });
      // Only what it said itself.
      if (message?.byId !== null) return { status: 404, error: 'no such message' };
      await transaction(async (tx) => {
        const given = Object.fromEntries(Object.entries(changes).filter(([, value]) => value !== undefined));
        await tables.roomMessages.update({ id: messageId }, given, tx);
        await noteChange(
          { listo, tx },
          {
            ...{ roomId: message.roomId, kind: 'message', ref: messageId, forId: message.forId },
          },
        );
      });
      return { ok: true };
    },
    async before({ messageId, count }) {
      const message = await tables.roomMessages.findOne({ id: messageId });
      if (!message) return { status: 404, error: 'no such message' };
      const { roomId, threadId, place } = message;
      const rows = await select<RoomMessageRow>(
        `SELECT * FROM room_messages WHERE roomId = :roomId AND place < :place AND byId IS NOT NULL AND deletedAt IS NULL AND forId IS NULL
           AND ${threadId === null ? 'threadId IS NULL' : '(threadId = :threadId OR id = :threadId)'} ORDER BY place DESC LIMIT :count`,
        { roomId, place, threadId, count },
      );
      return { messages: rows.reverse().map(toTold) };
    },
    async form({ roomId, personId, form }) {
      await transaction((tx) =>
        noteChange({ listo, tx }, { roomId, kind: 'form', forId: personId, body: form }),
      );
      return { ok: true };
    },
    async people({ ids, email }) {
      const rows =
        ids === undefined
          ? await tables.roomPeople.find({ email: email ?? '' })
          : await tables.roomPeople.find({ id: ids });
      return { people: rows.map(({ id, name, email: address }) => ({ id, name, email: address })) };
    },
    async members({ roomId }) {
      const room = await tables.rooms.findOne({ id: roomId });
      if (!room) return { status: 404, error: 'no such room' };
      const rows = await select<RoomPersonRow>(
        'SELECT p.id, p.name, p.email FROM room_members m JOIN room_people p ON p.id = m.personId WHERE m.roomId = :roomId',
        { roomId },
      );
      return { kind: room.kind, name: room.name, people: rows };
    },
    async rooms() {
      const rows = await select<{ id: string; name: string; kind: string }>(
        "SELECT id, name, kind FROM rooms WHERE kind IN ('open', 'closed') ORDER BY name",
      );
      return { rooms: rows };
    },
    async join({ roomId }) {
      await tables.rooms.update({ id: roomId }, { hasListo: true });
      return { ok: true };
    },
    async messageActions({ actions }) {
      await tables.settings.remove({ name: 'roomActions' });
      await tables.settings.insert({ name: 'roomActions', value: actions });
      return { ok: true };
    },
    async file({ fileId }) {
      const [file] = await select<RoomFileRow>('SELECT * FROM room_files WHERE id = :fileId', { fileId });
      if (!file) return { status: 404, error: 'no such file' };
      return { name: file.name, type: file.type, content: file.content.toString('base64') };
    },
  };

  router.use(express.text({ type: () => true, limit: '4mb' }), async (request, response, next) => {
    const chat = await findChat(listo);
    const headers = Object.fromEntries(
      Object.entries(request.headers).map(([name, value]) => [name, String(value)]),
    );
    if (!chat || !isSigned(chat.secret, request.body as string, headers)) {
      response.status(401).json({ error: 'not signed' });
      return;
    }
    next();
  });
  router.post('/:name', async (request, response) => {
    const name = request.params.name as Name;
    if (!Object.hasOwn(botSchemas, name)) {
      response.status(404).json({ error: 'nothing of that name' });
      return;
    }
    const parsed = botSchemas[name].safeParse(readJson(request.body));
    if (!parsed.success) {
      response.status(422).json({ error: parsed.error.issues.map(({ path }) => path.join('.')).join(', ') });
      return;
    }
    const answer = await (answers[name] as (asked: unknown) => Promise<object>)(parsed.data);
    if (isRefusal(answer)) response.status(answer.status).json({ error: answer.error });
    else response.json(answer);
    wire.wake();
  });
  return router;
}
