import type { Sequelize } from 'sequelize';
import { id, integer, Table, text } from '../database/table';

/** An entry of the journal whose words were erased: the hash that its line had before, on which its seal rests. */
export type ErasedEntryRow = { entryId: number; lineHash: string; personId: string };

export function createPrivacyTables(sequelize: Sequelize) {
  return {
    erasedEntries: new Table<ErasedEntryRow>(
      sequelize,
      'erased_entries',
      { entryId: integer, lineHash: text(64), personId: id },
      ['entryId'],
    ),
  };
}
