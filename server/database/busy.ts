import { AsyncLocalStorage } from 'node:async_hooks';
import type { Sequelize } from 'sequelize';

/** What people wait for, and what happens by itself: each has connections of its own, so that neither waits for the other. */
export type Sort = 'pages' | 'background';
export const CONNECTIONS: Record<Sort, number> = { pages: 12, background: 8 };

const sorts = new AsyncLocalStorage<Sort>();

/** Runs what happens by itself; its statements go over the connections for that. */
export function asBackground<T>(work: () => T): T {
  return sorts.run('background', work);
}

type Connection = object;
type Pool = {
  getConnection(options: unknown): Promise<Connection>;
  releaseConnection(connection: Connection): unknown;
  destroyConnection?(connection: Connection): unknown;
};

class Seats {
  private taken = 0;
  private readonly waiting: (() => void)[] = [];

  constructor(
    private readonly most: number,
    private readonly patienceMs: number,
  ) {}

  async take(): Promise<void> {
    if (this.taken < this.most) {
      this.taken++;
      return;
    }
    await new Promise<void>((resolve, reject) => {
      const go = (): void => {
        clearTimeout(timer);
        resolve();
      };
      const timer = setTimeout(() => {
        this.waiting.splice(this.waiting.indexOf(go), 1);
        const error = new Error('no connection came free in time');
        reject(Object.assign(error, { code: 'ER_GET_CONNECTION_TIMEOUT' }));
      }, this.patienceMs);
      this.waiting.push(go);
    });
  }

  /** How many wait for one. */
  get lined(): number {
    return this.waiting.length;
  }

  get used(): number {
    return this.taken;
  }

  give(): void {
    const next = this.waiting.shift();
    if (next) next();
    else this.taken--;
  }
}

const seatsOf = new WeakMap<Sequelize, Record<Sort, Seats>>();

/** How many connections of a sort are in use, and how many statements wait for one. */
export function readSeats(sequelize: Sequelize, sort: Sort): { used: number; waiting: number } {
  const seats = seatsOf.get(sequelize)![sort];
  return { used: seats.used, waiting: seats.lined };
}

/**
 * Parts the connections of a pool between what people wait for and what happens by itself.
 * @param patienceMs how long a statement waits for one; then it is told to come again
 */
export function partConnections(sequelize: Sequelize, patienceMs: number): void {
  const pool = (sequelize as unknown as { connectionManager: Pool }).connectionManager;
  const seats = {
    pages: new Seats(CONNECTIONS.pages, patienceMs),
    background: new Seats(CONNECTIONS.background, patienceMs),
  };
  seatsOf.set(sequelize, seats);
  const heldBy = new WeakMap<Connection, Sort>();
  const get = pool.getConnection.bind(pool);
  const leave = (connection: Connection): void => {
    const sort = heldBy.get(connection);
    heldBy.delete(connection);
    if (sort) seats[sort].give();
  };
  pool.getConnection = async (options) => {
    const sort = sorts.getStore() ?? 'pages';
    await seats[sort].take();
    try {
      const connection = await get(options);
      heldBy.set(connection, sort);
      return connection;
    } catch (error) {
      seats[sort].give();
      throw error;
    }
  };
  for (const name of ['releaseConnection', 'destroyConnection'] as const) {
    const end = pool[name]?.bind(pool);
    if (end)
      pool[name] = (connection) => {
        leave(connection);
        return end(connection);
      };
  }
}
