import type { QueryInterface } from 'sequelize';

/** A clock carries the notices that it owes itself, so that one row is written where there were several timers. */
const statements = [
  `ALTER TABLE clocks ADD COLUMN owed JSON NOT NULL DEFAULT '[]', ADD COLUMN nextAt BIGINT, ADD INDEX byNext (nextAt, ticketNumber)`,
  `CREATE TEMPORARY TABLE owed_before AS SELECT ticketNumber, SUBSTRING_INDEX(ref, '|', 2) AS clock, MIN(at) AS nextAt,
     CONCAT('[', GROUP_CONCAT(JSON_ARRAY(SUBSTRING_INDEX(SUBSTRING_INDEX(ref, '|', 3), '|', -1), at) ORDER BY at), ']') AS owed
     FROM timers WHERE kind IN ('clockLate', 'clockWarned') GROUP BY ticketNumber, clock`,
  `UPDATE clocks c JOIN owed_before o ON o.ticketNumber = c.ticketNumber AND o.clock = CONCAT(c.work, '|', c.targetId)
     SET c.owed = o.owed, c.nextAt = o.nextAt`,
  `DROP TEMPORARY TABLE owed_before`,
  `DELETE FROM timers WHERE kind IN ('clockLate', 'clockWarned')`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  await context.sequelize.transaction(async (transaction) => {
    for (const statement of statements) await context.sequelize.query(statement, { transaction });
  });
}
