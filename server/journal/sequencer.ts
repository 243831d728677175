import type { Database } from '../database/database';

const BATCH = 500;

/**
 * Gives committed entries their position. Ids are handed out before the commit, so an entry can commit after one
 * with a higher id; positions are handed out here, by one process at a time, to what is committed already. A
 * consumer that reads by position therefore never skips an entry.
 * @returns how many entries were placed
 */
export async function placeEntries(db: Database): Promise<number> {
  return db.transaction(async (tx) => {
    const [sequencer] = await db.select<{ position: number }>(
      "SELECT position FROM consumers WHERE name = 'sequencer' FOR UPDATE SKIP LOCKED",
      {},
      tx,
    );
    if (!sequencer) return 0;
    const entries = await db.select<{ id: number }>(
      'SELECT id FROM journal WHERE position IS NULL ORDER BY id LIMIT :limit',
      { limit: BATCH },
      tx,
    );
    if (entries.length === 0) return 0;
    const ids = entries.map(({ id }) => id);
    await Promise.all([
      db.run(
        'UPDATE journal SET position = :base + FIND_IN_SET(id, :list) WHERE id IN (:ids)',
        { base: sequencer.position, list: ids.join(), ids },
        tx,
      ),
      db.tables.consumers.update({ name: 'sequencer' }, { position: sequencer.position + ids.length }, tx),
    ]);
    return ids.length;
  });
}
