import { spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, rmSync } from 'node:fs';
import http from 'node:http';
import path from 'node:path';
import { createBalancer } from './balancer.mjs';
import { askCluster, BASE, CONTROL } from './control.mjs';
import { startCluster } from './galera.mjs';
import { startKeeper } from './keep.mjs';
import { freePort } from './mariadb.mjs';
import { ensurePackages, isOutOfDate, ROOT } from './ready.mjs';
import { giveUp, say } from './say.mjs';

/**
 * `npm run cluster` starts three database nodes and two processes behind a balancer, with the demo; beside it,
 * `npm run cluster -- kill node 2` and the like show what happens.
 */
const PROCESSES = 2;
const TSX = ['--import', 'tsx'];
const HELP = [
  'npm run cluster                      starts it',
  'npm run cluster -- status            says what is up',
  'npm run cluster -- kill node 2       ends a node at once; start node 2 brings it back',
  'npm run cluster -- hold node 2       cuts a node off; release node 2 lets it go on',
  'npm run cluster -- kill process 1    ends a process at once; start process 1 brings it back',
].join('\n');

async function tell(words) {
  const said = await askCluster(words).catch(() => null);
  if (said === null) giveUp(`It is not running: begin with npm run cluster.\n\n${HELP}`);
  process.stdout.write(said.text);
  process.exit(said.isDone ? 0 : 1);
}

async function run() {
  ensurePackages();
  mkdirSync(BASE, { recursive: true });
  rmSync(CONTROL, { force: true });
  const env = { NODE_ENV: 'production', LOG_LEVEL: 'warn', ...process.env, TZ: 'UTC' };
  env.LISTO_DATA_DIR = path.join(BASE, 'data');
  env.LISTO_TRUST_PROXY = '1';
  const children = new Map();
  const ports = new Map();
  let isStopping = false;

  const step = (args, stepEnv) =>
    new Promise((resolve) =>
      spawn(process.execPath, args, { cwd: ROOT, env: stepEnv, stdio: 'inherit' }).once('exit', resolve),
    );
  say('Starting three database nodes …');
  const nodes = await startCluster(path.join(BASE, 'nodes'));
  say('Preparing the data …');
  const prepared = await step([...TSX, 'scripts/data.ts'], { ...env, DATABASE_URL: nodes.urlFrom(1) });
  if (prepared !== 0) return stop(1);
  if (isOutOfDate(path.join(ROOT, 'dist/index.html'), path.join(ROOT, 'web'))) {
    say('Building the pages …');
    await step([path.join(ROOT, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'error'], env);
  }

  async function startProcess(number) {
    const port = await freePort();
    const child = spawn(process.execPath, [...TSX, 'server/main.ts'], {
      ...{ cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] },
      env: { ...env, PORT: String(port), DATABASE_URL: nodes.urlFrom(number) },
    });
    children.set(number, child);
    startKeeper({ processes: [child.pid], mark: 'server/main.ts' });
    await new Promise((resolve) => {
      child.once('message', resolve);
      child.once('exit', resolve);
    });
    if (child.exitCode === null && child.signalCode === null) ports.set(number, port);
    child.once('exit', () => ports.delete(number));
  }

  const deeds = {
    'kill node': (number) => nodes.kill(number),
    'hold node': (number) => nodes.hold(number),
    'release node': (number) => nodes.release(number),
    'start node': (number) => nodes.start(number),
    'kill process': (number) => children.get(number)?.kill('SIGKILL'),
    'start process': (number) => startProcess(number),
  };
  async function answer([deed, what, number]) {
    if (deed === 'status') {
      const all = await nodes.ask();
      const said = all.map(({ name, state, size }) => `${name}: ${state ? `${state}, of ${size}` : 'gone'}`);
      for (let i = 1; i <= PROCESSES; i++)
        said.push(`process ${i}: ${ports.has(i) ? `port ${ports.get(i)}` : 'gone'}`);
      return said.join('\n');
    }
    // For who counts what is there: the socket is this account's alone.
    if (deed === 'database') return nodes.urlOf(Number(what));
    const act = deeds[`${deed} ${what}`];
    if (!act || !(Number(number) >= 1)) throw new Error(HELP);
    await act(Number(number));
    return `Done: ${deed} ${what} ${number}`;
  }
  const control = http.createServer((request, response) => {
    answer(request.url.slice(1).split('/')).then(
      (said) => response.end(`${said}\n`),
      (error) => response.writeHead(400).end(`${error.message}\n`),
    );
  });
  control.listen(CONTROL, () => chmodSync(CONTROL, 0o600));

  const balancer = createBalancer(() => [...ports.values()]);
  async function stop(code) {
    if (isStopping) return;
    isStopping = true;
    say('\nStopping …');
    control.close();
    balancer.close();
    balancer.closeAllConnections();
    for (const child of children.values()) if (child.exitCode === null) child.kill('SIGTERM');
    await Promise.all(
      [...children.values()].map(
        (child) =>
          child.exitCode !== null ||
          child.signalCode !== null ||
          new Promise((resolve) => child.once('exit', resolve)),
      ),
    );
    await nodes.stop();
    if (existsSync(CONTROL)) rmSync(CONTROL);
    process.exit(code);
  }
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void stop(0));
  for (let i = 1; i <= PROCESSES; i++) await startProcess(i);
  const port = Number(process.env.PORT ?? 4600);
  balancer.listen(port, '127.0.0.1', () => {
    say(`\nListo is at http://127.0.0.1:${port}, on three database nodes and two processes.`);
    say(`\n${HELP}\n\nCtrl-C ends it.`);
  });
}

const words = process.argv.slice(2);
if (words.length > 0) await tell(words);
else await run();
