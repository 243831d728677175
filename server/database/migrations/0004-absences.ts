import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

/** When people are away, and who decides in their place. */
const statements = [
  `CREATE TABLE absences (id ${key} PRIMARY KEY, personId ${key} NOT NULL, fromAt BIGINT NOT NULL, toAt BIGINT NOT NULL, delegateId ${key},
    INDEX byPerson (personId, toAt), INDEX byEnd (toAt))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
