import type { QueryInterface } from 'sequelize';

/** Whether those who ask for the service may begin from a template too. */
const statements = ['ALTER TABLE ticket_templates ADD COLUMN isOffered BOOLEAN NOT NULL DEFAULT FALSE'];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
