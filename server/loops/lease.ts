import type { Listo } from '../listo';

/** Longer than any single request that is made under it may take. */
export const LEASE_MS = 15_000;
/** A lease that lasts longer than this is not asked for anew. */
const ENOUGH_MS = 11_000;

/** Until when this process has what, by database and holder, on a clock that is never set. */
const held = new WeakMap<object, Map<string, number>>();

/** The database's clock in ms: one for all processes, whatever their machines say. */
const DATABASE_NOW = 'CAST(UNIX_TIMESTAMP(NOW(3)) * 1000 AS INT)';

/**
 * Whether this holder has the named work for the next seconds: one process at a time, so that what must keep its order
 * keeps it. Leases go by the database's clock, and none lasts longer than its length from now, so that one that was set
 * back keeps nothing for longer; one that dies loses its own.
 */
export async function holdLease({ db }: Listo, name: string, holder: string): Promise<boolean> {
  const mine = held.get(db) ?? new Map<string, number>();
  held.set(db, mine);
  const key = `${name} ${holder}`;
  const asked = performance.now();
  if ((mine.get(key) ?? 0) - asked > ENOUGH_MS) return true;
  await db.run(
    `INSERT INTO leases (name, holder, until) VALUES (:name, :holder, ${DATABASE_NOW} + :length)
     ON DUPLICATE KEY UPDATE
       holder = IF(until < ${DATABASE_NOW} OR until > ${DATABASE_NOW} + :length, VALUES(holder), holder),
       until = IF(holder = VALUES(holder), VALUES(until), until)`,
    { name, holder, length: LEASE_MS },
  );
  const [row] = await db.select<{ holder: string }>('SELECT holder FROM leases WHERE name = :name', { name });
  const isMine = row?.holder === holder;
  mine.set(key, isMine ? asked + LEASE_MS : 0);
  return isMine;
}

/** Lets another have it at once. */
export async function freeLease({ db }: Listo, name: string, holder: string): Promise<void> {
  held.get(db)?.delete(`${name} ${holder}`);
  await db.run('UPDATE leases SET until = 0 WHERE name = :name AND holder = :holder', { name, holder });
}
