import { parsed } from '../database/json';
import type { JournalRow } from '../journal/model';

/** An entry as a plain statement reads it, with its columns of JSON parsed. */
export function parseEntry({ byRules, ...row }: JournalRow): JournalRow {
  const changes = parsed(row.changes);
  const data = parsed<unknown>(row.data);
  return { ...row, changes, data, byRules: byRules ? parsed(byRules) : null } as JournalRow;
}
