import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

const statements = [
  `CREATE TABLE procedures (id ${key} PRIMARY KEY, teamId ${key} NOT NULL, serviceId ${key}, kind VARCHAR(10) CHARACTER SET ascii,
    name JSON NOT NULL, overview JSON NOT NULL, steps JSON NOT NULL, version INT NOT NULL, INDEX byTeam (teamId))`,
  `CREATE TABLE procedure_ticks (ticketNumber BIGINT, stepId ${key}, personId ${key} NOT NULL, at BIGINT NOT NULL, PRIMARY KEY (ticketNumber, stepId))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
