import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startChromium } from './chromium.mjs';
import { startMariaDb } from './mariadb.mjs';
import { ensureDebianPackage, ensurePackages, ROOT } from './ready.mjs';

/** Measures side by side in one run, on a durable database of its own. Words choose benchmarks. */
ensurePackages();
ensureDebianPackage('mariadb-server', 'mariadbd', 'mysqld');
const base = mkdtempSync(path.join(os.tmpdir(), 'listo-bench-'));
const database = await startMariaDb(path.join(base, 'mariadb'), { isForMany: true });
const wanted = process.argv.slice(2);
const needsBrowser = wanted.length === 0 || wanted.includes('page');
const chromium = needsBrowser ? await startChromium(ensureDebianPackage('chromium', 'chromium')) : null;
/** On a working morning: out of hours every new ticket is more work, and figures would rest on the hour of the run. */
const morning = new Date();
morning.setUTCHours(10, 0, 0, 0);
morning.setUTCDate(morning.getUTCDate() + ((3 - morning.getUTCDay() + 7) % 7));
const env = {
  LISTO_CLOCK_STARTS_AT: morning.toISOString(),
  ...process.env,
  DATABASE_URL: database.url,
  LISTO_DATA_DIR: base,
  LOG_LEVEL: 'fatal',
  NODE_ENV: 'production',
  TZ: 'UTC',
  ...(chromium && { LISTO_BENCH_BROWSER: chromium.url }),
};
const { status } = spawnSync(process.execPath, ['--import', 'tsx', 'bench/run.ts', ...wanted], {
  cwd: ROOT,
  env,
  stdio: 'inherit',
});
await chromium?.stop();
await database.stop();
rmSync(base, { recursive: true, force: true });
process.exit(status ?? 1);
