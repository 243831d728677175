import type { Transaction } from 'sequelize';
import express, { Router, type Request } from 'express';
import { nanoid } from 'nanoid';
import type * as z from 'zod';
import { FILE_LIMIT } from '../../../contract/names';
import { actBodySchema, formBodySchema, roomBodySchema, sayBodySchema } from '../../../contract/rooms';
import { isDuplicate } from '../../database/failures';
import { escapeLike } from '../../database/like';
import { ProblemError } from '../../http/problems';
import type { Listo } from '../../listo';
import type { RoomFileRow, RoomMessageRow, RoomPersonRow, RoomRow } from './model';
import type { RoomsWire } from './wire';
import {
  admit,
  admitCalled,
  findMe,
  openDirect,
  readHome,
  readRoom,
  requireRoom,
  showPerson,
} from './people';
import { noteChange, sayIn, showMessages, tell, toTold } from './said';

const FOUND = 30;

function read<S extends z.ZodType>(schema: S, request: Request): z.output<S> {
  const parsed = schema.safeParse(request.body);
  if (!parsed.success) {
    const fields = parsed.error.issues.map(({ path, message }) => ({
      field: path.map(String).join('.'),
      code: message === 'tooLong' ? 'tooLong' : 'malformed',
    }));
    throw new ProblemError('fieldsNotValid', { fields });
  }
  return parsed.data;
}

