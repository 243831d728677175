import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

/** After so long open, work counts as due; as core/worklist says. */
const AGED_AFTER_MS = 1_209_600_000;
const HOUR_MS = 3_600_000;

/** Worklists of one's own, and the order of what moves next, kept where an index finds it. */
const statements = [
  `ALTER TABLE teams ADD COLUMN orderWeights JSON, ADD COLUMN routing JSON`,
  `ALTER TABLE team_members ADD COLUMN capacity INT, ADD COLUMN lastGivenAt BIGINT`,
  `ALTER TABLE people ADD COLUMN presence VARCHAR(10) CHARACTER SET ascii NOT NULL DEFAULT 'available'`,
  `CREATE TABLE person_skills (personId ${key}, skill VARCHAR(60), level TINYINT NOT NULL, PRIMARY KEY (personId, skill))`,
  `ALTER TABLE tickets ADD COLUMN waitsSince BIGINT, ADD COLUMN headStart BIGINT NOT NULL DEFAULT 0, ADD COLUMN underNumber BIGINT, ADD COLUMN estimateMinutes INT,
    ADD COLUMN underAs VARCHAR(10) CHARACTER SET ascii, ADD INDEX byUnder (underNumber),
    ADD COLUMN moveBy BIGINT AS (LEAST(tightestDueAt, createdAt + ${AGED_AFTER_MS}) - headStart) PERSISTENT`,
  `UPDATE tickets t JOIN people p ON p.id = t.requesterId SET t.headStart =
    (CASE t.priority WHEN 'P1' THEN 24 WHEN 'P2' THEN 8 WHEN 'P3' THEN 2 ELSE 0 END + IF(p.goesFirst, 4, 0)) * ${HOUR_MS}`,
  `ALTER TABLE tickets DROP INDEX byTeam, DROP INDEX byAssignee, DROP INDEX byState, DROP INDEX byDue,
    ADD INDEX byTeam (teamId, state, moveBy, number), ADD INDEX byAssignee (assigneeId, state, moveBy, number),
    ADD INDEX byState (state, moveBy, number), ADD INDEX byClosing (teamId, state, closedAt, number),
    ADD INDEX byRaiser (raisedById, state, number),
    ADD INDEX byOpening (createdAt, teamId, serviceId)`,
  `CREATE TABLE worklists (id ${key} PRIMARY KEY, ownerId ${key} NOT NULL, teamId ${key}, name VARCHAR(120) NOT NULL, definition JSON NOT NULL,
    version INT NOT NULL, changedAt BIGINT NOT NULL, INDEX byOwner (ownerId), INDEX byTeam (teamId))`,
  `CREATE TABLE bulk_jobs (id ${key} PRIMARY KEY, personId ${key} NOT NULL, at BIGINT NOT NULL, deed JSON NOT NULL, total INT NOT NULL,
    state VARCHAR(10) CHARACTER SET ascii NOT NULL, undoes ${key}, undoneBy ${key}, leaseUntil BIGINT NOT NULL, INDEX going (state, leaseUntil), INDEX byPerson (personId, at))`,
  `CREATE TABLE bulk_items (jobId ${key}, number BIGINT, version INT NOT NULL, state VARCHAR(10) CHARACTER SET ascii NOT NULL, code VARCHAR(40),
    entryId BIGINT, PRIMARY KEY (jobId, number), INDEX byState (jobId, state))`,
  `CREATE TABLE ready_texts (id ${key} PRIMARY KEY, teamId ${key}, ownerId ${key} NOT NULL, name VARCHAR(120) NOT NULL, text JSON NOT NULL, version INT NOT NULL,
    INDEX byTeam (teamId), INDEX byOwner (ownerId))`,
  `CREATE TABLE time_spent (id ${key} PRIMARY KEY, personId ${key} NOT NULL, ticketNumber BIGINT NOT NULL, startedAt BIGINT NOT NULL, minutes INT,
    category VARCHAR(20) CHARACTER SET ascii NOT NULL, note VARCHAR(500) NOT NULL, isByHand BOOLEAN NOT NULL, runningFor ${key},
    UNIQUE INDEX oneAtATime (runningFor), INDEX byTicket (ticketNumber), INDEX byStart (startedAt))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
