import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';
const word = 'VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin';

const statements = [
  `CREATE TABLE articles (id ${key} PRIMARY KEY, teamId ${key} NOT NULL, ownerId ${key} NOT NULL, state ${word} NOT NULL,
    place VARCHAR(20) NOT NULL, labels JSON NOT NULL, isOpen BOOLEAN NOT NULL, audience JSON NOT NULL, reviewAt BIGINT,
    title JSON NOT NULL, body JSON NOT NULL, otherWords JSON NOT NULL, published JSON, version INT NOT NULL,
    publishedVersion INT NOT NULL, publishedAt BIGINT, fromTicket BIGINT, createdAt BIGINT NOT NULL, changedAt BIGINT NOT NULL,
    INDEX byChange (changedAt))`,
  `CREATE TABLE article_versions (articleId ${key}, version INT, at BIGINT NOT NULL, byId ${key}, title JSON NOT NULL,
    body JSON NOT NULL, PRIMARY KEY (articleId, version))`,
  `CREATE TABLE article_uses (id BIGINT PRIMARY KEY AUTO_INCREMENT, articleId ${key} NOT NULL, personId ${key} NOT NULL,
    at BIGINT NOT NULL, what ${word} NOT NULL, door ${word} NOT NULL, isInstead BOOLEAN NOT NULL DEFAULT FALSE,
    ticketNumber BIGINT, words VARCHAR(1000) NOT NULL DEFAULT '', INDEX byArticle (articleId, at), INDEX byTime (at, what),
    INDEX byPerson (personId, at), INDEX byTicket (ticketNumber))`,
  `CREATE TABLE questions_asked (id BIGINT PRIMARY KEY AUTO_INCREMENT, personId ${key} NOT NULL, at BIGINT NOT NULL,
    language CHAR(2) NOT NULL, words VARCHAR(500) NOT NULL, door ${word} NOT NULL, serviceId ${key}, found INT NOT NULL,
    ticketNumber BIGINT, INDEX byTime (at), INDEX byPerson (personId, at), INDEX byTicket (ticketNumber))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
