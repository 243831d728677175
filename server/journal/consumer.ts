import type { Transaction } from 'sequelize';
import type { Listo } from '../listo';
import type { JournalRow } from './model';
import type { UnitOfWork } from '../unitOfWork';

/** Something that follows from the journal. What it writes commits together with its cursor, so exactly once. */
export type Consumer = {
  name: string;
  /** Whether something may follow from an entry, judged by the entry alone. */
  hears(entry: JournalRow): boolean;
  /** @param heard the entries that it hears, in order; at least one */
  handle(listo: Listo, heard: JournalRow[], tx: Transaction): Promise<void>;
};

const BATCH = 200;

/** Consumers begin at the present end of the journal when they are new. */
export async function registerConsumers(listo: Listo, consumers: Consumer[]): Promise<void> {
  const names = ['sequencer', ...consumers.map((consumer) => consumer.name)];
  const rows = await listo.db.select<{ name: string }>('SELECT name FROM consumers WHERE name IN (:names)', {
    names,
  });
  const known = new Set(rows.map(({ name }) => name));
  // Also an insert that would change nothing waits for the row of a consumer that is working.
  for (const name of names.filter((each) => !known.has(each)))
    await listo.db.run(
      `INSERT IGNORE INTO consumers (name, position) SELECT :name, COALESCE(MAX(position), 0) FROM journal`,
      { name },
    );
}

/** The entries after a position, in order. */
export type EntryReader = (position: number) => Promise<JournalRow[]>;

/** Reads each stretch of the journal once: consumers of one round are mostly at the same place. */
export function createEntryReader({ db }: Listo): EntryReader {
  const read = new Map<number, JournalRow[]>();
  return async (position) => {
    const known = read.get(position);
    if (known) return known;
    const entries = await db.select<JournalRow>(
      'SELECT * FROM journal WHERE position > :position ORDER BY position LIMIT :limit',
      { position, limit: BATCH },
    );
    read.set(position, entries);
    return entries;
  };
}

/** Hands a consumer those of some entries that it hears. */
export async function hand(
  { listo, tx }: UnitOfWork,
  consumer: Consumer,
  entries: JournalRow[],
): Promise<void> {
  const heard = entries.filter((entry) => consumer.hears(entry));
  if (heard.length > 0) await consumer.handle(listo, heard, tx);
}

/**
 * Hands a consumer the entries after a position and moves its cursor, whose row lock the transaction holds.
 * @returns how many entries were handled
 */
export async function handleAfter(
  { listo, tx }: UnitOfWork,
  consumer: Consumer,
  { position, readAfter = createEntryReader(listo) }: { position: number; readAfter?: EntryReader },
): Promise<number> {
  const entries = await readAfter(position);
  const last = entries.at(-1);
  if (!last) return 0;
  const handle = () => hand({ listo, tx }, consumer, entries);
  await (entries.length === BATCH ? listo.traffic.catchUp(handle) : handle());
  await listo.db.tables.consumers.update({ name: consumer.name }, { position: last.position! }, tx);
  return entries.length;
}

/**
 * Hands the next entries to a consumer, unless another process has it in hand (the row lock is the lease, and a
 * process that dies loses it with its connection).
 * @returns how many entries were handled
 */
export async function runConsumer(
  listo: Listo,
  consumer: Consumer,
  readAfter: EntryReader = createEntryReader(listo),
): Promise<number> {
  const { db } = listo;
  return db.transaction(async (tx) => {
    const [cursor] = await db.select<{ position: number }>(
      'SELECT position FROM consumers WHERE name = :name FOR UPDATE SKIP LOCKED',
      { name: consumer.name },
      tx,
    );
    if (!cursor) return 0;
    return handleAfter({ listo, tx }, consumer, { position: cursor.position, readAfter });
  });
}

/**
 * Moves the cursors of those consumers that hear nothing of what is new, together: most entries concern few of them.
 * @returns how many have been moved, and the consumers that have something to do
 */
export async function passOver(
  { db }: Listo,
  consumers: Consumer[],
  readAfter: EntryReader,
): Promise<{ moved: number; left: Consumer[] }> {
  return db.transaction(async (tx) => {
    // One that another process has in hand is its business.
    const cursors = await db.select<{ name: string; position: number }>(
      'SELECT name, position FROM consumers WHERE name IN (:names) FOR UPDATE SKIP LOCKED',
      { names: consumers.map(({ name }) => name) },
      tx,
    );
    const positions = new Map(cursors.map(({ name, position }) => [name, position]));
    const left: Consumer[] = [];
    const movedTo = new Map<number, string[]>();
    for (const consumer of consumers) {
      const position = positions.get(consumer.name);
      const entries = position === undefined ? [] : await readAfter(position);
      const last = entries.at(-1)?.position;
      if (entries.some((entry) => consumer.hears(entry))) left.push(consumer);
      else if (last) movedTo.set(last, [...(movedTo.get(last) ?? []), consumer.name]);
    }
    for (const [position, names] of movedTo)
      await db.run(
        'UPDATE consumers SET position = :position WHERE name IN (:names)',
        { position, names },
        tx,
      );
    return { moved: [...movedTo.values()].flat().length, left };
  });
}
