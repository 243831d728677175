import type { QueryInterface } from 'sequelize';

/** A service may be open for a time and for so many, and thank in words of its own. */
const statements = ['ALTER TABLE services ADD COLUMN opening JSON, ADD COLUMN thanks JSON'];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
