import type { QueryInterface } from 'sequelize';

/** How long the last answers to a step of a plan took is read by the step. */
const statements = ['ALTER TABLE approvals ADD INDEX byStep (stepId, decidedAt)'];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
