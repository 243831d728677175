import { Transaction, type Sequelize } from 'sequelize';
import { begunAgain } from './again';
import { note } from './asked';
import { isDeadlock } from './failures';
import { nodesOf } from './nodes';

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
  return note(sql, () => (tx as Inside).connection.query<Written>(sql, values));
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
  const ask = async (connection: Connection): Promise<Row[]> => {
    const rows = await note(sql, () =>
      Array.isArray(values)
        ? connection.query<Row[]>(sql, values)
        : connection.query<Row[]>({ sql, namedPlaceholders: true }, toSent(values)),
    );
    return Array.from(rows);
  };
  if (tx) return ask((tx as Inside).connection);
  const { connectionManager: pool } = sequelize as unknown as { connectionManager: Pool };
  return begunAgain(sequelize, async () => {
    const connection = await pool.getConnection({ type: 'read' });
    try {
      return await ask(connection);
    } finally {
      pool.releaseConnection(connection);
    }
  });
}

async function commit(tx: Inside): Promise<void> {
  try {
    await send(tx, 'COMMIT');
    tx.cleanup();
  } catch (error) {
    // Whether it is committed is not known (but where another was first): nobody may go on with this connection.
    await tx.forceCleanup();
    throw isDeadlock(error) ? error : Object.assign(error as Error, { isUncertain: true });
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
  let begun: Promise<unknown> = Promise.resolve();
  tx.begin = () => {
    begun = send(tx, 'START TRANSACTION');
    begun.catch(() => undefined);
    return Promise.resolve();
  };
  await tx.prepareEnvironment(false);
  try {
    // A node that refuses it may take the next statement a moment later, which would then stand alone. A single server
    // refuses nothing: the next statement follows over the same connection without waiting.
    if (nodesOf(sequelize).isCluster) await begun;
    const result = await work(tx);
    await begun;
    await commit(tx);
    for (const hook of tx._afterCommitHooks ?? []) hook(tx);
    return result;
  } catch (error) {
    // Sequelize has rolled back already where it met a deadlock.
    if (!tx.finished) await rollBack(tx);
    throw error;
  }
}
