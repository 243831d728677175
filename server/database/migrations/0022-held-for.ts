import type { QueryInterface } from 'sequelize';

/** What is held, by whom it waits for: among a team's held work, most waits for approvals, which is a list of its own. */
const statements = ['ALTER TABLE tickets ADD INDEX byHold (teamId, state, heldFor, moveBy, number)'];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