/** The workplace chat as its people use it: rooms, direct talk, threads, search, files. */
export function createRoomsRoutes(listo: Listo, wire: RoomsWire): Router {
  const router = Router();
  const { tables, select, transaction } = listo.db;
  const me = (request: Request): Promise<RoomPersonRow> => findMe(listo, request.viewer!.id);

  router.use(async (request, _response, next) => {
    if (!request.viewer) throw new ProblemError('notSignedIn');
    if (!(await tables.settings.findOne({ name: 'demo' }))) throw new ProblemError('notFound');
    next();
  });

  /** The row of a room that one may look into, and be in where one says something. */
  async function enter(person: RoomPersonRow, roomId: string): Promise<RoomRow> {
    const { isMember } = await requireRoom(listo, person, roomId);
    const room = (await tables.rooms.findOne({ id: roomId }))!;
    if (!isMember) await transaction((tx) => join(tx, room, person.id));
    return room;
  }
  async function join(tx: Transaction, room: RoomRow, personId: string): Promise<void> {
    if ((await admit({ listo, tx }, room, personId)) && room.hasListo)
      await tell({ listo, tx }, room, { type: 'joined', byId: personId });
  }
  async function requireMessage(person: RoomPersonRow, id: string): Promise<RoomMessageRow> {
    const message = await tables.roomMessages.findOne({ id });
    if (!message || (message.forId !== null && message.forId !== person.id))
      throw new ProblemError('notFound');
    await requireRoom(listo, person, message.roomId);
    return message;
  }

  router.get('/', async (request, response) => {
    const person = await me(request);
    await transaction((tx) => openDirect({ listo, tx }, [person.id], { withListo: true }));
    response.json(await readHome(listo, person));
  });

  router.get('/live', async (request, response) => {
    await wire.join(await me(request), response);
  });

  router.get('/people', async (request, response) => {
    const q = typeof request.query.q === 'string' ? request.query.q : '';
    const rows = await select<RoomPersonRow>(
      `SELECT * FROM room_people WHERE name LIKE :pattern OR handle LIKE :first
       ORDER BY handle = :q DESC, handle LIKE :first DESC, name LIKE :first DESC, name LIKE :word DESC, name LIMIT 12`,
      { q, pattern: `%${escapeLike(q)}%`, first: `${escapeLike(q)}%`, word: `% ${escapeLike(q)}%` },
    );
    response.json(rows.map((row) => showPerson(listo, row)));
  });

  router.get('/search', async (request, response) => {
    const person = await me(request);
    const words = (typeof request.query.q === 'string' ? request.query.q : '').match(/[\p{L}\p{N}]+/gu) ?? [];
    const rows =
      words.length === 0
        ? []
        : await select<RoomMessageRow>(
            `SELECT s.* FROM room_messages s JOIN rooms r ON r.id = s.roomId LEFT JOIN room_members m ON m.roomId = r.id AND m.personId = :meId
             WHERE MATCH (s.text) AGAINST (:query IN BOOLEAN MODE) AND (r.kind = 'open' OR m.personId IS NOT NULL)
               AND (s.forId IS NULL OR s.forId = :meId) AND s.deletedAt IS NULL ORDER BY s.place DESC LIMIT :limit`,
            { meId: person.id, query: words.map((word) => `+${word}*`).join(' '), limit: FOUND },
          );
    response.json(await showMessages(listo, rows));
  });

  router.post('/', async (request, response) => {
    const { name, topic, kind } = read(roomBodySchema, request);
    const person = await me(request);
    const room: RoomRow = {
      ...{ id: nanoid(12), name, topic, kind, pair: null, hasListo: false, toldSeq: 0 },
      createdAt: listo.clock.now(),
    };
    await transaction(async (tx) => {
      await tables.rooms.insert(room, tx);
      await admit({ listo, tx }, room, person.id);
    });
    wire.wake();
    response.json({ id: room.id });
  });

  router.post('/directs', async (request, response) => {
    const person = await me(request);
    const { personIds } = request.body as { personIds?: unknown };
    const ids = Array.isArray(personIds) ? personIds.map(String).slice(0, 8) : [];
    const known = await tables.roomPeople.find({ id: ids });
    if (known.length === 0) throw new ProblemError('notFound');
    const room = await transaction((tx) =>
      openDirect({ listo, tx }, [person.id, ...known.map(({ id }) => id)]),
    );
    wire.wake();
    response.json({ id: room.id });
  });

  router.get('/files/:id', async (request, response) => {
    const person = await me(request);
    const [file] = await select<RoomFileRow>('SELECT * FROM room_files WHERE id = :id', {
      id: request.params.id,
    });
    if (!file?.roomId) throw new ProblemError('notFound');
    await requireRoom(listo, person, file.roomId);
    response
      .type(file.type)
      .set('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`)
      .send(file.content);
  });

  router.post('/files', express.raw({ type: () => true, limit: FILE_LIMIT }), async (request, response) => {
    const person = await me(request);
    const name = decodeURIComponent(request.get('X-File-Name') ?? 'file').slice(-200);
    const content = request.body as Buffer;
    if (!Buffer.isBuffer(content) || content.length === 0)
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'file', code: 'missing' }] });
    const file = {
      ...{ id: nanoid(), name, type: request.get('Content-Type') ?? 'application/octet-stream' },
      size: content.length,
    };
    await transaction((tx) =>
      listo.db.runBound(
        'INSERT INTO room_files (id, name, type, size, roomId, byId, content) VALUES (?, ?, ?, ?, NULL, ?, ?)',
        [file.id, file.name, file.type.slice(0, 120), file.size, person.id, content],
        tx,
      ),
    );
    response.json(file);
  });

  router.get('/rooms/:id', async (request, response) => {
    const { before, thread } = request.query;
    response.json(
      await readRoom(listo, await me(request), {
        roomId: request.params.id,
        how: {
          ...(typeof before === 'string' && { before: Number(before) }),
          threadId: typeof thread === 'string' ? thread : null,
        },
      }),
    );
  });

  router.post('/rooms/:id/messages', async (request, response) => {
    const person = await me(request);
    const { text, threadId, fileIds, key } = read(sayBodySchema, request);
    const room = await enter(person, request.params.id);
    if (text.trim() === '' && fileIds.length === 0)
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'text', code: 'missing' }] });
    if (threadId !== null && (await requireMessage(person, threadId)).roomId !== room.id)
      throw new ProblemError('notFound');
    // What one repeats is known by its key.
    const id = `m-${key}`.slice(0, 40);
    try {
      await transaction(async (tx) => {
        const files = fileIds.length > 0 ? await tables.roomFiles.find({ id: fileIds, byId: person.id }) : [];
        for (const file of files) await tables.roomFiles.update({ id: file.id }, { roomId: room.id }, tx);
        const shown = files.map((file) => ({
          id: file.id,
          name: file.name,
          type: file.type,
          size: file.size,
        }));
        await admitCalled({ listo, tx }, room, text);
        await sayIn({ listo, tx }, room, {
          id,
          roomId: room.id,
          text,
          threadId,
          byId: person.id,
          files: shown,
        });
      });
    } catch (error) {
      if (!isDuplicate(error)) throw error;
    }
    wire.wake();
    response.json({ id });
  });

  router.put('/messages/:id', async (request, response) => {
    const person = await me(request);
    const { text } = read(sayBodySchema.pick({ text: true }), request);
    await reword(person, request.params.id, text);
    response.json({ ok: true });
  });
  router.delete('/messages/:id', async (request, response) => {
    await reword(await me(request), request.params.id, null);
    response.json({ ok: true });
  });

  async function reword(person: RoomPersonRow, id: string, text: string | null): Promise<void> {
    const message = await requireMessage(person, id);
    if (message.byId !== person.id) throw new ProblemError('forbidden');
    const room = (await tables.rooms.findOne({ id: message.roomId }))!;
    const at = listo.clock.now();
    await transaction(async (tx) => {
      await tables.roomMessages.update(
        { id },
        text === null ? { deletedAt: at } : { text, editedAt: at },
        tx,
      );
      await noteChange({ listo, tx }, { roomId: room.id, kind: 'message', ref: id, forId: message.forId });
      // Also where only this message had been handed over: what became of it is to know.
      await tell({ listo, tx }, room, {
        ...{ type: text === null ? 'deleted' : 'edited', byId: person.id },
        message: { ...toTold(message), text: text ?? '' },
      });
    });
    wire.wake();
  }

  router.post('/rooms/:id/read', async (request, response) => {
    const person = await me(request);
    const place = Number((request.body as { place?: unknown }).place);
    await listo.db.run(
      // Who has read the log to its end has seen what its threads say of it, too.
      `UPDATE room_members SET readPlace = GREATEST(readPlace, :place,
         IF(:place >= (SELECT MAX(place) FROM room_messages WHERE roomId = :roomId AND threadId IS NULL),
           (SELECT MAX(place) FROM room_messages WHERE roomId = :roomId), 0)) WHERE roomId = :roomId AND personId = :id`,
      { roomId: request.params.id, id: person.id, place: Number.isSafeInteger(place) ? place : 0 },
    );
    response.json({ ok: true });
  });

  router.post('/rooms/:id/members', async (request, response) => {
    const person = await me(request);
    const { isMember } = await requireRoom(listo, person, request.params.id);
    const room = (await tables.rooms.findOne({ id: request.params.id }))!;
    const { personId } = request.body as { personId?: unknown };
    const added = typeof personId === 'string' ? personId : person.id;
    if ((!isMember && room.kind !== 'open') || !(await tables.roomPeople.findOne({ id: added })))
      throw new ProblemError('notFound');
    await transaction((tx) => join(tx, room, added));
    wire.wake();
    response.json({ ok: true });
  });
  router.delete('/rooms/:id/members', async (request, response) => {
    const person = await me(request);
    await tables.roomMembers.remove({ roomId: request.params.id, personId: person.id });
    response.json({ ok: true });
  });

  /** A button on a message, or what one may do with any of them: goes to the one who set it up. */
  router.post('/act', async (request, response) => {
    const person = await me(request);
    const { action, messageIds } = read(actBodySchema, request);
    const messages: RoomMessageRow[] = [];
    for (const id of messageIds) messages.push(await requireMessage(person, id));
    messages.sort((a, b) => a.place - b.place);
    const room = (await tables.rooms.findOne({ id: messages[0]!.roomId }))!;
    await transaction((tx) =>
      tell({ listo, tx }, room, {
        ...{ type: 'action', byId: person.id, action },
        messages: messages.filter(({ roomId }) => roomId === room.id).map(toTold),
      }),
    );
    wire.wake();
    response.json({ ok: true });
  });

  router.post('/form', async (request, response) => {
    const person = await me(request);
    const { roomId, callback, values } = read(formBodySchema, request);
    await requireRoom(listo, person, roomId);
    const room = (await tables.rooms.findOne({ id: roomId }))!;
    await transaction((tx) => tell({ listo, tx }, room, { type: 'form', byId: person.id, callback, values }));
    wire.wake();
    response.json({ ok: true });
  });
  return router;
}
