import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

/**
 * Erasing people. The journal lets values be replaced by tombstones through one door alone, which says so on its
 * connection; the hash of each line before it was erased is kept, so that seals still hold.
 */
const statements = [
  'ALTER TABLE people ADD COLUMN erasedAt BIGINT',
  `CREATE TABLE erased_entries (entryId BIGINT PRIMARY KEY, lineHash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    personId ${key} NOT NULL, INDEX byPerson (personId))`,
  'DROP TRIGGER journal_is_never_rewritten',
  `CREATE TRIGGER journal_is_never_rewritten BEFORE UPDATE ON journal FOR EACH ROW
    IF (OLD.position IS NOT NULL AND @listo_erasing IS NULL) OR NEW.id <> OLD.id OR NEW.at <> OLD.at OR NEW.type <> OLD.type OR NEW.work <> OLD.work
      OR (@listo_erasing IS NULL AND (NEW.changes <> OLD.changes OR NEW.data <> OLD.data))
    THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'The journal is never rewritten'; END IF`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
