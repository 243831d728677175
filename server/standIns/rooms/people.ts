import { nanoid } from 'nanoid';
import type { RoomInList, RoomPerson, RoomsHome, RoomView } from '../../../contract/rooms';
import { listCalled } from '../../../core/chat';
import { ProblemError } from '../../http/problems';
import type { Listo } from '../../listo';
import type { RoomMessageRow, RoomPersonRow, RoomRow } from './model';
import { noteChange, showMessages } from './said';
import type { UnitOfWork } from '../../unitOfWork';

const PAGE = 60;
const MOST_PEOPLE = 60;

/** The name under which Rooms knows someone who signs in as one of the demo's people. */
export async function findMe(listo: Listo, personId: string): Promise<RoomPersonRow> {
  const { tables } = listo.db;
  const known = await tables.roomPeople.findOne({ personId });
  if (known) return known;
  const person = (await tables.people.findOne({ id: personId }))!;
  const row: RoomPersonRow = {
    ...{ id: `c-${personId}`, handle: personId, name: person.name, email: person.email, personId },
  };
  await tables.roomPeople.insertAll([row], undefined, { updates: ['name'] });
  return row;
}

type ListRow = RoomRow & {
  unread: number;
  calls: number;
  isMember: number;
  members: number;
  partners: string | null;
};

async function readRooms(
  listo: Listo,
  { id: meId, handle }: Pick<RoomPersonRow, 'id' | 'handle'>,
  roomId: string | null,
): Promise<RoomInList[]> {
  const rows = await listo.db.select<ListRow>(
    `SELECT r.*, m.personId IS NOT NULL AS isMember,
       (SELECT COUNT(*) FROM room_members c WHERE c.roomId = r.id) AS members,
       IF(m.personId IS NULL, 0, (SELECT COUNT(*) FROM room_messages s WHERE s.roomId = r.id AND s.threadId IS NULL AND s.place > m.readPlace
          AND (s.byId IS NULL OR s.byId <> :meId) AND (s.forId IS NULL OR s.forId = :meId) AND s.deletedAt IS NULL)) AS unread,
       (SELECT COUNT(*) FROM room_messages s WHERE s.roomId = r.id AND s.place > m.readPlace AND s.byId <> :meId AND s.deletedAt IS NULL
          AND s.text LIKE :call AND s.text REGEXP :called) AS calls,
       IF(r.kind = 'direct', (SELECT GROUP_CONCAT(p.name ORDER BY p.name SEPARATOR ', ') FROM room_members d JOIN room_people p ON p.id = d.personId
          WHERE d.roomId = r.id AND d.personId <> :meId), NULL) AS partners
     FROM rooms r LEFT JOIN room_members m ON m.roomId = r.id AND m.personId = :meId
     WHERE (r.kind = 'open' OR m.personId IS NOT NULL) AND (:roomId IS NULL OR r.id = :roomId) ORDER BY r.kind = 'direct', r.name`,
    {
      ...{ meId, roomId, call: `%@${handle}%` },
      called: `(^|[^[:alnum:]_@.])@${handle}($|[^[:alnum:]_-])`,
    },
  );
  return rows.map(({ id, name, kind, topic, unread, calls, isMember, members, hasListo, partners }) => ({
    ...{ id, kind, topic, unread, calls, members, name: partners ?? name },
    isMember: Boolean(isMember),
    hasListo: Boolean(hasListo as boolean | number),
  }));
}

/** A room that someone may look into: open, or theirs. */
export async function requireRoom(
  listo: Listo,
  me: Pick<RoomPersonRow, 'id' | 'handle'>,
  roomId: string,
): Promise<RoomInList> {
  const [room] = await readRooms(listo, me, roomId);
  if (!room) throw new ProblemError('notFound');
  return room;
}

const here = new WeakMap<object, Map<string, number>>();
/** Who has Rooms open, in this process. */
export function hereOf({ db }: Listo): Map<string, number> {
  const known = here.get(db) ?? new Map<string, number>();
  here.set(db, known);
  return known;
}

export const showPerson = (listo: Listo, { id, name, handle }: RoomPersonRow): RoomPerson => ({
  ...{ id, name, handle },
  isHere: (hereOf(listo).get(id) ?? 0) > 0,
});

