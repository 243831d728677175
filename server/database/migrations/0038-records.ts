import type { QueryInterface } from 'sequelize';

const hash = 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin';

/** Ways into the journal by who did something and by kind, and its seals, which a timer makes each night. */
const statements = [
  'ALTER TABLE journal ADD INDEX byActor (actorId, id), ADD INDEX byType (type, id), ADD INDEX byTime (at, id)',
  `CREATE TABLE audit_seals (id BIGINT PRIMARY KEY AUTO_INCREMENT, at BIGINT NOT NULL, firstPosition BIGINT NOT NULL,
    lastPosition BIGINT NOT NULL, entries BIGINT NOT NULL, hash ${hash} NOT NULL, previousHash ${hash} NOT NULL,
    UNIQUE INDEX byFirst (firstPosition))`,
  `INSERT INTO timers (ticketNumber, kind, ref, at) VALUES (0, 'sealDay', '', 0)`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
