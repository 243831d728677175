import { nanoid } from 'nanoid';
import type { ChatEvent, RoomMessage, ToldMessage } from '../../../contract/rooms';
import { readAddressed } from '../../../core/chat';
import type { Listo } from '../../listo';
import type { RoomMessageRow, RoomRow } from './model';
import type { UnitOfWork } from '../../unitOfWork';

type NewMessage = Pick<RoomMessageRow, 'id' | 'roomId' | 'text'> &
  Partial<Pick<RoomMessageRow, 'threadId' | 'byId' | 'card' | 'actions' | 'files' | 'forId'>>;

/** Notes that something can be seen anew; those who look are told by it. */
export async function noteChange(
  { listo, tx }: UnitOfWork,
  change: {
    roomId: string;
    kind: 'message' | 'form' | 'rooms';
    ref?: string;
    forId?: string | null;
    body?: object;
  },
): Promise<void> {
  await listo.db.tables.roomChanges.insert(
    { ref: null, forId: null, body: null, ...change, at: listo.clock.now() },
    tx,
  );
}

export const toTold = ({ id, threadId, byId, at, text, files }: RoomMessageRow): ToldMessage => ({
  ...{ id, threadId, byId, at, text, files },
});

type NewEvent = Omit<ChatEvent, 'id' | 'seq' | 'roomId' | 'roomKind' | 'at'>;

/** Puts an event in line for the one connected, with the room's next number. */
export async function tell({ listo, tx }: UnitOfWork, room: RoomRow, event: NewEvent): Promise<void> {
  const { tables, select, run } = listo.db;
  await run('UPDATE rooms SET toldSeq = toldSeq + 1 WHERE id = :id', { id: room.id }, tx);
  const [row] = await select<{ seq: number }>(
    'SELECT toldSeq AS seq FROM rooms WHERE id = :id',
    { id: room.id },
    tx,
  );
  const id = nanoid();
  const at = listo.clock.now();
  const body: ChatEvent = { ...event, id, seq: row!.seq, roomId: room.id, roomKind: room.kind, at };
  await tables.roomEvents.insert(
    { id, roomId: room.id, seq: row!.seq, body, state: 'waiting', tries: 0, nextAt: at },
    tx,
  );
}

/** Whether a thread hangs on what the one connected said: it follows that, wherever it is. */
async function isUnderListos({ listo, tx }: UnitOfWork, threadId: string | null): Promise<boolean> {
  if (threadId === null) return false;
  const root = await listo.db.tables.roomMessages.findOne({ id: threadId }, tx);
  return root !== null && root.byId === null;
}

/** Says something in a room: once, however often it comes with the same id. */
export async function sayIn({ listo, tx }: UnitOfWork, room: RoomRow, message: NewMessage): Promise<void> {
  const { tables, run } = listo.db;
  const at = listo.clock.now();
  const row = {
    ...{ threadId: null, byId: null, card: null, actions: [], files: [], forId: null },
    ...message,
    at,
  };
  await tables.roomMessages.insert(row, tx);
  if (row.threadId !== null) {
    await run(
      'UPDATE room_messages SET replies = replies + 1, lastReplyAt = :at WHERE id = :id',
      { id: row.threadId, at },
      tx,
    );
    await noteChange({ listo, tx }, { roomId: room.id, kind: 'message', ref: row.threadId });
  }
  await noteChange({ listo, tx }, { roomId: room.id, kind: 'message', ref: row.id, forId: row.forId });
  const isHeard =
    room.hasListo || readAddressed(row.text) !== null || (await isUnderListos({ listo, tx }, row.threadId));
  if (row.byId !== null && isHeard) {
    const told = toTold({ ...row, place: 0, editedAt: null, deletedAt: null, replies: 0, lastReplyAt: null });
    await tell({ listo, tx }, room, { type: 'message', byId: row.byId, message: told });
  }
}

/** Messages as they are shown, with the names of who said them; what was deleted has lost its words. */
export async function showMessages(listo: Listo, rows: RoomMessageRow[]): Promise<RoomMessage[]> {
  const ids = [...new Set(rows.flatMap(({ byId }) => byId ?? []))];
  const people = ids.length > 0 ? await listo.db.tables.roomPeople.find({ id: ids }) : [];
  return rows.map(({ byId, ...row }) => ({
    ...row,
    ...(row.deletedAt !== null && { text: '', files: [], card: null }),
    by: byId === null ? null : { id: byId, name: people.find(({ id }) => id === byId)?.name ?? byId },
  }));
}
