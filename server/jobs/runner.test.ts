import { append } from '../journal/append';
import { startTestListo, until, type TestListo } from '../testing/harness';
import { JobRunner } from './runner';

let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('jobs');
});
afterAll(() => app.end());

class Waiting extends JobRunner<{ id: string; leaseUntil: number }> {
  wait = (): Promise<void> => this.untilFollowed();
  protected workOff = (): Promise<void> => Promise.resolve();
}

test('a job waits for what follows from the journal: others do not wait until all of it has had its turn', async () => {
  const { db } = app.listo;
  const runner = new Waiting(app.listo, 'bulk_jobs', 1_000);
  const position = async (name: string): Promise<number> =>
    (await db.tables.consumers.findOne({ name }))!.position;
  await runner.wait();
  // Telling is held up; all else goes on.
  const held = await db.sequelize.transaction();
  await db.select("SELECT position FROM consumers WHERE name = 'telling' FOR UPDATE", {}, held);
  const before = await position('clocks');
  const entry = { actorId: null, via: 'rule' as const, ticketNumber: null, audience: 'team' as const };
  await db.transaction(async (tx) => {
    for (let i = 0; i < 450; i++) await append({ listo: app.listo, tx }, { ...entry, type: 'chatSet' });
  });
  app.listo.wake();
  await until(
    () => position('clocks'),
    (now) => now >= before + 450,
  );
  let isReleased = false;
  const waited = runner.wait().then(() => isReleased);
  await until(
    () => position('sequencer'),
    (now) => now >= before + 450,
  );
  isReleased = true;
  await held.rollback();
  expect(await waited).toBe(true);
});
