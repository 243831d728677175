import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { setTimeout } from 'node:timers/promises';
import { ALWAYS } from '../core/conditions';
import type { Listo } from '../server/listo';
import { seal } from '../server/http/seal';
import { prepareDemo } from './prepare';
import { median, p95, perSecond, report } from './report';
import { signIn, startServer, untilQuiet } from './server';

const CALLS = 400;
const RECEIVERS = 10;
const EVENTS = 4_000;
const TICKETS = 5_000;
const SECRET = `whsec_${'A'.repeat(32)}`;

const ms = (time: number): string => `${time.toFixed(1)} ms`;

/** The same route by a session and by a key, in turns. */
async function benchKeys(url: string): Promise<void> {
  const helder = await signIn(url, 'helder');
  const json = { Cookie: helder, 'Content-Type': 'application/json' };
  const body = {
    ...{
      name: 'Bench',
      purpose: '',
      ownerId: 'helder',
      isOn: true,
      mayChange: false,
      mayAskForOthers: false,
    },
    ...{ isAdministrator: true, teams: [], networks: [], perMinute: 6_000, endsAt: null },
  };
  const post = async (path: string, sent: object): Promise<{ id: string; key: string }> =>
    (await (
      await fetch(`${url}/api/v1${path}`, { method: 'POST', headers: json, body: JSON.stringify(sent) })
    ).json()) as { id: string; key: string };
  const { id } = await post('/workshop/programs', body);
  const { key } = await post(`/workshop/programs/${id}/keys`, { endsAt: null });
  const ways = { session: { Cookie: helder }, key: { Authorization: `Bearer ${key}` } };
  const times = { session: [] as number[], key: [] as number[] };
  for (let i = 0; i < CALLS; i++)
    for (const way of ['session', 'key'] as const) {
      const start = performance.now();
      const answer = await fetch(`${url}/api/v1/worklists`, { headers: ways[way] });
      await answer.text();
      if (answer.status !== 200) throw new Error(`${way}: ${answer.status}`);
      times[way].push(performance.now() - start);
    }
  const [session, byKey] = [median(times.session), median(times.key)];
  report('the worklists by a session, by a key', `${ms(session)}, ${ms(byKey)}`);
  report('a key against a session', `${(byKey / session).toFixed(2)} x`, 'asked: at most 1.1 x');
}

/** Events in line for ten receivers: how fast they go out, and what a page waits meanwhile. */
async function benchEvents(listo: Listo, url: string, address: string): Promise<void> {
  const now = listo.clock.now();
  const { webhooks, deliveries } = listo.db.tables;
  for (let i = 0; i < RECEIVERS; i++)
    await webhooks.insert({
      ...{ id: `bench-${i}`, programId: 'program-payroll', name: `Bench ${i}`, address: `${address}/${i}` },
      ...{ kinds: ['withdrawn'], provided: ALWAYS, isOn: true, triedAt: now, pausedUntil: null, version: 1 },
      ...{ createdAt: now, sealedSecret: await seal(listo, `webhook bench-${i}`, SECRET) },
    });
  const rows = Array.from({ length: EVENTS }, (_, i) => ({
    ...{ messageId: `msg_bench_${i}`, webhookId: `bench-${i % RECEIVERS}`, entryId: i, ticketNumber: i },
    ...{
      type: 'ticket.done',
      body: JSON.stringify({ type: 'ticket.done', data: { i } }),
      state: 'waiting' as const,
    },
    ...{ tries: 0, at: now, nextAt: now, lastAt: null, status: null, answer: null },
  }));
  const cookie = await signIn(url, 'rui');
  const start = performance.now();
  await deliveries.insertAll(rows);
  const waits: number[] = [];
  for (;;) {
    const asked = performance.now();
    await (await fetch(`${url}/api/v1/worklists`, { headers: { Cookie: cookie } })).text();
    waits.push(performance.now() - asked);
    const [left] = await listo.db.select<{ n: number }>(
      "SELECT COUNT(*) AS n FROM webhook_deliveries WHERE state = 'waiting' AND webhookId LIKE 'bench-%'",
    );
    if (left!.n === 0) break;
    await setTimeout(50);
  }
  const seconds = (performance.now() - start) / 1_000;
  report(`${EVENTS} events to ${RECEIVERS} receivers`, perSecond(EVENTS / seconds), 'asked: 1,000 /s');
  report('a page meanwhile', `p95 ${ms(p95(waits))}`);
}

/** The archive of somebody with many tickets. */
async function benchArchive(listo: Listo, url: string): Promise<void> {
  await listo.db.run(
    `UPDATE tickets SET requesterId = 'tomas' WHERE isConfidential = 0 ORDER BY number LIMIT ${TICKETS}`,
  );
  const cookie = await signIn(url, 'tomas');
  const start = performance.now();
  const answer = await fetch(`${url}/api/v1/my/archive`, { headers: { Cookie: cookie } });
  const { byteLength } = await answer.arrayBuffer();
  const seconds = (performance.now() - start) / 1_000;
  report(
    `an archive with ${TICKETS} tickets`,
    `${seconds.toFixed(1)} s`,
    `${byteLength} bytes; asked: under 60 s`,
  );
}

/** The doors for other programs: keys, events, archives. */
export async function benchDoors(): Promise<void> {
  const receiver = createServer((request, response) => {
    request.resume();
    request.on('end', () => response.writeHead(204).end());
  });
  await new Promise<void>((resolve) => receiver.listen(0, '127.0.0.1', resolve));
  const address = `http://127.0.0.1:${(receiver.address() as AddressInfo).port}`;
  process.env.LISTO_OUTGOING_HOSTS = address;
  const listo = await prepareDemo();
  const server = await startServer();
  await untilQuiet(listo);
  await benchKeys(server.url);
  await benchEvents(listo, server.url, address);
  await benchArchive(listo, server.url);
  await server.stop();
  await listo.db.close();
  receiver.closeAllConnections();
  receiver.close();
}
