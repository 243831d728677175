import type { Ask } from '../../contract/approvals';
import type { Ticket } from '../../contract/tickets';
import { migrate } from '../../server/database/migrate';
import { openDatabase } from '../../server/openDatabase';
import { createDatabase } from '../../server/testing/createDatabase';
import { until, type Person, type TestListo } from '../../server/testing/harness';
import { addressOf, startNodes, startOnEach } from './harness';

/** What two do at the same moment through two processes, each on its own node, counts once and is not lost. */
let nodes: Awaited<ReturnType<typeof startNodes>>;
let app: TestListo;
let ports: number[];
/** The same person's session at each of the processes. */
const everywhere = (personId: string): Promise<Person[]> =>
  Promise.all(ports.map((port) => app.asAt(port, personId)));

beforeAll(async () => {
  nodes = await startNodes();
});
afterAll(async () => {
  await app.end();
  await nodes.end();
});

test('three processes that bring one empty database up to date at once, each on its node, all do', async () => {
  await createDatabase(nodes.urlFrom(1), 'at_once');
  const all = [1, 2, 3].map((node) => openDatabase(addressOf(nodes, node, 'at_once')));
  await Promise.all(all.map((db) => migrate(db.sequelize)));
  const counts = await Promise.all(
    all.map((db) => db.select<{ steps: number }>('SELECT COUNT(*) AS steps FROM SequelizeMeta')),
  );
  expect(new Set(counts.map(([row]) => row!.steps)).size).toBe(1);
  expect(counts[0]![0]!.steps).toBeGreaterThan(39);
  for (const db of all) await db.close();
});

describe('two processes on two nodes', () => {
  beforeAll(async () => {
    const started = await startOnEach(nodes, 'races');
    app = started.app;
    ports = started.processes.map(({ port }) => port);
    const step = {
      ...{ name: { en: 'Both agree', pt: 'Ambos concordam' }, refs: [{ person: 'ana' }, { person: 'ines' }] },
      ...{ needs: { kind: 'all' }, declineBy: 'any' },
    } as const;
    await app.listo.db.tables.services.update({ id: 'gate-scanner' }, { approvals: [step] as never });
  });

  test('two last votes given at once let the request go ahead, each time', async () => {
    const tomas = await app.as('tomas');
    const [anas, ineses] = await Promise.all([everywhere('ana'), everywhere('ines')]);
    const numbers: number[] = [];
    for (let i = 0; i < 12; i++) {
      const body = {
        ...{ serviceId: 'gate-scanner', title: `Scanner ${i}` },
        answers: { site: 'Port Alder', sort: 'hand', count: 1 },
      };
      const { body: made } = await tomas.call('POST', '/tickets', body);
      numbers.push((made as { number: number }).number);
    }
    const asksOf = async (by: Person): Promise<Ask[]> => (await by.call('GET', '/my/asks')).body as Ask[];
    const [ofAna, ofInes] = [await asksOf(anas[1]!), await asksOf(ineses[2]!)];
    const yes = { decision: 'approve', words: '' };
    const statuses: number[] = [];
    for (const number of numbers) {
      const find = (asks: Ask[]): string => asks.find((ask) => ask.number === number)!.id;
      const both = await Promise.all([
        anas[1]!.call('POST', `/asks/${find(ofAna)}/decision`, yes),
        ineses[2]!.call('POST', `/asks/${find(ofInes)}/decision`, yes),
      ]);
      statuses.push(...both.map(({ status }) => status));
    }
    expect(new Set(statuses)).toEqual(new Set([200]));
    const states = await until(
      () =>
        Promise.all(
          numbers.map(
            async (number) => ((await tomas.call('GET', `/tickets/${number}`)).body as Ticket).state,
          ),
        ),
      (seen) => seen.every((state) => state !== 'held'),
    );
    expect(new Set(states)).toEqual(new Set(['received']));
  });

  test('the same absence said twice at once stands once', async () => {
    const ana = await everywhere('ana');
    const now = app.clock.now();
    const at = (days: number): number => now + days * 86_400_000;
    for (let i = 0; i < 10; i++) {
      const body = { fromAt: at(10 + 2 * i), toAt: at(11 + 2 * i), delegateId: null };
      await Promise.all(ana.map((each) => each.call('POST', '/my/absences', body)));
    }
    const { body: kept } = await ana[0]!.call('GET', '/my/absences');
    expect(kept as unknown[]).toHaveLength(10);
  });

  test('a conversation begun on three nodes at once is one', async () => {
    const ines = await everywhere('ines');
    const body = { lineId: 'gates', words: 'The gate is closed', from: '' };
    await Promise.all(ines.map((each) => each.call('POST', '/conversations', body)));
    const [row] = await app.listo.db.select<{ count: number }>(
      "SELECT COUNT(*) AS count FROM conversations WHERE personId = 'ines'",
    );
    expect(row!.count).toBe(1);
  });

  test('what one process wrote is read at once through another', async () => {
    const tomas = await everywhere('tomas');
    const missed: number[] = [];
    for (let i = 0; i < 20; i++) {
      const body = {
        serviceId: 'gate-scanner',
        title: `Read ${i}`,
        answers: { site: 'Port Alder', sort: 'hand', count: 1 },
      };
      const { number } = (await tomas[i % 3]!.call('POST', '/tickets', body)).body as { number: number };
      const { status } = await tomas[(i + 1) % 3]!.call('GET', `/tickets/${number}`);
      if (status !== 200) missed.push(number);
    }
    expect(missed).toEqual([]);
  });
});
