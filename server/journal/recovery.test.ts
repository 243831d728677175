import { decide } from '../approvals/decide';
import { readConfig } from '../config';
import { createListo } from '../createListo';
import { startListo, type RunningListo } from '../process';
import { startTestListo, until } from '../testing/harness';

test('a process that dies between commit and consumers: what follows still follows, once', async () => {
  const app = await startTestListo('recovery');
  const tomas = await app.as('tomas');
  const request = {
    serviceId: 'gate-scanner',
    title: 'Scanner',
    answers: { site: 'x', sort: 'hand', count: 1 },
  };
  const { number } = (await tomas.call('POST', '/tickets', request)).body as { number: number };
  await app.end();

  // The decision commits in a process that then does nothing more.
  const settings = {
    DATABASE_URL: app.databaseUrl,
    PORT: '0',
    LOG_LEVEL: 'fatal',
    LISTO_DATA_DIR: app.dataDir,
  };
  const config = readConfig(settings);
  const dying = createListo(config, { clock: app.clock });
  const ask = (await dying.db.tables.asks.findOne({ ticketNumber: number }))!;
  await decide(
    dying,
    { personId: 'ana', actor: { id: 'ana' } },
    { askId: ask.id, decision: { decision: 'approve', words: '' } },
  );
  expect((await dying.db.tables.tickets.findOne({ number }))!.state).toBe('held');
  await dying.db.close();

  const processes: RunningListo[] = await Promise.all([1, 2].map(() => startListo(config, null, app.clock)));
  const { tables } = processes[0]!.listo.db;
  await until(
    () => tables.tickets.findOne({ number }),
    (ticket) => ticket?.state === 'received',
  );
  await until(
    () => tables.notifications.find({ ticketNumber: number, event: 'decided', personId: 'tomas' }),
    (told) => told.length > 0,
  );
  expect(await tables.journal.find({ ticketNumber: number, type: 'granted' })).toHaveLength(1);
  expect(
    await tables.notifications.find({ ticketNumber: number, event: 'decided', personId: 'tomas' }),
  ).toHaveLength(1);
  for (const each of processes) await each.stop();
});
