import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { connect } from './connection';
import { begunAgain, doneAgain } from './again';
import { nodesOf } from './nodes';
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

/**
 * The database without its tables, which the subjects above bring.
 * @param acquireMs how long one waits for a connection, where that is not as pages do
 */
export function openConnection(databaseUrl: string, acquireMs?: number): Omit<Database, 'tables'> {
  const sequelize = connect(databaseUrl, acquireMs);
  const optional = (tx?: Transaction) => (tx ? { transaction: tx } : {});

  return {
    sequelize,
    transaction: (work) => begunAgain(sequelize, () => runInTransaction(sequelize, work)),
    select: <Row extends object>(sql: string, values: Record<string, unknown> = {}, tx?: Transaction) =>
      read<Row>(sequelize, { sql, values }, tx),
    run: async (sql, values = {}, tx) => {
      const send = () =>
        sequelize.query(sql, { type: QueryTypes.RAW, replacements: toSent(values), ...optional(tx) });
      await (tx ? send() : doneAgain(sequelize, send));
    },
    runBound: async (sql, values, tx) => {
      await send(tx, sql, values);
    },
    close: () => {
      nodesOf(sequelize).close();
      return sequelize.close();
    },
  };
}
