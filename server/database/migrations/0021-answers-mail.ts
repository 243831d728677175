import type { QueryInterface } from 'sequelize';

/** Whether the assistant answers what is written to a team's address. */
const statements = ['ALTER TABLE teams ADD COLUMN answersMail BOOLEAN NOT NULL DEFAULT FALSE'];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
