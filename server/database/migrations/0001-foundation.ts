import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

/** People, sessions, the catalogue, tickets with what hangs on them, the journal and what follows from it. */
const statements = [
  `CREATE TABLE calendars (id ${key} PRIMARY KEY, spec JSON NOT NULL, version INT NOT NULL DEFAULT 1)`,
  `CREATE TABLE sites (id ${key} PRIMARY KEY, name VARCHAR(255) NOT NULL, timeZone VARCHAR(60) NOT NULL, calendarId ${key} NOT NULL)`,
  `CREATE TABLE people (
    id ${key} PRIMARY KEY, name VARCHAR(255) NOT NULL, email VARCHAR(255) NOT NULL UNIQUE, phone VARCHAR(255) NOT NULL,
    title VARCHAR(255) NOT NULL, department VARCHAR(255) NOT NULL, siteId ${key} NOT NULL, place VARCHAR(255), vessel VARCHAR(255),
    device VARCHAR(255), costCentre VARCHAR(255) NOT NULL, managerId ${key}, language CHAR(2) NOT NULL,
    isAdministrator BOOLEAN NOT NULL, mayAskForOthers BOOLEAN NOT NULL, goesFirst BOOLEAN NOT NULL,
    passwordHash VARCHAR(255), leftAt BIGINT, version INT NOT NULL DEFAULT 1,
    INDEX byName (name), INDEX byManager (managerId))`,
  `CREATE TABLE teams (id ${key} PRIMARY KEY, name JSON NOT NULL, isConfidential BOOLEAN NOT NULL, calendarId ${key} NOT NULL, outOfHours JSON NOT NULL, version INT NOT NULL DEFAULT 1)`,
  `CREATE TABLE team_groups (id ${key} PRIMARY KEY, teamId ${key} NOT NULL, name VARCHAR(255) NOT NULL)`,
  `CREATE TABLE team_members (teamId ${key}, personId ${key}, role VARCHAR(20) NOT NULL, groupId ${key}, PRIMARY KEY (teamId, personId), INDEX byPerson (personId))`,
  `CREATE TABLE settings (name VARCHAR(60) PRIMARY KEY, value JSON NOT NULL)`,
  `CREATE TABLE sessions (id CHAR(64) CHARACTER SET ascii PRIMARY KEY, personId ${key} NOT NULL, createdAt BIGINT NOT NULL,
    seenAt BIGINT NOT NULL, expiresAt BIGINT NOT NULL, userAgent VARCHAR(300) NOT NULL, INDEX byPerson (personId))`,
  `CREATE TABLE sign_in_failures (\`key\` CHAR(64) CHARACTER SET ascii PRIMARY KEY, count INT NOT NULL, lastAt BIGINT NOT NULL)`,
  `CREATE TABLE kept_answers (personId ${key}, \`key\` VARCHAR(100) CHARACTER SET ascii COLLATE ascii_bin, at BIGINT NOT NULL,
    answer JSON NOT NULL, PRIMARY KEY (personId, \`key\`), INDEX byAt (at))`,
  `CREATE TABLE services (
    id ${key} PRIMARY KEY, kind VARCHAR(10) NOT NULL, place VARCHAR(20) NOT NULL, title JSON NOT NULL, description JSON NOT NULL,
    otherWords JSON NOT NULL, teamId ${key} NOT NULL, groupId ${key}, form JSON NOT NULL, approval JSON, fallbackApproverId ${key},
    cost INT, impact VARCHAR(20) NOT NULL, urgency VARCHAR(20) NOT NULL, isOn BOOLEAN NOT NULL, version INT NOT NULL DEFAULT 1)`,
  `CREATE TABLE targets (id ${key} PRIMARY KEY, definition JSON NOT NULL, measures VARCHAR(20) NOT NULL, notices JSON NOT NULL, teamId ${key},
    isOn BOOLEAN NOT NULL, position INT NOT NULL, version INT NOT NULL DEFAULT 1)`,
  `CREATE TABLE tickets (
    number BIGINT PRIMARY KEY AUTO_INCREMENT, version INT NOT NULL DEFAULT 1, kind VARCHAR(10) NOT NULL, title VARCHAR(255) NOT NULL,
    serviceId ${key} NOT NULL, teamId ${key} NOT NULL, groupId ${key}, isConfidential BOOLEAN NOT NULL, requesterId ${key} NOT NULL,
    raisedById ${key}, assigneeId ${key}, state VARCHAR(10) CHARACTER SET ascii NOT NULL, heldFor VARCHAR(10) CHARACTER SET ascii,
    heldUntil BIGINT, heldReason LONGTEXT, solution LONGTEXT, isDeclined BOOLEAN NOT NULL DEFAULT FALSE, priority CHAR(2) NOT NULL,
    impact VARCHAR(20) NOT NULL, urgency VARCHAR(20) NOT NULL, priorityReason VARCHAR(500), via VARCHAR(20) NOT NULL,
    place VARCHAR(255) NOT NULL, answers JSON NOT NULL, answered BOOLEAN NOT NULL DEFAULT FALSE, createdAt BIGINT NOT NULL,
    dueAt BIGINT, dueDate CHAR(10) CHARACTER SET ascii, remindAt BIGINT, changedAt BIGINT NOT NULL, resolvedAt BIGINT, closedAt BIGINT, rating TINYINT, ratingWord LONGTEXT,
    tightestDueAt BIGINT NOT NULL DEFAULT 9000000000000000,
    INDEX byTeam (teamId, state, tightestDueAt, number), INDEX byAssignee (assigneeId, state, tightestDueAt, number),
    INDEX byState (state, tightestDueAt, number), INDEX byRequester (requesterId, state, number), INDEX byDue (tightestDueAt, number),
    INDEX byService (serviceId, resolvedAt), FULLTEXT INDEX byWords (title)
  ) AUTO_INCREMENT = 10001`,
  `CREATE TABLE messages (id ${key} PRIMARY KEY, ticketNumber BIGINT NOT NULL, at BIGINT NOT NULL, authorId ${key} NOT NULL,
    via VARCHAR(20) NOT NULL, readBy VARCHAR(10) NOT NULL, isByTeam BOOLEAN NOT NULL, text LONGTEXT NOT NULL, links JSON NOT NULL,
    INDEX byTicket (ticketNumber))`,
  `CREATE TABLE followers (ticketNumber BIGINT, personId ${key}, role VARCHAR(20), PRIMARY KEY (ticketNumber, personId, role), INDEX byPerson (personId))`,
  `CREATE TABLE files (id ${key} PRIMARY KEY, personId ${key} NOT NULL, ticketNumber BIGINT, messageId ${key}, name VARCHAR(255) NOT NULL,
    type VARCHAR(100) NOT NULL, size BIGINT NOT NULL, at BIGINT NOT NULL, INDEX byTicket (ticketNumber))`,
  `CREATE TABLE approvals (id ${key} PRIMARY KEY, ticketNumber BIGINT NOT NULL, name JSON NOT NULL, needs JSON NOT NULL,
    declineBy VARCHAR(20) NOT NULL, outcome VARCHAR(20) NOT NULL, startedAt BIGINT NOT NULL, decidedAt BIGINT, INDEX byTicket (ticketNumber))`,
  `CREATE TABLE asks (id ${key} PRIMARY KEY, approvalId ${key} NOT NULL, ticketNumber BIGINT NOT NULL, voterId ${key} NOT NULL,
    askedId ${key} NOT NULL, reason VARCHAR(20) NOT NULL, askedAt BIGINT NOT NULL, decision VARCHAR(10), decidedById ${key},
    decidedAt BIGINT, words LONGTEXT, INDEX byAsked (askedId, decision), INDEX byTicket (ticketNumber))`,
  `CREATE TABLE journal (id BIGINT PRIMARY KEY AUTO_INCREMENT, position BIGINT UNIQUE, at BIGINT NOT NULL, actorId ${key},
    via VARCHAR(20) NOT NULL, type VARCHAR(40) NOT NULL, ticketNumber BIGINT, work VARCHAR(60) CHARACTER SET ascii NOT NULL, audience VARCHAR(10) NOT NULL, changes JSON NOT NULL,
    data JSON NOT NULL, INDEX byTicket (ticketNumber, id))`,
  `CREATE TRIGGER journal_is_never_rewritten BEFORE UPDATE ON journal FOR EACH ROW
    IF OLD.position IS NOT NULL OR NEW.id <> OLD.id OR NEW.at <> OLD.at OR NEW.type <> OLD.type OR NEW.work <> OLD.work OR NEW.changes <> OLD.changes OR NEW.data <> OLD.data
    THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'The journal is never rewritten'; END IF`,
  `CREATE TRIGGER journal_is_never_deleted BEFORE DELETE ON journal FOR EACH ROW
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'The journal is never deleted'`,
  `CREATE TABLE consumers (name VARCHAR(40) PRIMARY KEY, position BIGINT NOT NULL)`,
  `CREATE TABLE clocks (ticketNumber BIGINT, work VARCHAR(60) CHARACTER SET ascii, targetId ${key}, state VARCHAR(12) CHARACTER SET ascii NOT NULL, startedAt BIGINT,
    countedFrom BIGINT, elapsed BIGINT NOT NULL, pausedFor BIGINT NOT NULL, \`limit\` BIGINT, dueAt BIGINT, breachedAt BIGINT,
    stoppedAt BIGINT, calendarId ${key}, held JSON NOT NULL, fired JSON NOT NULL, PRIMARY KEY (ticketNumber, work, targetId), INDEX going (state, ticketNumber))`,
  `CREATE TABLE timers (ticketNumber BIGINT, kind VARCHAR(20) CHARACTER SET ascii, ref VARCHAR(160) CHARACTER SET ascii, at BIGINT NOT NULL,
    PRIMARY KEY (ticketNumber, kind, ref), INDEX byAt (at))`,
  `CREATE TABLE notifications (id BIGINT PRIMARY KEY AUTO_INCREMENT, personId ${key} NOT NULL, ticketNumber BIGINT NOT NULL,
    journalId BIGINT NOT NULL, event VARCHAR(20) NOT NULL, relation VARCHAR(20) NOT NULL, at BIGINT NOT NULL, words JSON, readAt BIGINT,
    UNIQUE INDEX once (personId, journalId, event), INDEX byPerson (personId, readAt, id))`,
  `CREATE TABLE recounts (id BIGINT PRIMARY KEY AUTO_INCREMENT, why VARCHAR(120) NOT NULL, targetIds JSON, afterNumber BIGINT NOT NULL, counted INT NOT NULL,
    moved INT NOT NULL, startedAt BIGINT NOT NULL, finishedAt BIGINT)`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
