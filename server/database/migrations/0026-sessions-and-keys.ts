import type { QueryInterface } from 'sequelize';

const address = 'VARCHAR(255) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin';

/**
 * Addresses are compared letter by letter: by a collation without accents, another's domain would count as one's own.
 * A kept answer belongs to the request that it answered.
 */
const statements = [
  'UPDATE people SET email = LOWER(TRIM(email)) WHERE BINARY email <> BINARY LOWER(TRIM(email))',
  `ALTER TABLE people MODIFY email ${address} NOT NULL`,
  `ALTER TABLE room_people MODIFY email ${address} NOT NULL`,
  'ALTER TABLE kept_answers ADD COLUMN request CHAR(64) CHARACTER SET ascii COLLATE ascii_bin',
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
