import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';
const word = 'VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin';

const statements = [
  `ALTER TABLE targets ADD COLUMN edition INT NOT NULL DEFAULT 1, ADD COLUMN newFrom BIGINT`,
  `ALTER TABLE clocks ADD COLUMN edition INT NOT NULL DEFAULT 1`,
  `CREATE TABLE target_editions (targetId ${key}, edition INT, definition JSON NOT NULL, at BIGINT NOT NULL, personId ${key}, isForOpen BOOLEAN NOT NULL, PRIMARY KEY (targetId, edition))`,
  `CREATE TABLE replays (id ${key} PRIMARY KEY, personId ${key} NOT NULL, at BIGINT NOT NULL, asked JSON NOT NULL, state ${word} NOT NULL, done INT NOT NULL, total INT NOT NULL, result JSON, INDEX byPerson (personId, at))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
