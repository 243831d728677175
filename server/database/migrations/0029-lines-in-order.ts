import type { QueryInterface } from 'sequelize';

/** Of several lines that a ticket was made of, the earliest is known: the way back leads there. */
const statements = ['ALTER TABLE chat_marks ADD COLUMN place INT NOT NULL DEFAULT 0'];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
