import type { QueryInterface } from 'sequelize';

/** A team's work can be closed to other teams, and open to be taken by all of them. */
const statements = ["ALTER TABLE teams ADD COLUMN readBy JSON, MODIFY COLUMN givenOnBy JSON DEFAULT '[]'"];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
