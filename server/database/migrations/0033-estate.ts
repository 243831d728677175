import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';
/** Touched by the database itself, so that what has changed is found whatever the clocks of its clients say. */
const touched = 'touchedAt TIMESTAMP(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3) ON UPDATE CURRENT_TIMESTAMP(3)';

/**
 * The estate: kinds of things, things with what they need, and tickets about them. What was kept as an asset becomes a
 * thing of a kind of its own. Entries of the journal about one thing or person are found by it.
 */
const statements = [
  `CREATE TABLE thing_kinds (id ${key} PRIMARY KEY, name JSON NOT NULL, form JSON NOT NULL, seenBy VARCHAR(10) CHARACTER SET ascii NOT NULL,
    keptBy JSON NOT NULL, isHandedOut BOOLEAN NOT NULL, serviceId ${key}, months INT, position INT NOT NULL, version INT NOT NULL)`,
  `INSERT INTO thing_kinds SELECT kind, JSON_OBJECT('en', CONCAT(UPPER(LEFT(kind, 1)), SUBSTRING(kind, 2)),
     'pt', CONCAT(UPPER(LEFT(kind, 1)), SUBSTRING(kind, 2))), '{"fields":[]}', 'everyone', '[]', TRUE, NULL, NULL, 0, 1
   FROM assets GROUP BY kind`,
  'RENAME TABLE assets TO things',
  `ALTER TABLE things CHANGE kind kindId ${key} NOT NULL, ADD COLUMN tag VARCHAR(60) NOT NULL DEFAULT '', ADD COLUMN tagMark VARCHAR(60) COLLATE utf8mb4_bin,
    ADD COLUMN serial VARCHAR(80) NOT NULL DEFAULT '', ADD COLUMN serialMark VARCHAR(80) COLLATE utf8mb4_bin, ADD COLUMN model VARCHAR(120) NOT NULL DEFAULT '',
    ADD COLUMN state VARCHAR(10) CHARACTER SET ascii NOT NULL DEFAULT 'inUse', ADD COLUMN holderId ${key},
    ADD COLUMN lentUntil BIGINT, ADD COLUMN place VARCHAR(120) NOT NULL DEFAULT '', ADD COLUMN vessel VARCHAR(60) NOT NULL DEFAULT '',
    ADD COLUMN teamId ${key}, ADD COLUMN cost BIGINT, ADD COLUMN boughtOn VARCHAR(10) CHARACTER SET ascii,
    ADD COLUMN warrantyUntil VARCHAR(10) CHARACTER SET ascii, ADD COLUMN contract VARCHAR(200) NOT NULL DEFAULT '',
    ADD COLUMN isWatched BOOLEAN NOT NULL DEFAULT FALSE, ADD COLUMN dependable DOUBLE, ADD COLUMN fields JSON NOT NULL DEFAULT '{}',
    ADD COLUMN handedAt BIGINT, ADD COLUMN confirmedAt BIGINT, ADD COLUMN claim VARCHAR(10) CHARACTER SET ascii, ADD COLUMN claimAt BIGINT,
    ADD COLUMN seenAt BIGINT, ADD COLUMN version INT NOT NULL DEFAULT 1, ADD COLUMN ${touched},
    ADD INDEX byHolder (holderId), ADD UNIQUE INDEX byTag (tagMark), ADD INDEX bySerial (serialMark), ADD INDEX byKind (kindId, state),
    ADD INDEX byModel (kindId, model), ADD INDEX byWarranty (warrantyUntil), ADD INDEX byClaim (claim), ADD INDEX byTouch (touchedAt)`,
  'UPDATE things SET holderId = ownerId',
  `CREATE TABLE thing_needs (id ${key} PRIMARY KEY, thingId ${key} NOT NULL, atLeast INT NOT NULL, members JSON NOT NULL, isGone BOOLEAN NOT NULL,
    ${touched}, INDEX byThing (thingId), INDEX byTouch (touchedAt))`,
  `CREATE TABLE ticket_things (ticketNumber BIGINT, thingId ${key}, how VARCHAR(10) CHARACTER SET ascii NOT NULL, isAnswer BOOLEAN NOT NULL,
    at BIGINT NOT NULL, PRIMARY KEY (ticketNumber, thingId), INDEX byThing (thingId, ticketNumber))`,
  `INSERT INTO ticket_things SELECT DISTINCT t.number, a.id, 'about', TRUE, t.createdAt FROM tickets t
    JOIN JSON_TABLE(t.answers, '$.*' COLUMNS (id VARCHAR(40) PATH '$.id' NULL ON EMPTY NULL ON ERROR)) x
    JOIN things a ON a.id = CONVERT(x.id USING ascii)`,
  `ALTER TABLE journal ADD COLUMN aboutId ${key}, ADD INDEX byAbout (aboutId, id)`,
  `UPDATE journal SET aboutId = CONVERT(JSON_VALUE(data, '$.personId') USING ascii) WHERE ticketNumber IS NULL AND JSON_VALUE(data, '$.personId') IS NOT NULL`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
