import { nanoid } from 'nanoid';
import type { Transaction } from 'sequelize';
import { isQuiet } from '../../core/chat';
import type { Listo } from '../listo';
import { lookUp, type LookUp } from '../notifications/lookUp';
import type { ChatOutBody, ChatOutRow } from './model';
import type { UnitOfWork } from '../unitOfWork';

const QUARTER_MS = 900_000;
const DAY_MS = 86_400_000;

const queued = new WeakSet<object>();

/** Whether something was put in line in this process since it was last asked. */
export const takeQueued = ({ db }: Listo): boolean => queued.delete(db);

const ID_LIMIT = 40;
/** The id of what follows from something else. */
export const idOf = (kind: string, from: string): string => `${kind}${from}`.slice(0, ID_LIMIT);

type To = Partial<Pick<ChatOutRow, 'ticketNumber' | 'roomId' | 'personId' | 'nextAt' | 'id'>>;

/**
 * Puts something in line for the chat, in the transaction of what it tells of; it leaves after the commit, in order. With
 * an id of its own it is put there once, however often what it tells of is gone through.
 */
export async function queueChat(
  listo: Listo,
  tx: Transaction | undefined,
  { body, to }: { body: ChatOutBody; to: To },
): Promise<void> {
  const now = listo.clock.now();
  queued.add(listo.db);
  await listo.db.tables.chatOut.insertAll(
    [
      {
        ...{ id: nanoid(), at: now, kind: body.do, ticketNumber: null, roomId: null, personId: null, body },
        ...{ state: 'waiting', tries: 0, nextAt: now, sentAt: null, error: null },
        ...to,
      },
    ],
    tx,
    { updates: ['kind'] },
  );
}

/** When someone is told who may have hours in which they want quiet. */
export async function whenTold(
  { listo, tx }: UnitOfWork,
  personId: string,
  known: LookUp = lookUp(listo, tx),
): Promise<number | null> {
  const { select } = listo.db;
  const now = listo.clock.now();
  const wish = await known.chatWish(personId);
  if (wish && !wish.wantsChat) return null;
  if (!wish?.quiet) return now;
  const [site] = await select<{ timeZone: string }>(
    'SELECT s.timeZone FROM people p JOIN sites s ON s.id = p.siteId WHERE p.id = :personId',
    { personId },
    tx,
  );
  for (let at = now; at < now + DAY_MS; at += at === now ? QUARTER_MS - (now % QUARTER_MS) : QUARTER_MS)
    if (!isQuiet(at, wish.quiet, site?.timeZone ?? 'UTC')) return at;
  return now;
}
