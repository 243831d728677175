import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startChromium } from './chromium.mjs';
import { startMariaDb } from './mariadb.mjs';
import { ensureDebianPackage, ensurePackages, ROOT } from './ready.mjs';

/** Takes the pictures of docs/screenshots from the demo's data. Words choose pictures. */
ensurePackages();
ensureDebianPackage('mariadb-server', 'mariadbd', 'mysqld');
const chromium = await startChromium(ensureDebianPackage('chromium', 'chromium'));
const base = mkdtempSync(path.join(os.tmpdir(), 'listo-shots-'));
const run = (args, env = {}) =>
  spawnSync(process.execPath, args, { cwd: ROOT, env: { ...process.env, ...env }, stdio: 'inherit' }).status;
const database = await startMariaDb(base, { isForTests: true });
const built = run([path.join(ROOT, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'error']);
const taken =
  built === 0 &&
  run(['--import', 'tsx', 'e2e/screenshots.ts', ...process.argv.slice(2)], {
    LISTO_TEST_DATABASE_URL: database.url,
    LISTO_TEST_BROWSER: chromium.url,
    TZ: 'UTC',
  });
await chromium.stop();
await database.stop();
rmSync(base, { recursive: true, force: true });
process.exit(taken === 0 ? 0 : 1);
