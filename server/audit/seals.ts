import { createHash } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { toLine, type AuditEntry } from '../../core/audit';
import { ProblemError } from '../http/problems';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import type { TimerHandler } from '../timers/runner';
import type { Reading } from '../unitOfWork';
import type { SealRow } from './model';
import { parseEntry } from './parse';

/** So many entries are in memory at once. */
const AT_ONCE = 1_000;
const DAY_MS = 86_400_000;
/** When in the day (UTC) the last one is sealed: what was under way at midnight is committed by then. */
const AFTER_MIDNIGHT_MS = 5 * 60_000;
const NO_HASH = '0'.repeat(64);

type Stretch = { previousHash: string; firstPosition: number; lastPosition: number };

/** The hash of the line of an entry. */
export const hashLine = (entry: AuditEntry): string =>
  createHash('sha256').update(toLine(entry)).digest('hex');

/** The hashes that lines had before their words were erased, by entry. */
async function readErased({ listo, tx }: Reading, rows: JournalRow[]): Promise<Map<number, string>> {
  if (rows.length === 0) return new Map();
  const erased = await listo.db.select<{ entryId: number; lineHash: string }>(
    'SELECT entryId, lineHash FROM erased_entries WHERE entryId BETWEEN :first AND :last',
    { first: Math.min(...rows.map(({ id }) => id)), last: Math.max(...rows.map(({ id }) => id)) },
    tx,
  );
  return new Map(erased.map(({ entryId, lineHash }) => [entryId, lineHash]));
}

/** The hash over a stretch of the journal, and how many entries it has. */
async function hashStretch(
  { listo, tx }: Reading,
  { previousHash, firstPosition, lastPosition }: Stretch,
): Promise<{ hash: string; entries: number }> {
  const hash = createHash('sha256').update(previousHash);
  let [after, entries] = [firstPosition - 1, 0];
  for (;;) {
    const rows = await listo.db.select<JournalRow>(
      'SELECT * FROM journal WHERE position > :after AND position <= :lastPosition ORDER BY position LIMIT :limit',
      { after, lastPosition, limit: AT_ONCE },
      tx,
    );
    const erased = await readErased({ listo, ...(tx && { tx }) }, rows);
    for (const row of rows) hash.update(`\n${erased.get(row.id) ?? hashLine(parseEntry(row))}`);
    entries += rows.length;
    if (rows.length < AT_ONCE) return { hash: hash.digest('hex'), entries };
    after = rows.at(-1)!.position!;
  }
}

/** Seals what has been written since the last seal. @returns the seal; null: nothing has */
export async function sealNow(listo: Listo, tx: Transaction): Promise<Omit<SealRow, 'id'> | null> {
  const { tables } = listo.db;
  const [last] = await tables.seals.find({}, { order: [['id', 'DESC']], limit: 1, transaction: tx });
  const [end] = await listo.db.select<{ position: number | null }>(
    'SELECT MAX(position) AS position FROM journal',
    {},
    tx,
  );
  const firstPosition = (last?.lastPosition ?? 0) + 1;
  const lastPosition = end?.position ?? 0;
  if (lastPosition < firstPosition) return null;
  const stretch = { previousHash: last?.hash ?? NO_HASH, firstPosition, lastPosition };
  const seal = { ...stretch, ...(await hashStretch({ listo, tx }, stretch)), at: listo.clock.now() };
  await tables.seals.insert(seal, tx);
  return seal;
}

/** Each night the journal of the day is sealed; the next night's timer is set in the same transaction. */
export const sealDay: TimerHandler = async (listo, due, tx) => {
  await sealNow(listo, tx);
  const midnight = (Math.floor(listo.clock.now() / DAY_MS) + 1) * DAY_MS;
  for (const { ref } of due)
    await listo.db.tables.timers.insert(
      { ticketNumber: 0, kind: 'sealDay', ref, at: midnight + AFTER_MIDNIGHT_MS },
      tx,
    );
};

/**
 * Whether a stretch of the journal is still what was sealed. `isLinked`: whether its seal follows from the one before it,
 * so that none was exchanged.
 */
export async function checkSeal(listo: Listo, id: number): Promise<{ holds: boolean; isLinked: boolean }> {
  const { seals } = listo.db.tables;
  const seal = await seals.findOne({ id });
  if (!seal) throw new ProblemError('notFound');
  const before = await seals.findOne({ lastPosition: seal.firstPosition - 1 });
  const isFirst = seal.firstPosition === 1;
  const isLinked = isFirst ? seal.previousHash === NO_HASH : before?.hash === seal.previousHash;
  const { hash, entries } = await hashStretch({ listo }, seal);
  return { holds: hash === seal.hash && entries === seal.entries, isLinked };
}
