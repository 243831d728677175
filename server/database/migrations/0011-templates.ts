import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

const statements = [
  `CREATE TABLE ticket_templates (id ${key} PRIMARY KEY, teamId ${key} NOT NULL, name VARCHAR(120) NOT NULL, serviceId ${key} NOT NULL,
    title VARCHAR(200) NOT NULL, answers JSON NOT NULL, UNIQUE INDEX byTeam (teamId, name))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
