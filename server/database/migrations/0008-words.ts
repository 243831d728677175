import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

const statements = [
  `ALTER TABLE messages ADD COLUMN format VARCHAR(10) CHARACTER SET ascii NOT NULL DEFAULT 'plain'`,
  // Who is writing is of the moment: it may go when the power does.
  `CREATE TABLE writing (ticketNumber BIGINT NOT NULL, personId ${key} NOT NULL, readBy VARCHAR(10) CHARACTER SET ascii NOT NULL, at BIGINT NOT NULL,
    PRIMARY KEY (ticketNumber, personId), INDEX byTime (at) USING BTREE) ENGINE=MEMORY`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
