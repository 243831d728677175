import type { QueryInterface } from 'sequelize';

/** Each team says which others, such as a first line, may give its tickets on. */
const statements = ["ALTER TABLE teams ADD COLUMN givenOnBy JSON NOT NULL DEFAULT '[]'"];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
