import { readConfig } from '../server/config';
import { migrate } from '../server/database/migrate';
import { openDatabase } from '../server/openDatabase';
import { sayProgress } from './say.mjs';

/**
 * Prepares the data: brings the tables up to date, and fills an empty database with the demo unless `--empty`. A
 * load that broke off is begun afresh; `--reset` empties first.
 */
const config = readConfig({ LOG_LEVEL: 'error', ...process.env });
const db = openDatabase(config.DATABASE_URL);

async function emptyDatabase(): Promise<void> {
  const tables = await db.select<{ name: string }>(
    'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE()',
  );
  await db.run('SET FOREIGN_KEY_CHECKS = 0');
  for (const { name } of tables) await db.run(`DROP TABLE \`${name}\``);
}

const has = async (name: string): Promise<boolean> => (await db.tables.settings.findOne({ name })) !== null;

/** Writes the demo; what it takes is loaded for it alone, so that other starts are quick. */
async function fill(): Promise<void> {
  const { createListo } = await import('../server/createListo');
  const { loadDemo } = await import('../demo/load');
  const listo = createListo(config);
  const startedAt = performance.now();
  const { tickets, entries } = await loadDemo(listo, sayProgress);
  await listo.db.close();
  const seconds = ((performance.now() - startedAt) / 1000).toFixed(1);
  process.stdout.write(`  ${tickets} tickets with ${entries} journal entries in ${seconds} s\n`);
}

async function prepare(): Promise<void> {
  if (process.argv.includes('--reset')) await emptyDatabase();
  await migrate(db.sequelize);
  if (await has('demoLoading')) {
    await emptyDatabase();
    await migrate(db.sequelize);
  }
  const isEmpty = (await db.tables.people.find({}, { limit: 1 })).length === 0;
  if (isEmpty && !process.argv.includes('--empty')) {
    await db.tables.settings.insert({ name: 'demoLoading', value: true });
    await fill();
    await db.tables.settings.remove({ name: 'demoLoading' });
  }
}

/** One at a time, on one database: another that is still writing would find its tables gone. */
const isAlone = await db.transaction(async (tx) => {
  const [lock] = await db.select<{ taken: number }>("SELECT GET_LOCK('listo-data', 0) AS taken", {}, tx);
  if (lock?.taken !== 1) return false;
  await prepare();
  await db.select("SELECT RELEASE_LOCK('listo-data')", {}, tx);
  return true;
});
if (!isAlone) {
  process.stderr.write('Another start is still preparing this database. Wait until it is done.\n');
  process.exitCode = 1;
}
await db.close();
