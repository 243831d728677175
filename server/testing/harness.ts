import { createDatabase } from './createDatabase';
import { mkdtemp, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { createCalendars } from '../../demo/calendars';
import { createOrganisation } from '../../demo/organisation';
import { createRandom } from '../../demo/random';
import { createLines } from '../../demo/lines';
import { loadRooms } from '../../demo/rooms';
import { createServices } from '../../demo/services';
import { WORK_TEMPLATES } from '../../demo/works';
import { createTargets } from '../../demo/targets';
import type { Clock } from '../clock';
import { LAST_RESORT } from '../catalogue/lastResort';
import { readConfig } from '../config';
import { openDatabase } from '../openDatabase';
import { migrate } from '../database/migrate';
import { setClosing } from '../hours/closing';
import { startListo, type RunningListo } from '../process';

/** A clock that tests set by hand: the server's hand is moved, nothing waits. */
export type HandClock = Clock & { set(instant: number): void; pass(ms: number): void };

type Answer = { status: number; body: never; headers: Headers };
export type Person = {
  call(method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<Answer>;
};

export type TestListo = RunningListo & {
  clock: HandClock;
  url: string;
  databaseUrl: string;
  dataDir: string;
  /** A session of one of the scenario's people. */
  as(personId: string): Promise<Person>;
  /** The same at another process. */
  asAt(port: number, personId: string): Promise<Person>;
  /** Another program, by its key. */
  withKey(key: string): Person;
  /** Another process on the same database, or as its environment says. */
  another(env?: object): Promise<RunningListo>;
  end(): Promise<void>;
};

const ownServer = process.env.LISTO_TEST_DATABASE_URL;

/** Asking without a pause would take from what is waited for. */
const LOOK_MS = 15;

/** Waits until a condition holds, asking again shortly; fails with what was last seen. */
export async function until<T>(look: () => Promise<T>, holds: (seen: T) => boolean, ms = 30_000): Promise<T> {
  const end = performance.now() + ms;
  for (;;) {
    const seen = await look();
    if (holds(seen)) return seen;
    if (performance.now() > end)
      throw new Error(`waited in vain; last seen: ${JSON.stringify(seen).slice(0, 600)}`);
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }
}

async function fill(running: RunningListo): Promise<void> {
  const { tables } = running.listo.db;
  const organisation = createOrganisation(createRandom(1));
  const named = organisation.people.filter(({ id }) => !/^p\d/.test(id));
  const specs = createCalendars(new Date(running.listo.clock.now()).getUTCFullYear());
  await tables.calendars.insertAll(Object.entries(specs).map(([id, spec]) => ({ id, spec, version: 1 })));
  await tables.sites.insertAll(organisation.sites);
  await tables.people.insertAll(named);
  await tables.teams.insertAll(organisation.teams);
  await tables.groups.insertAll(organisation.groups);
  await tables.members.insertAll(organisation.members);
  await tables.services.insertAll(createServices());
  await tables.workTemplates.insertAll(WORK_TEMPLATES);
  await tables.targets.insertAll(createTargets());
  for (const team of organisation.teams)
    await running.listo.db.transaction((tx) => setClosing({ listo: running.listo, tx }, team));
  await loadRooms(running.listo, named);
  await tables.chatLines.insertAll(createLines());
  await tables.settings.insert({ name: LAST_RESORT, value: { serviceId: 'other' } });
  await tables.settings.insert({ name: 'demo', value: { people: named.map(({ id }) => id) } });
}

/** A Wednesday when every team is at work: what tests find must not rest on the day or hour at which they run. */
const MORNING = Date.parse('2026-11-25T10:00:00Z');

/** Runs the application on a database of its own in the tests' MariaDB, with the scenario's people and catalogue. */
export async function startTestListo(
  name: string,
  {
    isEmpty = false,
    startsAt = MORNING,
    env = {},
    server = ownServer,
  }: { isEmpty?: boolean; startsAt?: number; env?: object; server?: string | undefined } = {},
): Promise<TestListo> {
  if (!server) throw new Error('LISTO_TEST_DATABASE_URL is not set; run the tests with npm test');
  const databaseUrl = await createDatabase(server, `test_${name}`);
  const dataDir = await mkdtemp(path.join(os.tmpdir(), 'listo-test-'));
  const environment = {
    PORT: '0',
    DATABASE_URL: databaseUrl,
    LISTO_DATA_DIR: dataDir,
    LOG_LEVEL: process.env.TLOG ?? 'fatal',
    LISTO_SIGN_IN_LIMIT: '1000',
    // Tests move the clock by weeks, and ask a lot in a second.
    LISTO_SESSION_IDLE_HOURS: '5000',
    LISTO_COSTLY_LIMIT: '100000',
    ...env,
  };

  let offset = startsAt - Date.now();
  const clock: HandClock = {
    now: () => Date.now() + offset,
    set: (instant) => (offset = instant - Date.now()),
    pass: (ms) => (offset += ms),
  };
  const start = (more: object = {}) => startListo(readConfig({ ...environment, ...more }), null, clock);
  const migrating = openDatabase(databaseUrl);
  await migrate(migrating.sequelize);
  await migrating.close();
  const running = await start();
  if (!isEmpty) await fill(running);
  const others: RunningListo[] = [];
  const url = `http://127.0.0.1:${running.port}`;

  async function asAt(port: number, personId: string): Promise<Person> {
    const at = `http://127.0.0.1:${port}`;
    const signedIn = await fetch(`${at}/api/v1/session/demo`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ personId }),
    });
    if (signedIn.status !== 200) throw new Error(`nobody can sign in as ${personId}`);
    return callerWith({ Cookie: signedIn.headers.getSetCookie()[0]!.split(';')[0]! }, at);
  }

  function callerWith(known: Record<string, string>, at = url): Person {
    return {
      async call(method, address, body, headers = {}) {
        const isForm = body instanceof FormData;
        const response = await fetch(`${at}/api/v1${address}`, {
          method,
          headers: {
            ...known,
            ...(body !== undefined && !isForm && { 'Content-Type': 'application/json' }),
            ...headers,
          },
          ...(body !== undefined && { body: isForm ? body : JSON.stringify(body) }),
        });
        const text = await response.text();
        const isJson = /^application\/(problem\+)?json/.test(response.headers.get('Content-Type') ?? '');
        return {
          status: response.status,
          headers: response.headers,
          body: (isJson ? JSON.parse(text) : text) as never,
        };
      },
    };
  }

  return {
    ...running,
    clock,
    url,
    databaseUrl,
    dataDir,
    as: (personId) => asAt(running.port, personId),
    asAt,
    withKey: (key) => callerWith({ Authorization: `Bearer ${key}` }),
    async another(more) {
      const other = await start(more);
      others.push(other);
      return other;
    },
    async end() {
      for (const each of [running, ...others]) await each.stop().catch(() => undefined);
      await rm(dataDir, { recursive: true, force: true });
    },
  };
}
