import { startTestListo, type TestListo } from '../testing/harness';
import { freeLease, holdLease, LEASE_MS } from './lease';

/** One process at a time has a piece of work; the lease goes by the database's clock. */
let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('lease', { isEmpty: true });
});
afterAll(() => app.end());

const setUntil = (name: string, fromNowMs: number) =>
  app.listo.db.run(
    'UPDATE leases SET until = CAST(UNIX_TIMESTAMP(NOW(3)) * 1000 AS INT) + :fromNowMs WHERE name = :name',
    { name, fromNowMs },
  );

test('the first one has it, another does not, and gets it when it is given back', async () => {
  const { listo } = app;
  expect(await holdLease(listo, 'first', 'one')).toBe(true);
  expect(await holdLease(listo, 'first', 'two')).toBe(false);
  await freeLease(listo, 'first', 'two');
  expect(await holdLease(listo, 'first', 'two')).toBe(false);
  await freeLease(listo, 'first', 'one');
  expect(await holdLease(listo, 'first', 'two')).toBe(true);
});

test('of twelve that ask at once exactly one has it', async () => {
  const asked = await Promise.all(
    Array.from({ length: 12 }, (_, i) => holdLease(app.listo, 'crowd', `process ${i}`)),
  );
  expect(asked.filter(Boolean)).toHaveLength(1);
});

test('one that died loses it once its time is over', async () => {
  expect(await holdLease(app.listo, 'dead', 'one')).toBe(true);
  await setUntil('dead', -1);
  expect(await holdLease(app.listo, 'dead', 'two')).toBe(true);
});

test('one left by a clock that ran an hour ahead keeps nothing', async () => {
  expect(await holdLease(app.listo, 'ahead', 'one')).toBe(true);
  await setUntil('ahead', 3_600_000);
  expect(await holdLease(app.listo, 'ahead', 'two')).toBe(true);
});

test('the clock of a process moves no lease', async () => {
  app.clock.pass(-3_600_000);
  expect(await holdLease(app.listo, 'clock', 'one')).toBe(true);
  app.clock.pass(2 * 3_600_000);
  expect(await holdLease(app.listo, 'clock', 'two')).toBe(false);
  const [row] = await app.listo.db.select<{ left: number }>(
    "SELECT until - UNIX_TIMESTAMP(NOW(3)) * 1000 AS `left` FROM leases WHERE name = 'clock'",
  );
  expect(row!.left).toBeLessThanOrEqual(LEASE_MS);
});
