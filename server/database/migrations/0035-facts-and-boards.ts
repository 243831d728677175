import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';
const word = 'VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin';

/**
 * What figures count of a ticket, one narrow row; boards of charts. The facts of the tickets that are there are gathered
 * by a timer, some in each go.
 */
const statements = [
  `CREATE TABLE ticket_facts (number BIGINT PRIMARY KEY, opened BIGINT NOT NULL, answered BIGINT, done BIGINT, ended BIGINT, closed BIGINT,
    kind ${word} NOT NULL, serviceId ${key} NOT NULL, teamId ${key} NOT NULL, groupId ${key}, assigneeId ${key}, requesterId ${key} NOT NULL,
    isConfidential BOOLEAN NOT NULL, state ${word} NOT NULL, heldFor ${word}, priority ${word} NOT NULL, impact ${word} NOT NULL,
    urgency ${word} NOT NULL, via ${word} NOT NULL, isDeclined BOOLEAN NOT NULL, rating INT, teams INT NOT NULL, reopened INT NOT NULL,
    messages INT NOT NULL, toAnswer BIGINT, toDone BIGINT, workToAnswer BIGINT, workToDone BIGINT, own BIGINT NOT NULL, waited BIGINT NOT NULL,
    heldForRequester BIGINT NOT NULL, heldForSupplier BIGINT NOT NULL, heldForApproval BIGINT NOT NULL, heldForOther BIGINT NOT NULL,
    upTo BIGINT NOT NULL, INDEX byOpened (opened), INDEX byDone (done), INDEX byEnded (ended, opened), INDEX byAnswered (answered),
    INDEX byClosed (closed), INDEX byTeam (teamId, opened), INDEX byState (state, opened))`,
  `CREATE TABLE boards (id ${key} PRIMARY KEY, name VARCHAR(200) NOT NULL, ownerId ${key} NOT NULL, teamIds JSON NOT NULL,
    isForAll BOOLEAN NOT NULL, stretch JSON NOT NULL, charts JSON NOT NULL, version INT NOT NULL, createdAt BIGINT NOT NULL,
    changedAt BIGINT NOT NULL, INDEX byOwner (ownerId))`,
  `INSERT INTO timers (ticketNumber, kind, ref, at) VALUES (0, 'gatherFacts', '0', 0)`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
