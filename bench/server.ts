import { spawn } from 'node:child_process';

export type BenchServer = { url: string; port: number; stop(): Promise<void>; kill(): Promise<void> };

/** The application in a process of its own, on the bench's database; with the built pages where they are wanted. */
export function startServer({ withPages = false } = {}): Promise<BenchServer> {
  const child = spawn(
    process.execPath,
    ['--import', 'tsx', 'server/main.ts', ...(withPages ? [] : ['--no-pages'])],
    {
      env: { ...process.env, PORT: '0' },
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

/** Signs in as a demo person. @returns the session's cookie */
export async function signIn(url: string, personId: string): Promise<string> {
  const response = await fetch(`${url}/api/v1/session/demo`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ personId }),
  });
  return response.headers.getSetCookie()[0]!.split(';')[0]!;
}
