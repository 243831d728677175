import type { Listo } from '../listo';

/** The providers that are on, as the page to sign in at offers them. */
export async function listProviders({
  db,
}: Listo): Promise<{ id: string; name: string; domains: string[] }[]> {
  const rows = await db.tables.signOnProviders.find({ isOn: true }, { order: ['name', 'id'] });
  return rows.map(({ id, name, domains }) => ({ id, name, domains }));
}
