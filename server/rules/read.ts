import { parsed } from '../database/json';
import type { Transaction } from 'sequelize';
import type { Fields } from '../../core/conditions';
import { kindsOf, RULE_FIELDS, toFieldChanges, type Occurrence } from '../../core/rules';
import { getListField } from '../../core/worklist';
import type { Database } from '../database/database';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import { valueSql } from '../worklists/columns';
import type { RuleRow } from './model';

/** The rules of each database as they were last read, and by what it is seen whether they are still so. */
const kept = new WeakMap<Database, { mark: string; rows: RuleRow[] }>();

/** All rules. They are read anew only when one has been changed: most entries find them as they were. */
export async function readRules({ db }: Listo, tx?: Transaction): Promise<RuleRow[]> {
  const [state] = await db.select<{ count: number; versions: number; changedAt: number; places: number }>(
    'SELECT COUNT(*) AS count, SUM(version) AS versions, MAX(changedAt) AS changedAt, SUM(position * version) AS places FROM rules',
    {},
    tx,
  );
  const mark = JSON.stringify(state);
  const known = kept.get(db);
  if (known?.mark === mark) return known.rows;
  const rows = await db.tables.rules.find({}, { order: ['position', 'id'], ...(tx && { transaction: tx }) });
  kept.set(db, { mark, rows });
  return rows;
}

const COLUMNS = RULE_FIELDS.map((name) => `${valueSql('ticket', name)} AS \`${name}\``).join(', ');
const FLAGS = RULE_FIELDS.filter((name) => getListField(name)!.kind === 'flag');

/** The facts of tickets that rules may ask for, by number. */
export async function readFields(
  { db }: Listo,
  numbers: number[],
  tx?: Transaction,
): Promise<Map<number, Fields>> {
  const rows = await db.select<Fields & { number: number }>(
    `SELECT ${COLUMNS} FROM tickets t WHERE t.number IN (:numbers)`,
    { numbers: numbers.length > 0 ? numbers : [0] },
    tx,
  );
  for (const row of rows) for (const name of FLAGS) (row as Fields)[name] = Boolean(row[name]);
  return new Map(rows.map((row) => [row.number, row]));
}

/** An entry with whether the words that came with it are the requester's, and whether its ticket was sent for another. */
export type PastRow = Pick<
  JournalRow,
  'id' | 'at' | 'type' | 'ticketNumber' | 'work' | 'changes' | 'byRules'
> & { isByTeam: number | null; isForOther: number | null; awaits: string | null };

/**
 * What is read of entries for rules: a message says by whom it is, a ticket whether it was sent for another. Ids are
 * ASCII: what JSON gives is made so, else each message would be read for each entry.
 */
export const PAST_SQL = `SELECT j.id, j.at, j.type, j.ticketNumber, j.work, j.changes, j.byRules, m.isByTeam,
    IF(j.type = 'sent', JSON_VALUE(j.data, '$.awaitsApproval'), NULL) AS awaits,
    (t.raisedById IS NOT NULL AND t.raisedById <> t.requesterId) AS isForOther
  FROM journal j JOIN tickets t ON t.number = j.ticketNumber
  LEFT JOIN messages m
    ON m.id = CONVERT(IF(j.type = 'answered', JSON_VALUE(j.data, '$.messageId'), NULL) USING ascii)`;

/** An entry as rules hear of it. What changed of a step is no fact of its ticket. */
export function toOccurrence(row: PastRow): Occurrence {
  const changes = row.work === 'ticket' ? parsed(row.changes) : {};
  return {
    ...{ entryId: String(row.id), at: row.at, byRules: parsed(row.byRules ?? []) },
    changes: toFieldChanges(changes),
    kinds: kindsOf({
      type: row.type as Parameters<typeof kindsOf>[0]['type'],
      changes,
      isByRequester: row.isByTeam === 0,
      isForOther: Boolean(row.isForOther),
      // MariaDB gives what is true in JSON as 1.
      awaitsApproval: row.awaits === '1' || row.awaits === 'true',
    }),
  };
}
