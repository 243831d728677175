import type { QueryInterface } from 'sequelize';

/** What is done is cleared away by the hour from now on. */
const statements = [`INSERT INTO timers (ticketNumber, kind, ref, at) VALUES (0, 'clearAway', '', 0)`];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
