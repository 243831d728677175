import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';
const word = 'VARCHAR(10) CHARACTER SET ascii';

/**
 * Notices with their updates, the tickets tied to them and the people who follow them; what a problem and a change have
 * beside their ticket; stretches without changes. Someone may be told of a notice that they have no ticket under.
 */
const statements = [
  `CREATE TABLE notices (id ${key} PRIMARY KEY, kind ${word} NOT NULL, title JSON NOT NULL, words JSON NOT NULL, forAgents LONGTEXT NOT NULL,
    audience JSON NOT NULL, serviceIds JSON NOT NULL, thingIds JSON NOT NULL, teamId ${key} NOT NULL, fromAt BIGINT NOT NULL, untilAt BIGINT,
    endedAt BIGINT, calledBackAt BIGINT, isPublic BOOLEAN NOT NULL, isMajor BOOLEAN NOT NULL, leadId ${key}, ofTicket BIGINT, ofWork BIGINT,
    createdById ${key} NOT NULL, createdAt BIGINT NOT NULL, review LONGTEXT NOT NULL, version INT NOT NULL,
    INDEX byEnd (endedAt, fromAt), INDEX byWork (ofWork))`,
  `CREATE TABLE notice_updates (id ${key} PRIMARY KEY, noticeId ${key} NOT NULL, at BIGINT NOT NULL, byId ${key} NOT NULL, kind ${word} NOT NULL,
    words JSON NOT NULL, isForFollowers BOOLEAN NOT NULL, journalId BIGINT NOT NULL, INDEX byNotice (noticeId, at))`,
  `CREATE TABLE notice_tickets (noticeId ${key}, ticketNumber BIGINT, at BIGINT NOT NULL, byId ${key}, PRIMARY KEY (noticeId, ticketNumber),
    INDEX byTicket (ticketNumber))`,
  `CREATE TABLE notice_followers (noticeId ${key}, personId ${key}, at BIGINT NOT NULL, PRIMARY KEY (noticeId, personId), INDEX byPerson (personId))`,
  `CREATE TABLE notice_told (updateId ${key}, personId ${key}, PRIMARY KEY (updateId, personId))`,
  `ALTER TABLE notifications MODIFY ticketNumber BIGINT, ADD COLUMN noticeId ${key}`,
  `CREATE TABLE works (ticketNumber BIGINT PRIMARY KEY, sort ${word} NOT NULL, fromAt BIGINT, toAt BIGINT, why LONGTEXT NOT NULL, test LONGTEXT NOT NULL,
    takeBack LONGTEXT NOT NULL, impact ${word}, likelihood ${word}, risk ${word}, riskSaid ${word}, riskReason VARCHAR(500) NOT NULL,
    submittedAt BIGINT, startedAt BIGINT, endedAt BIGINT, outcome ${word}, review LONGTEXT NOT NULL, reviewedAt BIGINT, problemNumber BIGINT,
    version INT NOT NULL, INDEX byWindow (toAt, fromAt), INDEX byStart (startedAt))`,
  `CREATE TABLE work_things (ticketNumber BIGINT, thingId ${key}, PRIMARY KEY (ticketNumber, thingId), INDEX byThing (thingId))`,
  `CREATE TABLE work_templates (serviceId ${key} PRIMARY KEY, isStandard BOOLEAN NOT NULL, minutes INT NOT NULL, why JSON NOT NULL, test JSON NOT NULL,
    takeBack JSON NOT NULL, thingIds JSON NOT NULL, version INT NOT NULL)`,
  `CREATE TABLE freezes (id ${key} PRIMARY KEY, name JSON NOT NULL, fromAt BIGINT NOT NULL, toAt BIGINT NOT NULL, thingIds JSON NOT NULL,
    isEverything BOOLEAN NOT NULL, version INT NOT NULL)`,
  `CREATE TABLE problems (ticketNumber BIGINT PRIMARY KEY, stage ${word} NOT NULL, causeKindId ${key}, cause LONGTEXT NOT NULL,
    workaround LONGTEXT NOT NULL, articleId ${key}, solvedAt BIGINT, backAt BIGINT, version INT NOT NULL, INDEX byStage (stage))`,
  `CREATE TABLE problem_incidents (problemNumber BIGINT, incidentNumber BIGINT, tie ${word} NOT NULL, reason VARCHAR(500) NOT NULL,
    at BIGINT NOT NULL, PRIMARY KEY (problemNumber, incidentNumber), INDEX byIncident (incidentNumber))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
