import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { createInterface } from 'node:readline/promises';
import { setTimeout as delay } from 'node:timers/promises';
import { endWithParent, takeLock } from './keep.mjs';
import { freePort, startMariaDb } from './mariadb.mjs';
import { ensureDebianPackage, ensurePackages, isOutOfDate, ROOT } from './ready.mjs';
import { giveUp, say } from './say.mjs';

const flags = new Set(process.argv.slice(2));
const isDev = flags.has('--dev');
const dataDir = path.resolve(process.env.LISTO_DATA_DIR ?? path.join(ROOT, '.listo'));
const runFile = path.join(dataDir, 'running.json');
const TSX = ['--import', 'tsx'];
const children = [];
let database = null;
/** The database on its way up. */
let starting = null;
let isStopping = false;
/** Held as long as this runs. */
let lock = null;

/** So long a child may take to end when it is asked; then it is ended. */
const PATIENCE_MS = 12_000;

const hasEnded = (child) => child.exitCode !== null || child.signalCode !== null;

/** Ends a child: asked first, and made to where it does not. */
async function end(child) {
  if (hasEnded(child)) return;
  const ended = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  const timer = setTimeout(() => child.kill('SIGKILL'), PATIENCE_MS);
  await ended;
  clearTimeout(timer);
}

/** Ends everything that was started, the application before its database. */
async function stopAll(code) {
  if (isStopping) return;
  isStopping = true;
  say('\nStopping …');
  await Promise.all(children.map(end));
  database ??= await starting?.catch(() => null);
  await database?.stop();
  rmSync(runFile, { force: true });
  lock?.free();
  say('Stopped.');
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stopAll(0));
endWithParent(() => void stopAll(0));

/** One at a time: a second one would empty the database under the first. */
function refuseSecondStart() {
  mkdirSync(dataDir, { recursive: true, mode: 0o700 });
  lock = takeLock(path.join(dataDir, 'start.lock'), 'start.mjs');
  if (lock) return;
  const address = existsSync(runFile) ? JSON.parse(readFileSync(runFile, 'utf8')).address : null;
  giveUp(
    address
      ? `Listo already runs at ${address}`
      : 'Listo is being started already. Wait until it says where it is.',
  );
}

async function confirmReset() {
  if (!flags.has('--reset') || flags.has('--yes')) return;
  const ask = createInterface({ input: process.stdin, output: process.stdout });
  const answer = await ask.question(
    'This throws away everything in the database and makes the demo afresh. Type "yes" to go on: ',
  );
  ask.close();
  if (answer.trim() !== 'yes') giveUp('Nothing was changed.');
}

