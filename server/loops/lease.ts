import type { Listo } from '../listo';

const LEASE_MS = 5_000;
/** A lease that lasts longer than this is not asked for anew. */
const ENOUGH_MS = 2_500;

/** Until when this process has what, by database and holder. */
const held = new WeakMap<object, Map<string, number>>();

/**
 * Whether this holder has the named work for the next seconds: one process at a time, so that what must keep its order
 * keeps it. Leases go by the machine's clock; one that dies loses its own.
 */
export async function holdLease({ db }: Listo, name: string, holder: string): Promise<boolean> {
  const now = Date.now();
  const mine = held.get(db) ?? new Map<string, number>();
  held.set(db, mine);
  if ((mine.get(holder) ?? 0) - now > ENOUGH_MS) return true;
  const until = now + LEASE_MS;
  await db.run(
    `INSERT INTO leases (name, holder, until) VALUES (:name, :holder, :until)
     ON DUPLICATE KEY UPDATE holder = IF(until < :now, VALUES(holder), holder),
       until = IF(holder = VALUES(holder), VALUES(until), until)`,
    { name, holder, until, now },
  );
  const [row] = await db.select<{ holder: string }>('SELECT holder FROM leases WHERE name = :name', { name });
  const isMine = row?.holder === holder;
  mine.set(holder, isMine ? until : 0);
  return isMine;
}

/** Lets another have it at once. */
export async function freeLease({ db }: Listo, name: string, holder: string): Promise<void> {
  held.get(db)?.delete(holder);
  await db.run('UPDATE leases SET until = 0 WHERE name = :name AND holder = :holder', { name, holder });
}
