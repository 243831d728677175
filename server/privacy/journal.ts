import { eraseEntry } from '../../core/privacy';
import { parseEntry } from '../audit/parse';
import { hashLine } from '../audit/seals';
import type { JournalRow } from '../journal/model';
import type { UnitOfWork } from '../unitOfWork';

const AT_ONCE = 500;

/**
 * Replaces what a person wrote in the journal by tombstones: in what they did, and in what became of their own tickets.
 * This is the only door by which an entry is ever written again; the hash of its line before is kept.
 * @returns how many entries held words of theirs
 */
export async function eraseInJournal({ listo, tx }: UnitOfWork, personId: string): Promise<number> {
  const { db } = listo;
  let [after, count] = [0, 0];
  await db.run('SET @listo_erasing = 1', {}, tx);
  try {
    for (;;) {
      const rows = await db.select<JournalRow>(
        `SELECT * FROM journal WHERE id > :after AND (actorId = :personId OR aboutId = :personId
           OR ticketNumber IN (SELECT number FROM tickets WHERE requesterId = :personId)) ORDER BY id LIMIT :limit`,
        { after, personId, limit: AT_ONCE },
        tx,
      );
      for (const row of rows) {
        const entry = parseEntry(row);
        const erased = eraseEntry(entry as unknown as Parameters<typeof eraseEntry>[0]);
        if (!erased) continue;
        count++;
        const lineHash = hashLine(entry);
        // Erased twice, it rests on what it was first.
        await db.run(
          'INSERT IGNORE INTO erased_entries (entryId, lineHash, personId) VALUES (:entryId, :lineHash, :personId)',
          { entryId: entry.id, lineHash, personId },
          tx,
        );
        await db.run(
          'UPDATE journal SET changes = :changes, data = :data WHERE id = :id',
          { id: entry.id, changes: JSON.stringify(erased.changes), data: JSON.stringify(erased.data) },
          tx,
        );
      }
      if (rows.length < AT_ONCE) return count;
      after = rows.at(-1)!.id;
    }
  } finally {
    await db.run('SET @listo_erasing = NULL', {}, tx);
  }
}
