import { spawn, type ChildProcess } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { cp, mkdtemp, readFile, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as delay } from 'node:timers/promises';
import { click, see, startBrowser, type } from './harness/browser';

/** The start command itself, on a private database of its own. */
const { LISTO_TEST_DATABASE_URL: _url, DATABASE_URL: _other, ...bare } = process.env;
let dataDir = '';
let port = 0;
/** A port that nothing listens on. */
const anyPort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = createServer();
    server.listen(0, '127.0.0.1', () => {
      const { port: free } = server.address() as AddressInfo;
      server.close(() => resolve(free));
    });
  });
beforeEach(async () => {
  dataDir = await mkdtemp(path.join(os.tmpdir(), 'listo-start-'));
  port = await anyPort();
});
afterEach(() => rm(dataDir, { recursive: true, force: true }));

type Started = { child: ChildProcess; output(): string; ended: Promise<number | null> };

/** Starts and waits until the address is printed. */
function start(...flags: string[]): Promise<Started> {
  return run(process.execPath, ['scripts/start.mjs', ...flags]);
}

function run(program: string, args: string[]): Promise<Started> {
  const env = { ...bare, LISTO_DATA_DIR: dataDir, PORT: String(port), LOG_LEVEL: 'silent' };
  const child = spawn(program, args, { env, stdio: ['ignore', 'pipe', 'pipe'], detached: true });
  let said = '';
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
  return new Promise((resolve, reject) => {
    const listen = (chunk: Buffer): void => {
      said += chunk.toString();
      if (said.includes('Ctrl-C ends it.')) resolve({ child, ended, output: () => said });
    };
    child.stdout.on('data', listen);
    child.stderr.on('data', listen);
    void ended.then(() => reject(new Error(`the start command ended:\n${said}`)));
  });
}

const address = (): string => `http://127.0.0.1:${port}`;

async function ask(
  pathName: string,
  init: RequestInit = {},
): Promise<{ status: number; body: Record<string, unknown>; cookie: string }> {
  const response = await fetch(`${address()}${pathName}`, init);
  const cookie = response.headers.getSetCookie()[0]?.split(';')[0] ?? '';
  return { status: response.status, body: (await response.json()) as Record<string, unknown>, cookie };
}

/** Whether a process is there and more than a name that nobody has asked after. */
function isAlive(pid: number): boolean {
  try {
    return !/\) [ZX] /.test(readFileSync(`/proc/${pid}/stat`, 'utf8'));
  } catch {
    return false;
  }
}

/** The processes that the start command runs: itself, the database, the others. */
async function listProcesses(child: ChildProcess): Promise<number[]> {
  const { databasePid } = JSON.parse(await readFile(path.join(dataDir, 'running.json'), 'utf8')) as {
    databasePid: number;
  };
  const children = (await readFile(`/proc/${child.pid!}/task/${child.pid!}/children`, 'utf8'))
    .trim()
    .split(' ')
    .map(Number);
  return [child.pid!, databasePid, ...children.filter((pid) => pid !== databasePid)];
}

test('after everything is killed, the next start has lost nothing that was answered; Ctrl-C ends all of it', async () => {
  const first = await start();
  const json = { 'Content-Type': 'application/json' };
  const { cookie } = await ask('/api/v1/session/demo', {
    method: 'POST',
    headers: json,
    body: '{"personId":"tomas"}',
  });
  const headers = { ...json, Cookie: cookie };
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' };
  const body = JSON.stringify({ serviceId: 'kiosk', title: 'Before the power went', answers });
  const created = await ask('/api/v1/tickets', { method: 'POST', headers, body });
  expect(created.status).toBe(200);
  const processes = await listProcesses(first.child);
  expect(processes.length).toBeGreaterThanOrEqual(3);
  processes.forEach((pid) => process.kill(pid, 'SIGKILL'));
  await first.ended;

  const second = await start();
  expect(second.output()).not.toContain('Tickets: 100 %');
  const kept = await ask(`/api/v1/tickets/${String(created.body.number)}`, { headers });
  expect(kept).toMatchObject({ status: 200, body: { title: 'Before the power went' } });
  const running = await listProcesses(second.child);
  second.child.kill('SIGINT');
  expect(await second.ended).toBe(0);
  expect(running.filter(isAlive)).toEqual([]);
}, 180_000);

