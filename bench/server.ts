import { spawn } from 'node:child_process';
import { setTimeout } from 'node:timers/promises';
import type { Listo } from '../server/listo';

export type BenchServer = { url: string; port: number; stop(): Promise<void>; kill(): Promise<void> };

type Start = { withPages?: boolean; url?: string };

/** The application in a process of its own, on a database of the bench; with the built pages where they are wanted. */
export function startServer({
  withPages = false,
  url: database = process.env.DATABASE_URL!,
}: Start = {}): Promise<BenchServer> {
  const child = spawn(
    process.execPath,
    ['--import', 'tsx', 'server/main.ts', ...(withPages ? [] : ['--no-pages'])],
    {
      env: { ...process.env, DATABASE_URL: database, PORT: '0' },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    },
  );
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  const end = async (signal: NodeJS.Signals): Promise<void> => {
    child.kill(signal);
    await ended;
  };
  return new Promise((resolve) =>
    child.once('message', (message) => {
      const { port } = message as { port: number };
      const url = `http://127.0.0.1:${port}`;
      resolve({ url, port, stop: () => end('SIGTERM'), kill: () => end('SIGKILL') });
    }),
  );
}

/** What a server does by itself all the time asks the database less often than this, in a second. */
const QUIET = 100;
const MOST_QUIET_WAITS = 60;

/** Waits until a server has caught up: with the demo come mails to send and rooms to write to. */
export async function untilQuiet({ db }: Listo): Promise<void> {
  const count = async (): Promise<number> => {
    const [row] = await db.select<{ Value: string }>("SHOW GLOBAL STATUS LIKE 'Questions'");
    return Number(row!.Value);
  };
  for (let i = 0, quiet = 0; i < MOST_QUIET_WAITS && quiet < 3; i++) {
    const before = await count();
    await setTimeout(1_000);
    quiet = (await count()) - before < QUIET ? quiet + 1 : 0;
  }
}

/** Signs in as a demo person. @returns the session's cookie */
export async function signIn(url: string, personId: string): Promise<string> {
  const response = await fetch(`${url}/api/v1/session/demo`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ personId }),
  });
  return response.headers.getSetCookie()[0]!.split(';')[0]!;
}
