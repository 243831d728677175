import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Viewer } from '../../core/rights';
import { startTestListo, until, type TestListo } from '../testing/harness';
import { appendSetting } from '../journal/append';
import { readNames } from '../people/names';
import { findGuarded } from '../tickets/guard';
import { Live } from './live';

let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('live');
});
afterAll(() => app.end());

/** Reads a person's live stream, as a browser asks for it, until some text has come. */
async function follow(personId: string, after?: number) {
  const signedIn = await fetch(`${app.url}/api/v1/session/demo`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ personId }),
  });
  const Cookie = signedIn.headers.getSetCookie()[0]!.split(';')[0]!;
  const stop = new AbortController();
  const headers = {
    Cookie,
    'Accept-Encoding': 'gzip, br',
    ...(after !== undefined && { 'Last-Event-ID': String(after) }),
  };
  const response = await fetch(`${app.url}/api/v1/live`, { headers, signal: stop.signal });
  const reader = response.body!.getReader();
  let text = '';
  return {
    stop: () => stop.abort(),
    async until(part: string): Promise<string> {
      while (!text.includes(part)) text += new TextDecoder().decode((await reader.read()).value);
      return text;
    },
  };
}

const kiosk = { site: 'x', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' };

async function create(body: object): Promise<number> {
  const tomas = await app.as('tomas');
  return ((await tomas.call('POST', '/tickets', body)).body as { number: number }).number;
}

test('what happens reaches those who may see it, and only them', async () => {
  const [rui, sofia] = [await follow('rui'), await follow('sofia')];
  await Promise.all([rui.until('event: here'), sofia.until('event: here')]);
  const secret = await create({
    serviceId: 'in-confidence',
    title: 'In confidence',
    answers: { about: 'leave', what: 'How?' },
  });
  const open = await create({ serviceId: 'kiosk', title: 'Kiosk', answers: kiosk });
  expect(await sofia.until(`"number":${secret}`)).toContain('"type":"sent"');
  expect(await rui.until(`"number":${open}`)).not.toContain(`"number":${secret}`);
  rui.stop();
  sofia.stop();
});

test('who comes back catches up from the last that they saw', async () => {
  const first = await follow('rui');
  const position = Number(/id: (\d+)/.exec(await first.until('event: here'))![1]);
  first.stop();
  const missed = await create({ serviceId: 'kiosk', title: 'Missed', answers: kiosk });
  const watcher = await follow('bia', position);
  await watcher.until(`"number":${missed}`);
  watcher.stop();
  const again = await follow('rui', position);
  expect(await again.until('event: here')).toContain(`"number":${missed}`);
  again.stop();
});

test('that someone writes is seen by those who may read it, and by nobody else', async () => {
  const number = await create({ serviceId: 'kiosk', title: 'Kiosk 8', answers: kiosk });
  const [hanna, tomas] = [await follow('hanna'), await follow('tomas')];
  await Promise.all([hanna.until('event: here'), tomas.until('event: here')]);
  const rui = await app.as('rui');
  expect((await rui.call('POST', `/tickets/${number}/writing`, { readBy: 'team' })).status).toBe(200);
  expect(await hanna.until('"readBy":"team"')).toContain(
    `event: writing\ndata: {"number":${number},"personId":"rui"`,
  );
  await rui.call('POST', `/tickets/${number}/writing`, { readBy: 'requester' });
  expect(await tomas.until('event: writing')).not.toContain('"readBy":"team"');
  const lena = await app.as('lena');
  expect((await lena.call('POST', `/tickets/${number}/writing`, { readBy: 'team' })).status).toBe(404);
  hanna.stop();
  tomas.stop();
});

test('what happens to people reaches those who have to do with them, and nobody else', async () => {
  const [sofia, rui] = [await follow('sofia'), await follow('rui')];
  await Promise.all([sofia.until('event: here'), rui.until('event: here')]);
  const { listo } = app;
  const ofPeople = { personId: 'marta', teamIds: ['people'] };
  await listo.db.transaction(async (tx) => {
    for (const type of ['personLeft', 'personBack'] as const)
      await appendSetting({ listo, tx }, { by: 'helder', type, data: ofPeople });
    await appendSetting({ listo, tx }, { by: 'helder', type: 'categoriesChanged' });
  });
  listo.wake();
  expect(await sofia.until('categoriesChanged')).toMatch(/personLeft[^]*personBack/);
  const seen = await rui.until('categoriesChanged');
  expect(seen).not.toContain('personLeft');
  expect(seen).not.toContain('personBack');
  sofia.stop();
  rui.stop();
});

/** The stream alone, fed by hand, over a database that fails when it is told to. */
async function openLive() {
  const state = { failsOn: null as string | null };
  const db = Object.assign(Object.create(app.listo.db) as typeof app.listo.db, {
    select: (sql: string, ...rest: [never]) => {
      if (state.failsOn === null || !sql.includes(state.failsOn)) return app.listo.db.select(sql, ...rest);
      state.failsOn = null;
      return Promise.reject(new Error('the database went away'));
    },
  });
  const live = new Live({ ...app.listo, db }, { outward: ['chat'], readNames, findGuarded });
  const viewer = { id: 'rui', isAdministrator: false, teams: [{ teamId: 'onboard', role: 'agent' }] };
  const server: Server = createServer(
    (request, response) =>
      void live.join(
        viewer as unknown as Viewer,
        response as never,
        Number(request.headers['last-event-id']),
      ),
  );
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const end = async () => {
    live.stop();
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
  };
  return { live, state, end, url: `http://127.0.0.1:${(server.address() as AddressInfo).port}` };
}

async function handledPosition(): Promise<number> {
  const [row] = await app.listo.db.select<{ position: number }>(
    'SELECT MIN(position) AS position FROM consumers',
  );
  return row!.position;
}

test('a query that fails loses no entry: it is sent with the next one', async () => {
  const { live, state, end, url } = await openLive();
  const stop = new AbortController();
  const position = await handledPosition();
  const reader = (
    await fetch(url, { signal: stop.signal, headers: { 'Last-Event-ID': String(position) } })
  ).body!.getReader();
  let text = '';
  const sees = async (part: string) => {
    while (!text.includes(part)) text += new TextDecoder().decode((await reader.read()).value);
  };
  await sees('event: here');
  const number = await create({ serviceId: 'kiosk', title: 'While it fails', answers: kiosk });
  const { position: made } = await until(
    async () => (await app.listo.db.tables.journal.findOne({ ticketNumber: number }))!,
    (entry) => entry.position !== null,
  );
  await until(handledPosition, (handled) => handled >= made!);
  // The names of those who acted are read after the entries: the pass fails between reading and sending.
  state.failsOn = 'FROM people';
  await expect(live.tail()).rejects.toThrow('went away');
  expect(text).not.toContain(`id: ${made}\n`);
  await live.tail();
  await sees(`id: ${made}\n`);
  stop.abort();
  await end();
});
