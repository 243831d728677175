import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { connect } from './connection';
import { createTables, type Tables } from './tables';

/** The database as services see it: typed tables, plain queries and transactions. */
export interface Database {
  sequelize: Sequelize;
  tables: Tables;
  /** Rows of a SELECT, with named replacements. */
  select<Row extends object>(sql: string, values?: Record<string, unknown>, tx?: Transaction): Promise<Row[]>;
  /** A statement without rows. */
  run(sql: string, values?: Record<string, unknown>, tx?: Transaction): Promise<void>;
  /** The same with values at $1, $2 …, which the driver writes: for long texts. */
  runBound(sql: string, values: unknown[], tx?: Transaction): Promise<void>;
  transaction<T>(work: (tx: Transaction) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

const DEADLOCK_TRIES = 4;

function isDeadlock(error: unknown): boolean {
  const code = (error as { original?: { code?: string } }).original?.code;
  return code === 'ER_LOCK_DEADLOCK' || code === 'ER_CHECKREAD';
}

export function openDatabase(databaseUrl: string): Database {
  const sequelize = connect(databaseUrl);
  const optional = (tx?: Transaction) => (tx ? { transaction: tx } : {});

  async function transaction<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
    for (let tries = 1; ; tries++) {
      try {
        return await sequelize.transaction(work);
      } catch (error) {
        if (!isDeadlock(error) || tries === DEADLOCK_TRIES) throw error;
      }
    }
  }

  return {
    sequelize,
    tables: createTables(sequelize),
    transaction,
    select: <Row extends object>(sql: string, values: Record<string, unknown> = {}, tx?: Transaction) =>
      sequelize.query<Row>(sql, { type: QueryTypes.SELECT, replacements: values, ...optional(tx) }),
    run: async (sql, values = {}, tx) => {
      await sequelize.query(sql, { type: QueryTypes.RAW, replacements: values, ...optional(tx) });
    },
    runBound: async (sql, bind, tx) => {
      await sequelize.query(sql, { type: QueryTypes.RAW, bind, ...optional(tx) });
    },
    close: () => sequelize.close(),
  };
}
