import type { QueryInterface } from 'sequelize';

/** The place of a request among those that a team ranks. */
const statements = ['ALTER TABLE plan_steps ADD COLUMN place INT'];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
