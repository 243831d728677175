import { mkdtemp, rm } from 'node:fs/promises';
import { connect as connectSocket, createServer, type Socket } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { loadDemo } from '../../demo/load';
import type { Clock } from '../../server/clock';
import { readConfig } from '../../server/config';
import { openDatabase } from '../../server/openDatabase';
import { createDatabase } from '../../server/testing/createDatabase';
import { migrate } from '../../server/database/migrate';
import { createListo } from '../../server/createListo';
import { startListo, type RunningListo } from '../../server/process';

export type DemoApp = RunningListo & {
  url: string;
  /** Moves the application's clock. */
  setNow(instant: number): void;
  now(): number;
  /** Takes the database away, and gives it back. */
  cutDatabase(): void;
  restoreDatabase(): void;
  end(): Promise<void>;
};

/** A way to the database that can be cut. */
async function createCable(
  target: number,
): Promise<{ port: number; cut(): void; mend(): void; close(): void }> {
  let isCut = false;
  const sockets = new Set<Socket>();
  const server = createServer((client) => {
    if (isCut) {
      client.destroy();
      return;
    }
    const upstream = connectSocket(target, '127.0.0.1');
    for (const [one, other] of [
      [client, upstream],
      [upstream, client],
    ] as const) {
      sockets.add(one);
      one
        .on('error', () => other.destroy())
        .on('close', () => {
          sockets.delete(one);
          other.destroy();
        });
      one.pipe(other);
    }
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    port: (server.address() as { port: number }).port,
    cut() {
      isCut = true;
      sockets.forEach((socket) => socket.destroy());
    },
    mend: () => (isCut = false),
    close() {
      server.close();
      sockets.forEach((socket) => socket.destroy());
    },
  };
}

/** A working Wednesday morning, so that what is busy does not hang on when the tests run. */
const MORNING = Date.parse('2026-11-25T10:24:00Z');

/** What every database of a suite is copied from; loaded by the first suite of a run. */
const LOADED = 'demo_loaded';

const LOADING_S = 120;
/** What is sealed as the demo is loaded opens in each of its copies. */
const SEAL_KEY = Buffer.alloc(32, 7).toString('base64');

async function hasDatabase(server: string, name: string): Promise<boolean> {
  const root = openDatabase(server);
  const found = await root.select('SELECT 1 FROM information_schema.schemata WHERE schema_name = :name', {
    name,
  });
  await root.close();
  return found.length > 0;
}

async function loadOnce(server: string): Promise<void> {
  if (await hasDatabase(server, LOADED)) return;
  // Only what is whole gets the name.
  const url = await createDatabase(server, `${LOADED}_now`);
  const loading = createListo(
    readConfig({ PORT: '0', DATABASE_URL: url, LOG_LEVEL: 'fatal', LISTO_SEAL_KEY: SEAL_KEY }),
    {
      clock: { now: () => MORNING },
    },
  );
  await migrate(loading.db.sequelize);
  await loadDemo(loading, () => undefined);
  await loading.db.close();
  await copyDatabase(server, `${LOADED}_now`, LOADED);
}

/** A database with the demo's data. Copying takes a fifth of what loading does; the first to want one loads it. */
async function copyDemo(server: string, name: string): Promise<void> {
  const root = openDatabase(server);
  await root.transaction(async (tx) => {
    await root.select('SELECT GET_LOCK(:name, :seconds)', { name: LOADED, seconds: LOADING_S }, tx);
    await loadOnce(server);
    await root.select('SELECT RELEASE_LOCK(:name)', { name: LOADED }, tx);
  });
  await root.close();
  await copyDatabase(server, LOADED, name);
}

/** All tables are copied at once, over a few connections: the last waits for the largest. */
const PATIENCE_MS = 60_000;

/** The same tables with the same rows. */
async function copyDatabase(server: string, from: string, to: string): Promise<void> {
  const source = openDatabase(Object.assign(new URL(server), { pathname: `/${from}` }).href, PATIENCE_MS);
  const copy = openDatabase(await createDatabase(server, to), PATIENCE_MS);
  const tables = await source.select<{ name: string; columns: string }>(
    `SELECT TABLE_NAME AS name, GROUP_CONCAT(CONCAT('\`', COLUMN_NAME, '\`')) AS columns
     FROM information_schema.columns WHERE TABLE_SCHEMA = DATABASE() AND IS_GENERATED = 'NEVER' GROUP BY TABLE_NAME`,
  );
  const copyTable = async ({ name, columns }: { name: string; columns: string }) => {
    const [made] = await source.select<{ 'Create Table': string }>(`SHOW CREATE TABLE ${name}`);
    await copy.transaction(async (tx) => {
      await copy.run('SET foreign_key_checks = 0, unique_checks = 0', {}, tx);
      await copy.run(made!['Create Table'], {}, tx);
      await copy.run(`INSERT INTO ${name} (${columns}) SELECT ${columns} FROM ${from}.${name}`, {}, tx);
    });
  };
  await Promise.all(tables.map(copyTable));
  await Promise.all([source.close(), copy.close()]);
}

/** The application with the built pages and nothing in it: no people, no teams, no services. */
export async function startEmptyApp(
  name: string,
): Promise<RunningListo & { url: string; end(): Promise<void> }> {
  const server = process.env.LISTO_TEST_DATABASE_URL;
  if (!server) throw new Error('LISTO_TEST_DATABASE_URL is not set; run the tests with npm test');
  const databaseUrl = await createDatabase(server, `empty_${name}`);
  const migrating = openDatabase(databaseUrl);
  await migrate(migrating.sequelize);
  await migrating.close();
  const dataDir = await mkdtemp(path.join(os.tmpdir(), 'listo-e2e-'));
  const config = readConfig({
    PORT: '0',
    DATABASE_URL: databaseUrl,
    LISTO_DATA_DIR: dataDir,
    LOG_LEVEL: 'fatal',
  });
  const running = await startListo(config, path.resolve('dist'), { now: () => Date.now() });
  return {
    ...running,
    url: `http://127.0.0.1:${running.port}`,
    async end() {
      await running.stop();
      await rm(dataDir, { recursive: true, force: true });
    },
  };
}

/** The application with the demo's data and the built pages, on a database of its own. */
export async function startDemoApp(name: string): Promise<DemoApp> {
  const server = process.env.LISTO_TEST_DATABASE_URL;
  if (!server) throw new Error('LISTO_TEST_DATABASE_URL is not set; run the tests with npm test');
  await copyDemo(server, `demo_${name}`);
  const cable = await createCable(Number(new URL(server).port));
  const databaseUrl = new URL(server);
  databaseUrl.port = String(cable.port);
  databaseUrl.pathname = `/demo_${name}`;
  const dataDir = await mkdtemp(path.join(os.tmpdir(), 'listo-e2e-'));
  const config = readConfig({
    PORT: '0',
    DATABASE_URL: databaseUrl.href,
    LISTO_SEAL_KEY: SEAL_KEY,
    LISTO_DATA_DIR: dataDir,
    LOG_LEVEL: 'fatal',
  });
  let offset = MORNING - Date.now();
  const clock: Clock = { now: () => Date.now() + offset };
  const running = await startListo(config, path.resolve('dist'), clock);
  return {
    ...running,
    url: `http://127.0.0.1:${running.port}`,
    setNow: (instant) => (offset = instant - Date.now()),
    now: clock.now,
    cutDatabase: cable.cut,
    restoreDatabase: cable.mend,
    async end() {
      await running.stop();
      cable.close();
      await rm(dataDir, { recursive: true, force: true });
    },
  };
}
