import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';
const word = 'VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin';

/** The workplace chat that ships as a stand-in: nothing of Listo's own reads these. */
const standIn = [
  `CREATE TABLE room_people (id ${key} PRIMARY KEY, handle VARCHAR(60) NOT NULL, name VARCHAR(255) NOT NULL, email VARCHAR(255) NOT NULL, personId ${key}, UNIQUE INDEX byPerson (personId), INDEX byEmail (email))`,
  `CREATE TABLE rooms (id ${key} PRIMARY KEY, name VARCHAR(80) NOT NULL, topic VARCHAR(200) NOT NULL, kind ${word} NOT NULL, pair VARCHAR(200) CHARACTER SET ascii COLLATE ascii_bin, hasListo BOOLEAN NOT NULL, toldSeq BIGINT NOT NULL DEFAULT 0, createdAt BIGINT NOT NULL, UNIQUE INDEX byPair (pair))`,
  `CREATE TABLE room_members (roomId ${key}, personId ${key}, joinedAt BIGINT NOT NULL, readPlace BIGINT NOT NULL DEFAULT 0, PRIMARY KEY (roomId, personId), INDEX byPerson (personId))`,
  `CREATE TABLE room_messages (place BIGINT AUTO_INCREMENT PRIMARY KEY, id ${key} NOT NULL, roomId ${key} NOT NULL, threadId ${key}, byId ${key}, at BIGINT NOT NULL, text LONGTEXT NOT NULL,
    card JSON, actions JSON NOT NULL, files JSON NOT NULL, forId ${key}, editedAt BIGINT, deletedAt BIGINT, replies INT NOT NULL DEFAULT 0, lastReplyAt BIGINT,
    UNIQUE INDEX byId (id), INDEX byRoom (roomId, threadId, place), FULLTEXT INDEX words (text))`,
  `CREATE TABLE room_files (id ${key} PRIMARY KEY, name VARCHAR(255) NOT NULL, type VARCHAR(120) NOT NULL, size BIGINT NOT NULL, roomId ${key}, byId ${key} NOT NULL, content LONGBLOB NOT NULL)`,
  `CREATE TABLE room_changes (id BIGINT AUTO_INCREMENT PRIMARY KEY, roomId ${key} NOT NULL, kind ${word} NOT NULL, ref ${key}, forId ${key}, body JSON, at BIGINT NOT NULL, INDEX byTime (at))`,
  `CREATE TABLE room_events (id ${key} PRIMARY KEY, roomId ${key} NOT NULL, seq BIGINT NOT NULL, body JSON NOT NULL, state ${word} NOT NULL, tries INT NOT NULL, nextAt BIGINT NOT NULL, INDEX due (state, roomId, seq))`,
];

const ours = [
  `CREATE TABLE leases (name ${key} PRIMARY KEY, holder ${key} NOT NULL, until BIGINT NOT NULL)`,
  `CREATE TABLE chat_identities (chatId ${key} PRIMARY KEY, personId ${key} NOT NULL, at BIGINT NOT NULL, UNIQUE INDEX byPerson (personId))`,
  `CREATE TABLE chat_rooms (roomId ${key} PRIMARY KEY, name VARCHAR(80) NOT NULL, job ${word} NOT NULL, teamId ${key}, serviceId ${key}, isEach BOOLEAN NOT NULL, language CHAR(2) NOT NULL, state ${word} NOT NULL, reason VARCHAR(200), version INT NOT NULL, INDEX byTeam (teamId, job))`,
  `CREATE TABLE chat_heard (roomId ${key} PRIMARY KEY, lastSeq BIGINT NOT NULL)`,
  `CREATE TABLE chat_in (id ${key} PRIMARY KEY, roomId ${key} NOT NULL, seq BIGINT NOT NULL, receivedAt BIGINT NOT NULL, body JSON NOT NULL, state ${word} NOT NULL, tries INT NOT NULL, outcome VARCHAR(30) CHARACTER SET ascii, detail VARCHAR(500), ticketNumber BIGINT,
    INDEX due (state, roomId, seq), INDEX latest (receivedAt))`,
  `CREATE TABLE chat_out (place BIGINT AUTO_INCREMENT PRIMARY KEY, id ${key} NOT NULL, at BIGINT NOT NULL, kind ${word} NOT NULL, ticketNumber BIGINT, roomId ${key}, personId ${key}, body JSON NOT NULL,
    state ${word} NOT NULL, tries INT NOT NULL, nextAt BIGINT NOT NULL, sentAt BIGINT, error VARCHAR(500), UNIQUE INDEX byId (id), INDEX due (state, place), INDEX byTicket (ticketNumber, kind), INDEX latest (at))`,
  `CREATE TABLE chat_marks (messageId ${key} PRIMARY KEY, roomId ${key} NOT NULL, ticketNumber BIGINT NOT NULL, role ${word} NOT NULL, personId ${key}, wordsId ${key}, INDEX byTicket (ticketNumber, role), INDEX byPerson (personId, ticketNumber))`,
  `CREATE TABLE chat_wishes (personId ${key} PRIMARY KEY, wantsChat BOOLEAN NOT NULL, quiet JSON)`,
  `CREATE TABLE chat_notices (id ${key} PRIMARY KEY, name VARCHAR(120) NOT NULL, event ${word} NOT NULL, teamId ${key}, roomId ${key}, personId ${key}, words VARCHAR(1000) NOT NULL, isOn BOOLEAN NOT NULL, triedAt BIGINT, version INT NOT NULL)`,
  `ALTER TABLE teams ADD COLUMN decidesInChat BOOLEAN NOT NULL DEFAULT TRUE`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of [...standIn, ...ours]) await context.sequelize.query(statement);
}
