import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

/** Accounts of other programs with their keys, and by which key an entry of the journal was written. */
const statements = [
  `CREATE TABLE programs (id ${key} PRIMARY KEY, name VARCHAR(100) NOT NULL, purpose VARCHAR(500) NOT NULL, ownerId ${key} NOT NULL,
    isOn BOOLEAN NOT NULL, mayChange BOOLEAN NOT NULL, isAdministrator BOOLEAN NOT NULL, mayAskForOthers BOOLEAN NOT NULL, teams JSON NOT NULL,
    networks JSON NOT NULL, perMinute INT NOT NULL, endsAt BIGINT, createdAt BIGINT NOT NULL, version INT NOT NULL)`,
  `CREATE TABLE api_keys (id ${key} PRIMARY KEY, programId ${key} NOT NULL, secretHash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    createdAt BIGINT NOT NULL, endsAt BIGINT, revokedAt BIGINT, lastUsedAt BIGINT, lastUsedFrom VARCHAR(60), INDEX byProgram (programId))`,
  `ALTER TABLE journal ADD COLUMN keyId ${key}`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
