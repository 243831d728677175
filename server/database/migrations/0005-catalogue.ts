import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

/** Services have drafts, versions and an audience; what must be agreed is a process; things that are owned have a table. */
const statements = [
  `ALTER TABLE services ADD COLUMN categoryId ${key}, ADD COLUMN icon ${key}, ADD COLUMN audience JSON NOT NULL DEFAULT '[]',
    ADD COLUMN approvals JSON NOT NULL DEFAULT '[]', ADD COLUMN stateWords JSON NOT NULL DEFAULT '{}', ADD COLUMN articleLabels JSON,
    ADD COLUMN offWords JSON, ADD COLUMN position INT NOT NULL DEFAULT 0, ADD COLUMN publishedAt BIGINT`,
  `UPDATE services SET approvals = IF(JSON_TYPE(approval) <=> 'OBJECT', JSON_ARRAY(JSON_QUERY(approval, '$')), '[]')`,
  `ALTER TABLE services DROP COLUMN approval`,
  `CREATE TABLE service_drafts (id ${key} PRIMARY KEY, definition JSON NOT NULL, version INT NOT NULL, changedAt BIGINT NOT NULL, changedById ${key})`,
  `CREATE TABLE service_versions (serviceId ${key}, version INT, definition JSON NOT NULL, publishedAt BIGINT, replacedAt BIGINT NOT NULL,
    replacedById ${key}, PRIMARY KEY (serviceId, version))`,
  `CREATE TABLE categories (id ${key} PRIMARY KEY, parentId ${key}, name JSON NOT NULL, position INT NOT NULL)`,
  `CREATE TABLE assets (id ${key} PRIMARY KEY, kind ${key} NOT NULL, name VARCHAR(255) NOT NULL, ownerId ${key}, siteId ${key}, department VARCHAR(255),
    INDEX byOwner (ownerId), INDEX bySite (siteId), INDEX byName (name))`,
  `ALTER TABLE tickets ADD COLUMN serviceVersion INT NOT NULL DEFAULT 1`,
  `ALTER TABLE plans ADD COLUMN slipTold BIGINT`,
  `ALTER TABLE teams ADD COLUMN progressLabels JSON NOT NULL DEFAULT '[]'`,
  `ALTER TABLE tickets ADD COLUMN progressId ${key}, ADD COLUMN progressFinishedAt BIGINT`,
  `ALTER TABLE approvals ADD COLUMN place INT NOT NULL DEFAULT 0, ADD COLUMN silence JSON`,
  `ALTER TABLE asks ADD COLUMN silentSince BIGINT, ADD COLUMN reminders INT NOT NULL DEFAULT 0, ADD COLUMN how VARCHAR(20) CHARACTER SET ascii, ADD COLUMN questionAt BIGINT`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