test('empty, it walks through making the first administrator; nothing goes on without its start command', async () => {
  const { child, ended, output } = await start('--empty');
  const code = /asks for this code: (\S+)/.exec(output())![1]!;
  const [own, databasePid, ...others] = await listProcesses(child);
  const browser = await startBrowser(address);
  const page = await browser.open(null, '/');
  await see(page, 'Begin with yourself');
  await type(page, 'Code', 'guessed');
  await type(page, 'Organisation', 'Quayside');
  await type(page, 'Your name', 'Nell Harper');
  await type(page, 'Mail address', 'nell@quayside.example');
  await page.locator('input[autocomplete="new-password"]').fill('short');
  await click(page, 'Begin');
  await see(page, 'Wrong code');
  await page.locator('::-p-aria([name="Code"])').fill(code);
  await click(page, 'Begin');
  await see(page, 'This is too short.');
  await page.locator('input[autocomplete="new-password"]').fill('long enough for this');
  await click(page, 'Begin');
  await see(page, 'What do you need, Nell?');
  await browser.close();
  process.kill(own!, 'SIGKILL');
  await ended;
  while (others.some(isAlive)) await delay(50);
  // What the database holds is safe with it; the next start takes it over.
  process.kill(databasePid!, 'SIGKILL');
}, 120_000);

/** Every process whose command line or environment names this test's data folder. */
function listAll(): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((pid) => {
      if (pid === process.pid || !isAlive(pid)) return false;
      try {
        return ['cmdline', 'environ'].some((file) =>
          readFileSync(`/proc/${pid}/${file}`, 'utf8').includes(dataDir),
        );
      } catch {
        return false;
      }
    });
}

const findBy = (words: string): number =>
  listAll().find((pid) =>
    readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ').includes(words),
  )!;

describe('whatever ends it, and whichever part of it is ended: soon nothing of it is left', () => {
  /** A data folder with an empty Listo: to make the database anew takes longest of all. */
  let made = '';
  beforeAll(async () => {
    made = await mkdtemp(path.join(os.tmpdir(), 'listo-start-'));
    [dataDir, port] = [made, await anyPort()];
    const { child, ended } = await start('--empty');
    child.kill('SIGTERM');
    await ended;
  }, 90_000);
  beforeEach(() => cp(made, dataDir, { recursive: true }));
  afterAll(() => rm(made, { recursive: true, force: true }));

  test.each<[string, NodeJS.Signals, (npm: number) => number]>([
    ['Ctrl-C in its terminal', 'SIGINT', (npm) => -npm],
    ['TERM to all', 'SIGTERM', (npm) => -npm],
    ['its terminal closed', 'SIGHUP', (npm) => -npm],
    ['TERM to npm alone', 'SIGTERM', (npm) => npm],
    ['npm killed', 'SIGKILL', (npm) => npm],
    ['the start command killed', 'SIGKILL', () => findBy('scripts/start.mjs')],
    ['the server killed', 'SIGKILL', () => findBy('server/main.ts')],
    ['the database killed', 'SIGKILL', () => findBy('mariadbd')],
  ])(
    '%s',
    async (_, signal, target) => {
      const { child } = await run('npm', ['start', '--silent', '--', '--empty']);
      expect(listAll().length).toBeGreaterThanOrEqual(4);
      process.kill(target(child.pid!), signal);
      const end = performance.now() + 15_000;
      while (listAll().length > 0 && performance.now() < end) await delay(100);
      expect(
        listAll().map((pid) => readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ')),
      ).toEqual([]);
    },
    90_000,
  );
});

test('a second start beside the first says so and touches nothing', async () => {
  const first = await start('--empty');
  const second = spawn(process.execPath, ['scripts/start.mjs', '--empty'], {
    env: { ...bare, LISTO_DATA_DIR: dataDir, PORT: String(port + 1), LOG_LEVEL: 'silent' },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  let said = '';
  second.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()));
  expect(await new Promise((resolve) => second.once('exit', resolve))).toBe(1);
  expect(said).toContain(`already runs at ${address()}`);
  expect((await ask('/readyz')).status).toBe(200);
  first.child.kill('SIGTERM');
  await first.ended;
}, 90_000);
