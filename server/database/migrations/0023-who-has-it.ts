import type { QueryInterface } from 'sequelize';

/** A team's and a person's work is counted off the index alone: who has it, and whose it is, stand at its end. */
const statements = [
  `ALTER TABLE tickets DROP INDEX byTeam, ADD INDEX byTeam (teamId, state, moveBy, number, assigneeId),
     DROP INDEX byAssignee, ADD INDEX byAssignee (assigneeId, state, moveBy, number, teamId)`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
