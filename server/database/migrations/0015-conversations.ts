import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';
const word = 'VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin';

const statements = [
  `CREATE TABLE chat_lines (id ${key} PRIMARY KEY, name JSON NOT NULL, about JSON NOT NULL, teamId ${key} NOT NULL, skill VARCHAR(60), serviceId ${key}, closedWords JSON NOT NULL,
    facts JSON NOT NULL, askAfter INT NOT NULL, endAfter INT NOT NULL, position INT NOT NULL, isOn BOOLEAN NOT NULL, version INT NOT NULL)`,
  `CREATE TABLE chat_agents (personId ${key} PRIMARY KEY, presence ${word} NOT NULL, capacity INT NOT NULL, alert ${word} NOT NULL, seenAt BIGINT NOT NULL, lastGivenAt BIGINT)`,
  `CREATE TABLE conversations (id ${key} PRIMARY KEY, personId ${key} NOT NULL, lineId ${key} NOT NULL, state ${word} NOT NULL, agentId ${key}, offeredTo ${key}, offeredAt BIGINT, passedOver JSON NOT NULL,
    handedBy ${key}, handedWhy VARCHAR(500), invitedIds JSON NOT NULL, assetTag VARCHAR(60), startedAt BIGINT NOT NULL, lineAt BIGINT NOT NULL, firstTakenAt BIGINT, endedAt BIGINT, endedBy ${word}, personSaidAt BIGINT NOT NULL, agentSaidAt BIGINT,
    askedThereAt BIGINT, ticketNumber BIGINT, isMade BOOLEAN NOT NULL DEFAULT FALSE, rating INT, ratingWord VARCHAR(1000), version INT NOT NULL,
    INDEX byPerson (personId, startedAt), INDEX byState (state, lineAt), INDEX byAgent (agentId, state), INDEX byOffer (offeredTo, state), INDEX byTime (startedAt))`,
  `CREATE TABLE conversation_entries (place BIGINT AUTO_INCREMENT PRIMARY KEY, id ${key} NOT NULL, conversationId ${key} NOT NULL, at BIGINT NOT NULL, authorId ${key}, type ${word} NOT NULL, readBy ${word} NOT NULL, text LONGTEXT NOT NULL, data JSON NOT NULL,
    UNIQUE INDEX byId (id), INDEX byConversation (conversationId, place))`,
  `CREATE TABLE conversation_writing (conversationId ${key}, personId ${key}, at BIGINT NOT NULL, readBy ${word} NOT NULL, PRIMARY KEY (conversationId, personId), INDEX byTime (at))`,
  `ALTER TABLE files ADD COLUMN conversationId ${key}`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
