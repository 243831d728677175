import type { QueryInterface } from 'sequelize';

/** What is locked on a cluster is written here, so that every node heeds it. */
const statements = ['CREATE TABLE claims (slot INT UNSIGNED PRIMARY KEY, times BIGINT UNSIGNED NOT NULL)'];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
