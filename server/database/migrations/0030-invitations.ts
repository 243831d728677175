import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

/** Links that let somebody in once. The table keeps the hash of a link's token, so that it alone lets nobody in. */
const statements = [
  `CREATE TABLE invitations (
    id CHAR(64) CHARACTER SET ascii PRIMARY KEY, personId ${key} NOT NULL, byId ${key} NOT NULL, at BIGINT NOT NULL,
    endsAt BIGINT NOT NULL, usedAt BIGINT, replacedAt BIGINT, INDEX byPerson (personId, at))`,
  'ALTER TABLE people ADD INDEX byNameAndId (name, id)',
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
