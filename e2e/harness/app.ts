import { mkdtemp, rm } from 'node:fs/promises';
import { connect as connectSocket, createServer, type Socket } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { loadDemo } from '../../demo/load';
import type { Clock } from '../../server/clock';
import { readConfig } from '../../server/config';
import { openDatabase } from '../../server/database/database';
import { migrate } from '../../server/database/migrate';
import { createListo, startListo, type RunningListo } from '../../server/process';

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

/** The application with the demo's data and the built pages, on a database of its own. */
export async function startDemoApp(name: string): Promise<DemoApp> {
  const server = process.env.LISTO_TEST_DATABASE_URL;
  if (!server) throw new Error('LISTO_TEST_DATABASE_URL is not set; run the tests with npm test');
  const root = openDatabase(server);
  await root.run(`DROP DATABASE IF EXISTS demo_${name}`);
  await root.run(`CREATE DATABASE demo_${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  await root.close();
  const cable = await createCable(Number(new URL(server).port));
  const databaseUrl = new URL(server);
  databaseUrl.port = String(cable.port);
  databaseUrl.pathname = `/demo_${name}`;
  const dataDir = await mkdtemp(path.join(os.tmpdir(), 'listo-e2e-'));
  const config = readConfig({
    PORT: '0',
    DATABASE_URL: databaseUrl.href,
    LISTO_DATA_DIR: dataDir,
    LOG_LEVEL: 'fatal',
  });
  let offset = MORNING - Date.now();
  const clock: Clock = { now: () => Date.now() + offset };
  const loading = createListo(config, { clock });
  await migrate(loading.db.sequelize);
  await loadDemo(loading, () => undefined);
  await loading.db.close();
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
