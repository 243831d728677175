import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';

const statements = [
  `CREATE TABLE imports (id ${key} PRIMARY KEY, personId ${key} NOT NULL, name VARCHAR(255) NOT NULL, at BIGINT NOT NULL, encoding VARCHAR(20) CHARACTER SET ascii NOT NULL,
    delimiter VARCHAR(2) NOT NULL, headings JSON NOT NULL, sample JSON NOT NULL, \`rows\` INT NOT NULL, reading JSON, state VARCHAR(10) CHARACTER SET ascii NOT NULL,
    done INT NOT NULL, written INT NOT NULL, refused JSON NOT NULL, leaseUntil BIGINT NOT NULL, INDEX going (state, leaseUntil))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
