import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';
const word = 'VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin';

/** Whether an answer was written for a room that others read, and how rooms are called in which tickets have a line. */
const statements = [
  'ALTER TABLE messages ADD COLUMN isPublic BOOLEAN NOT NULL DEFAULT FALSE',
  `CREATE TABLE chat_places (roomId ${key} PRIMARY KEY, name VARCHAR(80) NOT NULL, kind ${word} NOT NULL)`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
