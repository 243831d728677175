import type { QueryInterface } from 'sequelize';

/** Each line says how long an agent has to take what they are offered. */
const statements = ['ALTER TABLE chat_lines ADD COLUMN offerSeconds INT NOT NULL DEFAULT 30'];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
