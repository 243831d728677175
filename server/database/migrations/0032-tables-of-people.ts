import type { QueryInterface } from 'sequelize';

/** What a table that was sent is of: tickets, or people. */
const statements = [
  "ALTER TABLE imports ADD COLUMN kind VARCHAR(10) CHARACTER SET ascii NOT NULL DEFAULT 'tickets'",
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
