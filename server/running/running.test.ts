import type { Running } from '../../contract/running';
import { startTestListo, until, type TestListo } from '../testing/harness';

/** How it runs: what waits for whom, as measures for an operator and as words for an administrator. */
let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('running');
});
afterAll(() => app.end());

const DAY = 86_400_000;
const read = async (): Promise<Running> =>
  (await (await app.as('helder')).call('GET', '/workshop/running')).body;
const measure = async (line: string): Promise<number> => {
  const text = await (await fetch(`${app.url}/metrics`)).text();
  const found = text.split('\n').find((each) => each.startsWith(`${line} `));
  return Number(found?.split(' ').at(-1));
};

test('who keeps the organisation sees how each part stands; nobody else does', async () => {
  const seen = await until(read, ({ standing }) => standing === 'well');
  expect(seen.parts.map(({ part }) => part)).toEqual(
    expect.arrayContaining(['follows', 'timers', 'mail', 'chat', 'webhooks', 'jobs', 'database']),
  );
  expect(seen).toMatchObject({ cluster: null, process: { roles: ['pages', 'work'] } });
  expect((await (await app.as('marta')).call('GET', '/workshop/running')).status).toBe(403);
});

test('a mail that nobody takes is seen to wait, and for how long', async () => {
  const { mailOut } = app.listo.db.tables;
  const at = app.listo.clock.now() - 20 * 60_000;
  await mailOut.insert({
    ...{ id: 'stays', at, template: 'told', toId: 'tomas', toAddress: 'tomas@solvarra.example' },
    ...{ fromName: 'x', fromAddress: 'x@listo.example', replyTo: 'x@listo.example', subject: 'x', text: 'x' },
    // Not to be tried before the test is over.
    ...{ language: 'en', isReply: false, state: 'waiting', tries: 3, nextAt: app.listo.clock.now() + 60_000 },
    ticketNumber: null,
  } as never);
  const { parts, standing } = await read();
  expect(parts.find(({ part }) => part === 'mail')).toMatchObject({ standing: 'stuck', waiting: 1 });
  expect(standing).toBe('stuck');
  expect(await measure('listo_waiting{part="mail"}')).toBe(1);
  expect(await measure('listo_waiting_longest_seconds{part="mail"}')).toBeGreaterThan(1_199);
  await mailOut.remove({ id: 'stays' });
});

test('measures are OpenMetrics: typed, ended, with requests by route and no address of anybody in them', async () => {
  const tomas = await app.as('tomas');
  const { number } = (
    await tomas.call('POST', '/tickets', {
      ...{ serviceId: 'other', title: 'Counted' },
      answers: { site: 'Port Alder', what: 'Broken', impact: 'me', urgency: 'canWait' },
    })
  ).body as { number: number };
  await tomas.call('GET', `/tickets/${number}`);
  const response = await fetch(`${app.url}/metrics`);
  expect(response.headers.get('Content-Type')).toMatch(/^application\/openmetrics-text; version=1\.0\.0/);
  const text = await response.text();
  expect(text.endsWith('# EOF\n')).toBe(true);
  expect(text).toContain('# TYPE listo_request_seconds histogram');
  expect(text).toMatch(
    /listo_request_seconds_count\{.*route="\/api\/v1\/tickets\/:number".*status="200".*\} [1-9]/,
  );
  expect(text).not.toContain(String(number) + '"');
  expect(await measure('listo_database_up')).toBe(1);
});

test('measures are only for the addresses that may read them', async () => {
  const other = await app.another({ LISTO_METRICS_NETWORKS: '192.0.2.0/24' });
  expect((await fetch(`http://127.0.0.1:${other.port}/metrics`)).status).toBe(404);
});

test('a process that answers pages alone leaves the work to others; one that works answers no pages', async () => {
  const working = await app.another({ LISTO_ROLES: 'work' });
  expect((await fetch(`http://127.0.0.1:${working.port}/api/v1/session`)).status).toBe(404);
  expect((await fetch(`http://127.0.0.1:${working.port}/healthz`)).status).toBe(200);
});

test('what is done goes after its days, and what is not stays', async () => {
  const { keptAnswers, timers } = app.listo.db.tables;
  const now = app.listo.clock.now();
  const kept = (key: string, at: number) => ({
    ...{ personId: 'tomas', key, at, request: null },
    answer: { ok: true },
  });
  await keptAnswers.insertAll([kept('old', now - 3 * DAY), kept('new', now - DAY)]);
  // It is looked through once as soon as the application is there.
  await until(
    () => timers.find({ kind: 'clearAway' }),
    ([row]) => row !== undefined && row.at > now,
  );
  await timers.update({ kind: 'clearAway' }, { at: now - 1 });
  await until(
    () => keptAnswers.find({ personId: 'tomas', key: ['old', 'new'] }),
    (rows) => rows.length === 1 && rows[0]!.key === 'new',
  );
  const [next] = await timers.find({ kind: 'clearAway' });
  expect(next!.at).toBeGreaterThan(now);
});
