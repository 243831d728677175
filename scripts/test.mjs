import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, existsSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startChromium } from './chromium.mjs';
import { endWithParent } from './keep.mjs';
import { startMariaDb } from './mariadb.mjs';
import { ensureDebianPackage, ensurePackages, ROOT } from './ready.mjs';
import { say } from './say.mjs';

/**
 * Everything that must hold: format, lint, types, how the house stands, and the unit, server, cluster and browser tests.
 * Words after `--` choose suites (format, lint, types, house, unit, components, server, cluster, browser) and file patterns.
 */
const SUITES = ['format', 'lint', 'types', 'house', 'unit', 'components', 'server', 'cluster', 'browser'];
const wanted = process.argv.slice(2);
const chosen = SUITES.filter((suite) => wanted.includes(suite));
const suites = chosen.length > 0 ? chosen : SUITES;
const patterns = wanted.filter((word) => !SUITES.includes(word));
const bin = (file) => path.join(ROOT, 'node_modules', file);
/** Between an equal share (0) and what the tests leave (19). */
const GIVING_WAY = 5;
/** What runs now, so that it ends with this. */
const children = new Set();
const ends = [];
let isStopping = false;

/** Ends what was started, the database last. */
async function stopAll(code) {
  if (isStopping) return;
  isStopping = true;
  for (const child of children) child.kill('SIGTERM');
  for (const end of ends.reverse()) await end();
  process.exit(code);
}
for (const [signal, code] of [
  ['SIGINT', 130],
  ['SIGTERM', 143],
  ['SIGHUP', 129],
])
  process.on(signal, () => void stopAll(code));
endWithParent(() => void stopAll(143));

/** Starts a program that ends with this one. */
function start(args, options) {
  const child = spawn(process.execPath, args, { cwd: ROOT, ...options });
  children.add(child);
  child.once('exit', () => children.delete(child));
  return child;
}

let passed = 0;
let failed = 0;
/** What failed, by name: said again at the end, where it is read first. */
const failures = [];
/** So long one kind of tests may take on a slow machine, before it counts as hanging. */
const LONGEST_MIN = 40;

async function check(name, args, priority) {
  const child = start(args, { stdio: ['ignore', 'inherit', 'inherit'] });
  if (priority !== undefined) os.setPriority(child.pid, priority);
  const status = await new Promise((resolve) => child.once('exit', resolve));
  say(`${name}: ${status === 0 ? 'passed' : 'failed'}`);
  if (status === 0) passed++;
  else fail(name);
}

function fail(name) {
  failed++;
  failures.push(name);
}

/** @param workers how many files run at once: a cluster is enough for the machine */
async function runJest(project, env, workers = 2) {
  const base = mkdtempSync(path.join(os.tmpdir(), 'listo-jest-'));
  const outputFile = path.join(base, 'result.json');
  const args = ['--experimental-vm-modules', '--no-warnings', bin('jest/bin/jest.js')];
  args.push('--selectProjects', project, `--maxWorkers=${workers}`);
  args.push('--json', '--outputFile', outputFile, ...patterns, '--passWithNoTests');
  const child = start(args, {
    stdio: ['ignore', process.env.TLOG ? 'inherit' : 'ignore', 'inherit'],
    env: { ...process.env, ...env, TZ: 'UTC' },
    timeout: LONGEST_MIN * 60_000,
  });
  await new Promise((resolve) => child.once('exit', resolve));
  if (!existsSync(outputFile)) return fail(`${project} tests: ended before they were through`);
  const { numPassedTests, testResults } = JSON.parse(readFileSync(outputFile, 'utf8'));
  rmSync(base, { recursive: true, force: true });
  passed += numPassedTests;
  for (const { name, status, assertionResults } of testResults) {
    const file = path.relative(ROOT, name);
    const those = assertionResults.filter((each) => each.status === 'failed');
    for (const { fullName } of those) fail(`${file}: ${fullName}`);
    // A file that does not even load fails without a test in it.
    if (status === 'failed' && those.length === 0) fail(`${file}: not run`);
  }
}

ensurePackages();
const checks = {
  format: [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.'],
  lint: [bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0'],
  types: [bin('typescript/bin/tsc'), '--noEmit'],
  house: [path.join(ROOT, 'scripts/house.mjs')],
};
const asked = Object.keys(checks).filter((name) => suites.includes(name));
if (asked.length > 0) say(`\nChecking ${asked.join(', ')} beside the tests …`);
// They give way to the tests, but not so much that they are all that is left to do at the end.
const checking = Promise.all(asked.map((name) => check(name, checks[name], GIVING_WAY)));
if (suites.includes('unit')) {
  say('\nUnit tests …');
  await runJest('unit', {});
}
if (suites.includes('components')) {
  say('\nComponent tests …');
  await runJest('components', {});
}
if (suites.includes('cluster')) {
  say('\nTests on a cluster …');
  await runJest('cluster', {}, 1);
}
if (suites.includes('server') || suites.includes('browser')) {
  ensureDebianPackage('mariadb-server', 'mariadbd', 'mysqld');
  const base = mkdtempSync(path.join(existsSync('/dev/shm') ? '/dev/shm' : os.tmpdir(), 'listo-db-'));
  const database = await startMariaDb(base, { isForTests: true, removes: [base] });
  ends.push(async () => {
    await database.stop();
    rmSync(base, { recursive: true, force: true });
  });
  const env = { LISTO_TEST_DATABASE_URL: database.url };
  let chromium = null;
  try {
    if (suites.includes('server')) {
      say('\nServer tests …');
      await runJest('server', env);
    }
    if (suites.includes('browser')) {
      await check('pages build', [bin('vite/bin/vite.js'), 'build', '--logLevel', 'error']);
      chromium = await startChromium(ensureDebianPackage('chromium', 'chromium'));
      ends.push(() => chromium.stop());
      say('\nBrowser tests …');
      await runJest('browser', { ...env, LISTO_TEST_BROWSER: chromium.url });
    }
  } finally {
    await chromium?.stop();
    await database.stop();
    rmSync(base, { recursive: true, force: true });
  }
}
await checking;
for (const name of failures) say(`failed: ${name}`);
say(`\ntests: ${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
