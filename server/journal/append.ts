import type { Transaction } from 'sequelize';
import type { Listo } from '../listo';
import type { JournalRow } from './model';

export type NewEntry = Omit<JournalRow, 'id' | 'position' | 'at' | 'changes' | 'data' | 'work'> &
  Partial<Pick<JournalRow, 'at' | 'changes' | 'data' | 'work'>>;

/** Appends to the journal inside the transaction of the change that it records. Answers the entry's id. */
export async function append(listo: Listo, tx: Transaction, entry: NewEntry): Promise<number> {
  return listo.db.tables.journal.insert(
    { at: listo.clock.now(), work: 'ticket', changes: {}, data: {}, ...entry },
    tx,
  );
}