export async function readHome(listo: Listo, me: RoomPersonRow): Promise<RoomsHome> {
  const setting = await listo.db.tables.settings.findOne({ name: 'roomActions' });
  const actions = (setting?.value ?? []) as { id: string; name: string; forIds: string[] | null }[];
  return {
    me: showPerson(listo, me),
    rooms: await readRooms(listo, me, null),
    messageActions: actions
      .filter(({ forIds }) => forIds === null || forIds.includes(me.id))
      .map(({ id, name }) => ({ id, name })),
  };
}

/** A page of a room's log, the latest at the end, or of one of its threads. */
export async function readRoom(
  listo: Listo,
  me: RoomPersonRow,
  {
    roomId,
    how: { before, threadId = null },
  }: { roomId: string; how: { before?: number; threadId?: string | null } },
): Promise<RoomView> {
  const { select, tables } = listo.db;
  const room = await requireRoom(listo, me, roomId);
  const rows = await select<RoomMessageRow>(
    `SELECT * FROM room_messages WHERE roomId = :roomId AND threadId <=> :threadId AND place < :before
       AND (forId IS NULL OR forId = :meId) ORDER BY place DESC LIMIT :limit`,
    { roomId, threadId, before: before ?? Number.MAX_SAFE_INTEGER, meId: me.id, limit: PAGE + 1 },
  );
  const people = await select<RoomPersonRow>(
    'SELECT p.* FROM room_members m JOIN room_people p ON p.id = m.personId WHERE m.roomId = :roomId ORDER BY p.name LIMIT :most',
    { roomId, most: MOST_PEOPLE },
  );
  const mine = await tables.roomMembers.findOne({ roomId, personId: me.id });
  return {
    ...room,
    people: people.map((person) => showPerson(listo, person)),
    messages: await showMessages(listo, rows.slice(0, PAGE).reverse()),
    isMore: rows.length > PAGE,
    readPlace: mine?.readPlace ?? 0,
  };
}

/** Brings someone into a room. */
export async function admit({ listo, tx }: UnitOfWork, room: RoomRow, personId: string): Promise<boolean> {
  const { tables } = listo.db;
  if (await tables.roomMembers.findOne({ roomId: room.id, personId }, tx)) return false;
  await tables.roomMembers.insert(
    { roomId: room.id, personId, joinedAt: listo.clock.now(), readPlace: 0 },
    tx,
  );
  await noteChange({ listo, tx }, { roomId: room.id, kind: 'rooms' });
  return true;
}

/** The direct talk of some people, or of one with Listo: opened where there is none. */
export async function openDirect(
  { listo, tx }: UnitOfWork,
  ids: string[],
  { withListo = false } = {},
): Promise<RoomRow> {
  const { tables } = listo.db;
  const pair = [...new Set(ids), ...(withListo ? ['listo'] : [])].sort().join(' ').slice(0, 200);
  const known = await tables.rooms.findOne({ pair }, tx);
  if (known) return known;
  const room: RoomRow = {
    ...{
      id: nanoid(12),
      name: withListo ? 'Listo' : '',
      topic: '',
      kind: withListo ? 'listo' : 'direct',
      pair,
    },
    ...{ hasListo: withListo, toldSeq: 0, createdAt: listo.clock.now() },
  };
  // Who opens it at the same moment comes into the same one.
  await tables.rooms.insertAll([room], tx, { updates: ['pair'] });
  const opened = (await tables.rooms.findOne({ pair }, tx, true))!;
  if (opened.id === room.id) for (const personId of new Set(ids)) await admit({ listo, tx }, room, personId);
  return opened;
}

/** Those who are called by name in an open room, and are not in it, come in. */
export async function admitCalled({ listo, tx }: UnitOfWork, room: RoomRow, text: string): Promise<void> {
  const handles = listCalled(text);
  if (room.kind !== 'open' || handles.length === 0) return;
  const called = await listo.db.tables.roomPeople.find({ handle: handles }, { transaction: tx });
  const [last] = await listo.db.select<{ place: number }>(
    'SELECT COALESCE(MAX(place), 0) AS place FROM room_messages WHERE roomId = :id',
    { id: room.id },
    tx,
  );
  for (const { id } of called)
    if (await admit({ listo, tx }, room, id))
      await listo.db.tables.roomMembers.update(
        { roomId: room.id, personId: id },
        { readPlace: last!.place },
        tx,
      );
}