/** Runs a step to its end, as a child that ends with all the others. @returns whether it went well */
async function runStep(args, env) {
  const child = spawn(process.execPath, args, {
    cwd: ROOT,
    env,
    detached: true,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  children.push(child);
  const status = await new Promise((resolve) => child.once('exit', resolve));
  children.splice(children.indexOf(child), 1);
  if (status !== 0 && !isStopping) await stopAll(1);
  return status === 0;
}

function buildPages() {
  if (
    isDev ||
    !isOutOfDate(
      path.join(ROOT, 'dist/index.html'),
      ...['web', 'core', 'contract', 'index.html', 'package-lock.json', 'vite.config.ts'].map((name) =>
        path.join(ROOT, name),
      ),
    )
  )
    return true;
  say('Building the pages …');
  return runStep(
    [path.join(ROOT, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'error'],
    process.env,
  );
}

/** Waits until a server answers that has no line to the start command. */
async function answers(port, page = '/healthz') {
  for (;;) {
    const isUp = await fetch(`http://127.0.0.1:${port}${page}`).then(
      ({ ok }) => ok,
      () => false,
    );
    if (isUp || isStopping) return port;
    await delay(100);
  }
}

/** Starts the server and waits until it listens. */
function startServer(env) {
  return new Promise((resolve) => {
    const watch = isDev
      ? ['--watch-path=server', '--watch-path=core', '--watch-path=contract', '--watch-preserve-output']
      : [];
    const child = spawn(
      process.execPath,
      [...TSX, ...watch, 'server/main.ts', ...(isDev ? ['--no-pages'] : [])],
      {
        ...{ cwd: ROOT, env, detached: true, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] },
      },
    );
    children.push(child);
    if (isDev) void answers(env.PORT).then(resolve);
    else
      child.once('message', ({ port, setUpCode }) => {
        setUp.code = setUpCode;
        resolve(port);
      });
    child.once('exit', (code, signal) => {
      if (!isStopping) {
        say(`The server ended (${code ?? signal}).`);
        void stopAll(1);
      }
    });
  });
}

function startVite(apiPort, port) {
  const env = { ...process.env, LISTO_API: `http://127.0.0.1:${apiPort}` };
  const args = [
    path.join(ROOT, 'node_modules/vite/bin/vite.js'),
    '--port',
    String(port),
    '--strictPort',
    '--host',
    '127.0.0.1',
    '--logLevel',
    'warn',
  ];
  children.push(
    spawn(process.execPath, args, {
      cwd: ROOT,
      env,
      detached: true,
      stdio: ['ignore', 'inherit', 'inherit'],
    }),
  );
}

/** What the page of an empty Listo asks for. */
const setUp = { code: null };

function greet(address) {
  say(`\nListo is at ${address}`);
  if (flags.has('--empty') || setUp.code) {
    say('It is empty: the page walks through making the first administrator.');
    if (setUp.code) say(`It asks for this code: ${setUp.code}`);
  } else {
    say("The demo's people are on its first page: choose one, no password needed. Among them:");
    say('  Tomás Veiga    asks, follows and confirms');
    say('  Ana Lobo       says yes or no as a manager');
    say('  Rui Bastos     works for Onboard systems');
    say('  Sofia Nunes    works for People services, in confidence');
    say('By name: tomas@solvarra.example with the password "a calm crossing".');
  }
  say('Ctrl-C ends it.');
}

async function startDatabase(env) {
  if (process.env.DATABASE_URL) return;
  ensureDebianPackage('mariadb-server', 'mariadbd', 'mysqld');
  say('Starting the database …');
  const onEnd = () => {
    if (isStopping) return;
    say('The database ended.');
    void stopAll(1);
  };
  starting = startMariaDb(path.join(dataDir, 'mariadb'), { onEnd });
  try {
    database = await starting;
  } catch (error) {
    giveUp(error.message);
  }
  env.DATABASE_URL = database.url;
}

async function start() {
  refuseSecondStart();
  await confirmReset();
  ensurePackages();
  const env = {
    NODE_ENV: isDev ? 'development' : 'production',
    LOG_LEVEL: isDev ? 'info' : 'warn',
    ...process.env,
    LISTO_DATA_DIR: dataDir,
    TZ: 'UTC',
  };
  await startDatabase(env);
  if (isStopping) return;
  const wanted = ['--empty', '--reset'].filter((flag) => flags.has(flag));
  say('Preparing the data …');
  if (!(await runStep([...TSX, 'scripts/data.ts', ...wanted], env)) || !(await buildPages())) return;
  // A signal that came during those steps is heard here.
  await delay(0);
  if (isStopping) return;
  const port = Number(process.env.PORT ?? 4600);
  const serverPort = await startServer({ ...env, PORT: String(isDev ? await freePort() : port) });
  if (isStopping) return;
  if (isDev) {
    startVite(serverPort, port);
    await answers(port, '/');
  }
  const address = `http://127.0.0.1:${isDev ? port : serverPort}`;
  writeFileSync(runFile, JSON.stringify({ pid: process.pid, address, databasePid: database?.pid ?? null }));
  greet(address);
}

await start();
