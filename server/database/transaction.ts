import { Transaction, type Sequelize } from 'sequelize';

/** What the driver answers to a statement that writes. */
export type Written = { insertId: number; affectedRows: number };

type Connection = { query<T>(statement: string | object, values?: unknown): Promise<T> };

type Pool = {
  getConnection(options: { type: 'read' | 'write' }): Promise<Connection>;
  releaseConnection(connection: Connection): void;
};

/** Sequelize's transaction beside its public face. */
type Inside = Transaction & {
  connection: Connection;
  finished?: 'commit' | 'rollback';
  prepareEnvironment(useCLS: boolean): Promise<void>;
  begin(): Promise<void>;
  cleanup(): void;
  forceCleanup(): Promise<void>;
  _afterCommitHooks?: ((tx: Transaction) => unknown)[];
};

/**
 * Sends a statement that writes straight to the driver, over the connection that Sequelize keeps for the transaction,
 * with values at its question marks. What Sequelize adds to a statement costs more than the statement.
 */
export function send(tx: Transaction, sql: string, values?: unknown[]): Promise<Written> {
  return (tx as Inside).connection.query<Written>(sql, values);
}

/** A list without anything is written as one of nothing: `IN ()` is no SQL. */
export function toSent(values: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(values).map(([name, value]) => [
      name,
      Array.isArray(value) && value.length === 0 ? [null] : value,
    ]),
  );
}

/** Reads rows with named values (or with values at its question marks), as directly: within a transaction, or over a connection of the pool. */
export async function read<Row extends object>(
  sequelize: Sequelize,
  { sql, values }: { sql: string; values: Record<string, unknown> | unknown[] },
  tx?: Transaction,
): Promise<Row[]> {
  const { connectionManager: pool } = sequelize as unknown as { connectionManager: Pool };
  const connection = tx ? (tx as Inside).connection : await pool.getConnection({ type: 'read' });
  try {
    const rows = Array.isArray(values)
      ? await connection.query<Row[]>(sql, values)
      : await connection.query<Row[]>({ sql, namedPlaceholders: true }, toSent(values));
    return Array.from(rows);
  } finally {
    if (!tx) pool.releaseConnection(connection);
  }
}

async function commit(tx: Inside): Promise<void> {
  try {
    await send(tx, 'COMMIT');
    tx.cleanup();
  } catch (error) {
    // Whether it is committed is not known: nobody may go on with this connection.
    await tx.forceCleanup();
    throw error;
  } finally {
    tx.finished = 'commit';
  }
}

/** Takes all of it back; a connection over which that cannot be said is closed, and the database does it. */
async function rollBack(tx: Inside): Promise<void> {
  tx.finished = 'rollback';
  try {
    await send(tx, 'ROLLBACK');
    tx.cleanup();
  } catch {
    // Why it came to this is told by the error that did.
    await tx.forceCleanup().catch(() => undefined);
  }
}

/** Runs work in a transaction: committed when it ends well, else rolled back. */
export async function runInTransaction<T>(
  sequelize: Sequelize,
  work: (tx: Transaction) => Promise<T>,
): Promise<T> {
  const tx = new Transaction(sequelize, {}) as Inside;
  // Not waited for: the next statement follows it over the same connection, and says as well where that is gone.
  tx.begin = () => {
    send(tx, 'START TRANSACTION').catch(() => undefined);
    return Promise.resolve();
  };
  await tx.prepareEnvironment(false);
  try {
    const result = await work(tx);
    await commit(tx);
    for (const hook of tx._afterCommitHooks ?? []) hook(tx);
    return result;
  } catch (error) {
    // Sequelize has rolled back already where it met a deadlock.
    if (!tx.finished) await rollBack(tx);
    throw error;
  }
}
