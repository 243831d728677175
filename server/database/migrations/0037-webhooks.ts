import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';
const word = 'VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin';

/** Addresses that are told what happens, what is on its way to them, and the record of calls to outside addresses. */
const statements = [
  `CREATE TABLE webhooks (id ${key} PRIMARY KEY, programId ${key} NOT NULL, name VARCHAR(100) NOT NULL, address VARCHAR(500) NOT NULL,
    sealedSecret VARCHAR(500) NOT NULL, kinds JSON NOT NULL, provided JSON NOT NULL, isOn BOOLEAN NOT NULL, triedAt BIGINT, pausedUntil BIGINT,
    createdAt BIGINT NOT NULL, version INT NOT NULL, INDEX byProgram (programId))`,
  `CREATE TABLE webhook_deliveries (id BIGINT PRIMARY KEY AUTO_INCREMENT, messageId ${key} NOT NULL, webhookId ${key} NOT NULL,
    entryId BIGINT NOT NULL, ticketNumber BIGINT NOT NULL, type VARCHAR(60) NOT NULL, body LONGTEXT NOT NULL, state ${word} NOT NULL,
    tries INT NOT NULL, at BIGINT NOT NULL, nextAt BIGINT NOT NULL, lastAt BIGINT, status INT, answer VARCHAR(500),
    UNIQUE INDEX byMessage (messageId), INDEX byState (state, nextAt), INDEX byTicket (webhookId, ticketNumber, state, id),
    INDEX byWebhook (webhookId, id), INDEX byAt (state, at))`,
  `CREATE TABLE outgoing_calls (id BIGINT PRIMARY KEY AUTO_INCREMENT, at BIGINT NOT NULL, kind ${word} NOT NULL, ref VARCHAR(60) NOT NULL,
    address VARCHAR(500) NOT NULL, status INT, ms BIGINT NOT NULL, bytes BIGINT NOT NULL, error VARCHAR(300), INDEX byAt (at))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
