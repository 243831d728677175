import type { CalendarSpec } from '../../core/calendar';
import { placeEntries } from '../journal/sequencer';
import { askForRecount } from './askForRecount';
import { askThread, endThread } from '../recounts/askThread';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';
import { settleClocks } from './consumer';
import { giveNotices } from './notices';
import { toNoticeRef } from './settle';

/** Clocks that are read anew while something else happens to them. */
let app: TestListo;
let tomas: Person;
beforeAll(async () => {
  app = await startTestListo('clocks');
  tomas = await app.as('tomas');
});
afterAll(() => app.end());

async function create(): Promise<number> {
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' };
  const { body } = await tomas.call('POST', '/tickets', { serviceId: 'kiosk', title: 'Kiosk 3', answers });
  return (body as { number: number }).number;
}
const clockOf = (ticketNumber: number, targetId: string) =>
  app.listo.db.tables.clocks.find({ ticketNumber, targetId }).then(([clock]) => clock ?? null);
/** Waits until a statement is there that cannot be done yet. */
async function untilHeldUp(statement: string): Promise<void> {
  await until(
    () =>
      app.listo.db.select(
        'SELECT id FROM information_schema.processlist WHERE db = DATABASE() AND info LIKE :statement AND time_ms > 50',
        { statement },
      ),
    (waiting) => waiting.length > 0,
  );
}

test('a notice that is given while its clock is read anew is given once', async () => {
  const { listo } = app;
  const number = await create();
  const clock = await until(
    () => clockOf(number, 'resolution'),
    (row) => row?.state === 'running',
  );
  const [what, at] = clock!.owed[0]!;
  const ref = toNoticeRef('ticket', { targetId: 'resolution', what }, at);
  // So that there is something to write.
  await listo.db.tables.clocks.update({ ticketNumber: number, targetId: 'resolution' }, { dueAt: 1 });
  let reading: Promise<number> | undefined;
  await listo.db.transaction(async (giving) => {
    await giveNotices(listo, [{ kind: 'notice', ticketNumber: number, ref, at }], giving);
    reading = listo.db.transaction((tx) => settleClocks({ listo, tx }, [number]));
    await untilHeldUp('INSERT INTO clocks%');
  });
  await reading;
  const settled = await clockOf(number, 'resolution');
  expect(settled).toMatchObject({ dueAt: clock!.dueAt, fired: [ref] });
  app.clock.set(at + 1_000);
  await until(
    () => clockOf(number, 'resolution'),
    (row) => row!.owed.every(([, instant]) => instant > at),
  );
  const given = await listo.db.tables.journal.find({ ticketNumber: number });
  expect(given.filter(({ type, data }) => type === 'warned' && data.targetId === 'resolution')).toHaveLength(
    1,
  );
});

test('what happens while all clocks are read anew does not wait for its end', async () => {
  const { db } = app.listo;
  let number = 0;
  await db.transaction(async (tx) => {
    // Nobody comes to the clocks meanwhile.
    await db.select("SELECT position FROM consumers WHERE name = 'clocks' FOR UPDATE", {}, tx);
    number = await create();
    await placeEntries(db);
    await db.transaction((asking) => askForRecount({ listo: app.listo, tx: asking }, 'test', ['decision']));
    await untilHeldUp("SELECT position FROM consumers WHERE name = 'clocks' FOR UPDATE");
  });
  await until(
    () => db.tables.recounts.findOne({ why: 'test' }),
    (recount) => recount!.finishedAt !== null,
  );
  expect((await clockOf(number, 'resolution'))?.state).toBe('running');
});

test('the thread goes on after a fault, and begins anew after its end', async () => {
  const { spec } = (await app.listo.db.tables.calendars.findOne({ id: 'terminals' }))!;
  const teams = [{ teamId: 'onboard', role: 'agent' as const }];
  const viewer = { id: 'rui', isAdministrator: false, mayAskForOthers: false, teams };
  const look = (terminals: CalendarSpec) =>
    askThread(app.listo, { viewer, change: { calendars: { terminals } } });
  const faulty: CalendarSpec = { ...spec, timeZone: 'Nowhere/At_All' };
  await expect(look(faulty)).rejects.toThrow('Nowhere/At_All');
  const effect = await look(spec);
  expect(effect).toMatchObject({ moved: 0, late: 0 });
  await endThread(app.listo);
  expect(await look(spec)).toEqual(effect);
});
