import pLimit, { type LimitFunction } from 'p-limit';
import type { ChatEvent } from '../../contract/rooms';
import { overUpTo, takeTurn, type Known } from '../../core/chat';
import type { FileStore } from '../files/store';
import type { Listo } from '../listo';
import { ChatAway, createConnector } from './connector';
import { hearOne, type Became } from './hear';
import type { Hearing } from './make';
import type { ChatInRow } from './model';
import { findChat } from './access';

const BATCH = 300;
/** Of one room at a time, so that one that waits for what is missing does not hold the others up. */
const BATCH_OF_ROOM = 100;
const AT_ONCE = 12;
/** So long an event that is missing is waited for. */
const PATIENCE_MS = 20_000;
const MOST_TRIES = 12;
const MOST_AWAY = 20_000;

/** What an event is about. In a room of people each thread is a thing of its own; in a direct talk all is one. */
function subjectOf({ roomKind, type, id, message, messages }: ChatEvent): string {
  if (roomKind === 'direct' || roomKind === 'listo' || type === 'joined') return '';
  const about = message ?? messages?.[0];
  return about?.threadId ?? about?.id ?? id;
}

function groupBySubject(rows: ChatInRow[]): ChatInRow[][] {
  const groups = new Map<string, ChatInRow[]>();
  for (const row of rows) {
    const subject = subjectOf(row.body);
    groups.set(subject, [...(groups.get(subject) ?? []), row]);
  }
  return [...groups.values()];
}

/** @returns whether it is over with; if not, it will be tried again */
async function hearRow(hearing: Hearing, row: ChatInRow): Promise<boolean> {
  const { listo } = hearing;
  const { chatIn } = listo.db.tables;
  let became: Became;
  try {
    became = await hearOne(hearing, row);
  } catch (error) {
    const tries = row.tries + 1;
    await chatIn.update({ id: row.id }, { tries });
    // While the chat is away all of it waits; what cannot be handled while it is there is set aside, and said.
    if (tries < MOST_TRIES || (error instanceof ChatAway && tries < MOST_AWAY)) {
      listo.log.warn({ err: error, chatIn: row.id }, 'could not be heard; trying again');
      return false;
    }
    became = { outcome: 'failed', detail: (error as Error).message.slice(0, 500) };
  }
  const { outcome, detail = null, ticketNumber = null } = became;
  await chatIn.update({ id: row.id }, { state: 'handled', outcome, detail, ticketNumber });
  return true;
}

/** Hears a room: what is about one thing in its order, different things beside each other. */
async function hearRoom(
  hearing: Hearing,
  limit: LimitFunction,
  [roomId, rows]: [string, ChatInRow[]],
): Promise<number> {
  const { tables, select, run } = hearing.listo.db;
  const lastSeq = (await tables.chatHeard.findOne({ roomId }))?.lastSeq ?? 0;
  for (const { id } of rows.filter(({ seq }) => seq <= lastSeq))
    await tables.chatIn.update({ id }, { state: 'handled', outcome: 'again' });
  // All that is known of the room, also what is over with after one that was not, and what is not read yet: only what
  // never came is a gap.
  const rowsKnown = await select<Omit<Known, 'isOver'> & { isOver: number }>(
    `SELECT seq, receivedAt, state = 'handled' AS isOver FROM chat_in
     WHERE state IN ('handled', 'waiting') AND roomId = :roomId AND seq > :lastSeq`,
    { roomId, lastSeq },
  );
  const known = rowsKnown.map((each) => ({ ...each, isOver: Boolean(each.isOver) }));
  const atHand = new Map(rows.map((row) => [row.seq, row]));
  const now = hearing.listo.clock.now();
  const turn = takeTurn(known, (seq) => atHand.has(seq), { lastSeq, now, patience: PATIENCE_MS });
  const over = new Set(turn.filter(({ isOver }) => isOver).map(({ seq }) => seq));
  const toHear = turn.flatMap(({ seq, isOver }) => (isOver ? [] : atHand.get(seq)!));
  const already = over.size;
  await Promise.all(
    groupBySubject(toHear).map(async (group) => {
      for (const row of group) {
        if (!(await limit(() => hearRow(hearing, row)))) break;
        over.add(row.seq);
      }
    }),
  );
  const seq = overUpTo(turn, lastSeq, (each) => over.has(each));
  if (seq > lastSeq)
    await run(
      'INSERT INTO chat_heard (roomId, lastSeq) VALUES (:roomId, :seq) ON DUPLICATE KEY UPDATE lastSeq = GREATEST(lastSeq, VALUES(lastSeq))',
      { roomId, seq },
    );
  return over.size - already;
}

/** Hears what has come from the chat. @returns how much was heard, or that what there is has to wait */
export async function hearWaiting(listo: Listo, store: FileStore): Promise<number | 'wait'> {
  const next = await listo.db.select<{ id: string }>(
    `SELECT id FROM (
       SELECT id, receivedAt, ROW_NUMBER() OVER (PARTITION BY roomId ORDER BY seq) AS turn
       FROM chat_in WHERE state = 'waiting') AS waiting
     WHERE turn <= :ofRoom ORDER BY receivedAt LIMIT :limit`,
    { ofRoom: BATCH_OF_ROOM, limit: BATCH },
  );
  if (next.length === 0) return 0;
  const rows = await listo.db.tables.chatIn.find(
    { id: next.map(({ id }) => id) },
    { order: ['roomId', 'seq'] },
  );
  const access = await findChat(listo);
  if (!access) return 0;
  const hearing = { listo, store, chat: createConnector(access), secret: access.secret };
  const rooms = new Map<string, ChatInRow[]>();
  for (const row of rows) rooms.set(row.roomId, [...(rooms.get(row.roomId) ?? []), row]);
  const limit = pLimit(AT_ONCE);
  const counts = await Promise.all([...rooms].map((room) => hearRoom(hearing, limit, room)));
  const done = counts.reduce((sum, count) => sum + count, 0);
  return done === 0 ? 'wait' : done;
}
