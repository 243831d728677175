import { spawn } from 'node:child_process';
import { Agent, get, type IncomingMessage } from 'node:http';
import { prepareDemo } from './prepare';
import { report } from './report';
import { signIn, startServer } from './server';

const CONNECTIONS = 1_000;
const CHANGES = 150;
const PAUSE_MS = 150;
const MOST_WAIT_MS = 10_000;

type Streams = { all: IncomingMessage[]; close(): void };

function open(url: string, headers: Record<string, string>): Promise<Streams> {
  const agent = new Agent({ maxSockets: Infinity });
  const opened = Array.from(
    { length: CONNECTIONS },
    () =>
      new Promise<IncomingMessage>((resolve, reject) => {
        get(url, { agent, headers }, (response) => {
          response.setEncoding('utf8');
          const onData = (text: string): void => {
            if (!text.includes('event: here')) return;
            response.off('data', onData);
            resolve(response);
          };
          response.on('data', onData);
        }).once('error', reject);
      }),
  );
  return Promise.all(opened).then((all) => ({
    all,
    close: () => all.forEach((response) => response.destroy()),
  }));
}

/** How long a change takes to the last of all streams, in ms. */
async function timeOf({ all }: Streams, change: () => Promise<void>): Promise<number> {
  const start = performance.now();
  const arrived = Promise.all(
    all.map(
      (response) =>
        new Promise<void>((resolve, reject) => {
          const late = setTimeout(() => reject(new Error('a change did not arrive')), MOST_WAIT_MS);
          response.once('data', () => {
            clearTimeout(late);
            resolve();
          });
        }),
    ),
  );
  await change();
  await arrived;
  const time = performance.now() - start;
  // What is left of it comes and goes.
  await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
  return time;
}

async function post(url: string, cookie: string, body: object): Promise<void> {
  const headers = { 'Content-Type': 'application/json', Cookie: cookie };
  const response = await fetch(url, { method: 'POST', headers, body: JSON.stringify(body) });
  if (!response.ok) throw new Error(await response.text());
  await response.arrayBuffer();
}

function startBare(): Promise<{ url: string; stop(): void }> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'bench/bareStream.ts'], {
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  return new Promise((resolve) =>
    child.once('message', (message) =>
      resolve({
        url: `http://127.0.0.1:${(message as { port: number }).port}`,
        stop: () => void child.kill(),
      }),
    ),
  );
}

/** A share of the times takes at most so long. */
const at = (times: number[], share: number): number =>
  [...times].sort((a, b) => a - b)[Math.floor(times.length * share)]!;

/** A change until the last of many open pages knows of it, and a bare event stream in turn with it. */
export async function benchLive(): Promise<void> {
  const listo = await prepareDemo();
  const [bare, server] = [await startBare(), await startServer()];
  const cookie = await signIn(server.url, 'rui');
  const [ticket] = await listo.db.select<{ number: number }>(
    "SELECT number FROM tickets WHERE assigneeId = 'rui' AND state = 'inWork' LIMIT 1",
  );
  const bareStreams = await open(bare.url, {});
  const pages = await open(`${server.url}/api/v1/live`, { Cookie: cookie });
  const bareTimes: number[] = [];
  const times: number[] = [];
  for (let i = 0; i < CHANGES; i++) {
    bareTimes.push(await timeOf(bareStreams, () => post(bare.url, '', { i })));
    const note = { text: `Note ${i}`, readBy: 'team', links: [], fileIds: [] };
    times.push(
      await timeOf(pages, () =>
        post(`${server.url}/api/v1/tickets/${ticket!.number}/messages`, cookie, note),
      ),
    );
  }
  const [bareP95, p95] = [at(bareTimes, 0.95), at(times, 0.95)];
  report(
    'a bare event stream, to the last of 1,000',
    `p95 ${bareP95.toFixed(0)} ms`,
    `p50 ${at(bareTimes, 0.5).toFixed(0)} ms`,
  );
  report(
    'a note on a ticket, to the last of 1,000 open pages',
    `p95 ${p95.toFixed(0)} ms`,
    `p50 ${at(times, 0.5).toFixed(0)} ms, ${(p95 / bareP95).toFixed(2)} x bare`,
  );
  bareStreams.close();
  pages.close();
  bare.stop();
  await server.stop();
  await listo.db.close();
}
