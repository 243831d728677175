import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

/** Plans of services and of tickets: each ticket keeps the steps that it was raised with. */
const statements = [
  `ALTER TABLE services ADD COLUMN plan JSON`,
  `ALTER TABLE sites ADD COLUMN headId ${key}`,
  `ALTER TABLE approvals ADD COLUMN stepId ${key}`,
  `CREATE TABLE plans (ticketNumber BIGINT PRIMARY KEY, legs JSON NOT NULL, startedAt BIGINT NOT NULL, promisedAt BIGINT NOT NULL,
    forecastAt BIGINT NOT NULL, slippedTo BIGINT, finishedAt BIGINT, INDEX running (finishedAt, ticketNumber))`,
  `CREATE TABLE plan_steps (ticketNumber BIGINT, stepId ${key}, position INT NOT NULL, definition JSON NOT NULL,
    state VARCHAR(10) CHARACTER SET ascii NOT NULL, teamId ${key}, groupId ${key}, assigneeId ${key}, startedAt BIGINT, finishedAt BIGINT,
    neededBy BIGINT NOT NULL, reason LONGTEXT, ticked JSON NOT NULL,
    sending JSON, answerToken CHAR(32) CHARACTER SET ascii COLLATE ascii_bin, version INT NOT NULL DEFAULT 1, PRIMARY KEY (ticketNumber, stepId),
    UNIQUE INDEX byAnswerToken (answerToken), INDEX byTeam (teamId, state, neededBy, ticketNumber), INDEX byAssignee (assigneeId, state, neededBy, ticketNumber))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
