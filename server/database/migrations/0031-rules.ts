import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

/** Rules, each time that one fired, and in the chain of which rules an entry of the journal was written. */
const statements = [
  `CREATE TABLE rules (id ${key} PRIMARY KEY, name JSON NOT NULL, teamId ${key}, ownerId ${key} NOT NULL, position INT NOT NULL,
    isOn BOOLEAN NOT NULL, definition JSON NOT NULL, version INT NOT NULL, failures INT NOT NULL DEFAULT 0, failedAt BIGINT,
    failedWith VARCHAR(60) CHARACTER SET ascii, changedAt BIGINT NOT NULL, onSince BIGINT)`,
  `CREATE TABLE rule_runs (ruleId ${key}, ticketNumber BIGINT, cause VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin, at BIGINT NOT NULL,
    version INT NOT NULL, did JSON NOT NULL, PRIMARY KEY (ruleId, ticketNumber, cause), INDEX byRule (ruleId, at),
    INDEX byTicket (ticketNumber, at))`,
  'ALTER TABLE journal ADD COLUMN byRules JSON',
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
