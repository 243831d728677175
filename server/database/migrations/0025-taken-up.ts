import type { QueryInterface } from 'sequelize';

/** Whether a person of its team has begun with a ticket: what is merely given to someone waits until they do. */
const statements = [
  'ALTER TABLE tickets ADD COLUMN takenUp BOOLEAN NOT NULL DEFAULT FALSE',
  `UPDATE tickets t SET takenUp = TRUE WHERE t.state IN ('done', 'closed') OR EXISTS (SELECT 1 FROM journal j
     WHERE j.ticketNumber = t.number AND j.actorId IS NOT NULL AND j.type IN ('taken', 'held', 'resumed')) OR EXISTS (
     SELECT 1 FROM messages m WHERE m.ticketNumber = t.number AND m.isByTeam)`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
