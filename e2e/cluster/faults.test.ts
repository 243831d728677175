import { nanoid } from 'nanoid';
import { setTimeout as delay } from 'node:timers/promises';
import { until, type Person, type TestListo } from '../../server/testing/harness';
import { startNodes, startOnEach } from './harness';

/** Nodes that are killed, cut off or all gone: what was acknowledged is there once. How long one waits is measured by the load. */
let nodes: Awaited<ReturnType<typeof startNodes>>;
let app: TestListo;
let people: Person[];
beforeAll(async () => {
  nodes = await startNodes();
  const started = await startOnEach(nodes, 'faults');
  app = started.app;
  people = await Promise.all(started.processes.map(({ port }) => app.asAt(port, 'tomas')));
});
afterAll(async () => {
  await app.end();
  await nodes.end();
});

type Ledger = { acknowledged: string[] };

/** Asks for things, through each process in turn, until told to stop; each is asked again under its key until it is taken. */
async function askUntil(isOver: () => boolean): Promise<Ledger> {
  const ledger: Ledger = { acknowledged: [] };
  const one = async (person: Person): Promise<void> => {
    while (!isOver()) {
      const title = `Ledger ${nanoid()}`;
      for (;;) {
        const { status } = await person.call(
          'POST',
          '/tickets',
          {
            serviceId: 'other',
            title,
            answers: { site: 'Port Alder', what: 'Broken', impact: 'me', urgency: 'canWait' },
          },
          { 'Idempotency-Key': title.replace(' ', '-') },
        );
        if (status === 200) break;
        await delay(100);
      }
      ledger.acknowledged.push(title);
      await delay(20);
    }
  };
  await Promise.all(people.map(one));
  return ledger;
}

/** What is there of what was acknowledged: each once, each with its consequences once. */
async function settle({ acknowledged }: Ledger): Promise<{ lost: number; doubled: number; undone: number }> {
  const { select } = app.listo.db;
  const count = async (sql: string): Promise<number> =>
    (await select<{ n: number }>(sql, { titles: acknowledged }))[0]!.n;
  const distinct = await count('SELECT COUNT(DISTINCT title) AS n FROM tickets WHERE title IN (:titles)');
  const all = await count('SELECT COUNT(*) AS n FROM tickets WHERE title IN (:titles)');
  // Its clocks are read by a consumer: each ticket has them, and each entry is handed out once.
  const undone = await until(
    () =>
      count(
        `SELECT COUNT(*) AS n FROM tickets t WHERE title IN (:titles)
           AND NOT EXISTS (SELECT 1 FROM clocks c WHERE c.ticketNumber = t.number)`,
      ),
    (seen) => seen === 0,
  );
  // An entry that was handed out twice would have been followed twice.
  const twice = await count(
    `SELECT COUNT(*) AS n FROM (SELECT position FROM journal WHERE position IS NOT NULL
       GROUP BY position HAVING COUNT(*) > 1) doubled`,
  );
  return { lost: acknowledged.length - distinct, doubled: all - distinct + twice, undone };
}

const WHOLE = { lost: 0, doubled: 0, undone: 0 };

async function during(fault: () => Promise<void>): Promise<Ledger> {
  let isOver = false;
  const asking = askUntil(() => isOver);
  await delay(500);
  await fault();
  await delay(500);
  isOver = true;
  return asking;
}

test('a node that is killed and comes back costs nothing that was acknowledged', async () => {
  const ledger = await during(async () => {
    nodes.kill(1);
    await delay(4_000);
    await nodes.start(1);
  });
  expect(ledger.acknowledged.length).toBeGreaterThan(20);
  expect(await settle(ledger)).toEqual(WHOLE);
});

test('a node that is cut off from the others is left, and takes part again afterwards', async () => {
  const ledger = await during(async () => {
    nodes.hold(2);
    await delay(8_000);
    nodes.release(2);
    await until(
      () => nodes.ask(),
      (all) => all.every((node) => (node as { isReady?: boolean }).isReady),
    );
  });
  expect(ledger.acknowledged.length).toBeGreaterThan(20);
  expect(await settle(ledger)).toEqual(WHOLE);
});

test('with two of three nodes gone one is told to come again, and what was done before is there when they are back', async () => {
  const before = await during(() => delay(500));
  nodes.kill(2);
  nodes.kill(3);
  const refused = await until(
    async () => (await people[0]!.call('GET', '/my/tickets')).status,
    (status) => status === 503,
  );
  expect(refused).toBe(503);
  const { status, body } = await people[1]!.call('POST', '/tickets', {
    ...{ serviceId: 'other', title: 'Too early' },
    answers: { site: 'Port Alder', what: 'Broken', impact: 'me', urgency: 'canWait' },
  });
  expect([status, (body as { type: string }).type]).toEqual([503, expect.stringMatching(/notReady/)]);
  nodes.kill(1);
  await nodes.start(1, { isFirst: true });
  await nodes.start(2);
  await nodes.start(3);
  await until(
    async () => (await people[1]!.call('GET', '/my/tickets')).status,
    (each) => each === 200,
  );
  expect(await settle(before)).toEqual(WHOLE);
});
