import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';
const ascii = (length: number): string => `VARCHAR(${length}) CHARACTER SET ascii COLLATE ascii_bin`;

/**
 * Providers at which people sign in, who is who there, sign-ins under way, and second factors. Secrets are sealed; of what
 * a browser carries only the hash is kept.
 */
const statements = [
  `CREATE TABLE sign_on_providers (
    id ${key} PRIMARY KEY, name VARCHAR(100) NOT NULL, issuer VARCHAR(500) NOT NULL, clientId VARCHAR(200) NOT NULL,
    sealedSecret TEXT, domains JSON NOT NULL, isOn BOOLEAN NOT NULL, makesPeople BOOLEAN NOT NULL, siteId ${key} NOT NULL,
    groupsClaim VARCHAR(100) NOT NULL, groupTable JSON NOT NULL, endsThere BOOLEAN NOT NULL, version INT NOT NULL)`,
  `CREATE TABLE sign_on_subjects (
    providerId ${key} NOT NULL, subject VARCHAR(255) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
    personId ${key} NOT NULL, gave JSON NOT NULL, at BIGINT NOT NULL,
    PRIMARY KEY (providerId, subject), UNIQUE INDEX onePerson (providerId, personId))`,
  `CREATE TABLE sign_on_flows (
    id ${ascii(64)} PRIMARY KEY, providerId ${key} NOT NULL, nonce ${ascii(100)} NOT NULL, verifier ${ascii(200)} NOT NULL,
    back VARCHAR(500) NOT NULL, at BIGINT NOT NULL, INDEX byTime (at))`,
  `CREATE TABLE sign_on_sessions (
    sessionId ${ascii(64)} PRIMARY KEY, providerId ${key} NOT NULL, sealedToken TEXT NOT NULL, at BIGINT NOT NULL,
    INDEX byTime (at))`,
  `CREATE TABLE second_factors (
    personId ${key} PRIMARY KEY, sealedSecret TEXT NOT NULL, at BIGINT NOT NULL, confirmedAt BIGINT, lastStep BIGINT,
    spareHashes JSON NOT NULL)`,
  `ALTER TABLE sessions ADD COLUMN way ${ascii(10)} NOT NULL DEFAULT 'password'`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
