import type { PersonRef } from '../../contract/shared';
import type { Listo } from '../listo';

/** Names by id, of those ids that are people or programs. */
export async function readNames(listo: Listo, ids: unknown[]): Promise<Map<string, string>> {
  const refs = await readPeople(listo, ids);
  return new Map([...refs].map(([id, { name }]) => [id, name]));
}

/** People, and programs that act, by id as pages name them. */
export async function readPeople(listo: Listo, ids: unknown[]): Promise<Map<string, PersonRef>> {
  const wanted = [...new Set(ids)].filter((id): id is string => typeof id === 'string');
  if (wanted.length === 0) return new Map();
  const rows = await listo.db.select<{ id: string; name: string; goesFirst: number }>(
    // Other programs act too; they have their names from their accounts.
    `SELECT id, name, goesFirst FROM people WHERE id IN (:wanted)
     UNION ALL SELECT id, name, FALSE FROM programs WHERE id IN (:wanted)`,
    { wanted },
  );
  return new Map(rows.map(({ id, name, goesFirst }) => [id, { id, name, goesFirst: Boolean(goesFirst) }]));
}
