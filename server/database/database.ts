import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { connect } from './connection';
import type { Tables } from '../tables';
import { read, runInTransaction, send, toSent } from './transaction';

/** The database as services see it: typed tables, plain queries and transactions. */
export interface Database {
  sequelize: Sequelize;
  tables: Tables;
  /** Rows of a SELECT, with named replacements. */
  select<Row extends object>(sql: string, values?: Record<string, unknown>, tx?: Transaction): Promise<Row[]>;
  /** A statement without rows. */
  run(sql: string, values?: Record<string, unknown>, tx?: Transaction): Promise<void>;
  /** The same with values at its question marks, which the driver writes: for long texts. */
  runBound(sql: string, values: unknown[], tx: Transaction): Promise<void>;
  transaction<T>(work: (tx: Transaction) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

const DEADLOCK_TRIES = 4;

/** The driver's code of an error, also where Sequelize has wrapped it. */
function codeOf(error: unknown): string | undefined {
  const { code, original } = error as { code?: string; original?: { code?: string } };
  return original?.code ?? code;
}

export function isDeadlock(error: unknown): boolean {
  const code = codeOf(error);
  return code === 'ER_LOCK_DEADLOCK' || code === 'ER_CHECKREAD';
}

/** Whether a row with such a key was there already. */
export function isDuplicate(error: unknown): boolean {
  return codeOf(error) === 'ER_DUP_ENTRY';
}

/**
 * The database without its tables, which the subjects above bring.
 * @param acquireMs how long one waits for a connection, where that is not as pages do
 */
export function openConnection(databaseUrl: string, acquireMs?: number): Omit<Database, 'tables'> {
  const sequelize = connect(databaseUrl, acquireMs);
  const optional = (tx?: Transaction) => (tx ? { transaction: tx } : {});

  async function transaction<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
    for (let tries = 1; ; tries++) {
      try {
        return await runInTransaction(sequelize, work);
      } catch (error) {
        if (!isDeadlock(error) || tries === DEADLOCK_TRIES) throw error;
      }
    }
  }

  return {
    sequelize,
    transaction,
    select: <Row extends object>(sql: string, values: Record<string, unknown> = {}, tx?: Transaction) =>
      read<Row>(sequelize, { sql, values }, tx),
    run: async (sql, values = {}, tx) => {
      await sequelize.query(sql, { type: QueryTypes.RAW, replacements: toSent(values), ...optional(tx) });
    },
    runBound: async (sql, values, tx) => {
      await send(tx, sql, values);
    },
    close: () => sequelize.close(),
  };
}
