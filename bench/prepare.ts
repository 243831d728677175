import { loadDemo } from '../demo/load';
import { readConfig } from '../server/config';
import { migrate } from '../server/database/migrate';
import type { Listo } from '../server/listo';
import { createListo } from '../server/createListo';

/** The bench's database, or another beside it, with the demo in it; made at the first call of a run. */
export async function prepareDemo(url = process.env.DATABASE_URL!): Promise<Listo> {
  const listo = createListo(readConfig({ ...process.env, DATABASE_URL: url }));
  await migrate(listo.db.sequelize);
  const people = await listo.db.tables.people.find({}, { limit: 1 });
  if (people.length === 0) await loadDemo(listo, () => undefined);
  return listo;
}
