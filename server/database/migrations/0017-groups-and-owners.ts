import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

const statements = [
  `ALTER TABLE chat_notices ADD COLUMN toTeamId ${key}, ADD COLUMN toGroupId ${key}`,
  `ALTER TABLE services ADD COLUMN ownerId ${key}`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
