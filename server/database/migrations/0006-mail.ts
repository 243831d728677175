import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

/** What goes out and comes in by mail, each accounted for; its texts; the addresses that are good for one answer. */
const statements = [
  `ALTER TABLE teams ADD COLUMN mailbox VARCHAR(60) CHARACTER SET ascii, ADD COLUMN mailServiceId ${key}, ADD UNIQUE INDEX byMailbox (mailbox)`,
  `ALTER TABLE people ADD COLUMN wantsMail BOOLEAN NOT NULL DEFAULT TRUE, ADD INDEX byEmail (email)`,
  `CREATE TABLE mail_addresses (token CHAR(24) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY, personId ${key} NOT NULL, ticketNumber BIGINT NOT NULL,
    askId ${key}, at BIGINT NOT NULL, INDEX byPerson (ticketNumber, personId, askId))`,
  `CREATE TABLE mail_out (id ${key} PRIMARY KEY, at BIGINT NOT NULL, template VARCHAR(20) CHARACTER SET ascii NOT NULL, toId ${key}, toAddress VARCHAR(255) NOT NULL,
    fromName VARCHAR(255) NOT NULL, fromAddress VARCHAR(255) NOT NULL, replyTo VARCHAR(255) NOT NULL, ticketNumber BIGINT, subject VARCHAR(255) NOT NULL, text LONGTEXT NOT NULL, language CHAR(2) NOT NULL,
    isReply BOOLEAN NOT NULL, state VARCHAR(10) CHARACTER SET ascii NOT NULL, tries INT NOT NULL, nextAt BIGINT NOT NULL, sentAt BIGINT, error VARCHAR(500),
    INDEX due (state, nextAt), INDEX latest (at), INDEX toWhom (toAddress, at))`,
  `CREATE TABLE mail_in (id ${key} PRIMARY KEY, at BIGINT NOT NULL, messageId VARCHAR(255) NOT NULL, fromAddress VARCHAR(255) NOT NULL, toAddress VARCHAR(255) NOT NULL,
    subject VARCHAR(500) NOT NULL, size BIGINT NOT NULL, outcome VARCHAR(30) CHARACTER SET ascii NOT NULL, detail VARCHAR(500), ticketNumber BIGINT, personId ${key},
    INDEX latest (at), UNIQUE INDEX once (messageId, toAddress))`,
  `CREATE TABLE mail_texts (template VARCHAR(20) CHARACTER SET ascii PRIMARY KEY, texts JSON NOT NULL, version INT NOT NULL)`,
  `CREATE TABLE stand_in_mails (id ${key} PRIMARY KEY, at BIGINT NOT NULL, toAddress VARCHAR(255) NOT NULL, fromName VARCHAR(255) NOT NULL, replyTo VARCHAR(255) NOT NULL,
    subject VARCHAR(500) NOT NULL, text LONGTEXT NOT NULL, html LONGTEXT, messageId VARCHAR(255) NOT NULL, refs TEXT, INDEX latest (toAddress, at))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
