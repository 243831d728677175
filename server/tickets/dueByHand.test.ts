import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** When someone says by hand when a ticket is due. */
let app: TestListo;
let [tomas, rui]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('due');
  [tomas, rui] = await Promise.all(['tomas', 'rui'].map(app.as));
});
afterAll(() => app.end());

type Due = { at: number; date: string | null; standing: string } | null;
type Page = { version: number; due: Due; entries: { type: string }[] };
const read = async (number: number): Promise<Page> => (await rui!.call('GET', `/tickets/${number}`)).body;

async function create(): Promise<number> {
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'person', urgency: 'canWait' };
  const { body } = await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title: 'Kiosk 3', answers });
  return (body as { number: number }).number;
}
async function change(number: number, facts: object) {
  const { version } = await read(number);
  return rui!.call('PATCH', `/tickets/${number}`, { version, ...facts });
}
async function move(number: number, name: string, input: object = {}, by = 'agent') {
  const { version } = await read(number);
  const person = by === 'agent' ? rui! : tomas!;
  expect((await person.call('POST', `/tickets/${number}/moves`, { name, by, version, input })).status).toBe(
    200,
  );
}

test('a bare date is due at its end where its holder is, and moves when the holder does', async () => {
  const number = await create();
  expect((await change(number, { due: { date: '2026-11-30' } })).status).toBe(200);
  const { due } = await read(number);
  expect(due).toMatchObject({ date: '2026-11-30', standing: 'toCome' });
  expect(new Date(due!.at).toISOString()).toBe('2026-12-01T00:00:00.000Z');
  await app.listo.db.tables.people.update({ id: 'hanna' }, { siteId: 'lorne' });
  const lorne = (await app.listo.db.tables.sites.findOne({ id: 'lorne' }))!;
  expect(lorne.timeZone).toBe('Atlantic/Azores');
  await move(number, 'give', { teamId: 'onboard', assigneeId: 'hanna' });
  await until(
    () => read(number),
    (page) => page.due?.at === Date.parse('2026-12-01T01:00:00Z'),
  );
});

test('past it the holder is told, once; finished after it is late, and reopened it is not finished', async () => {
  const number = await create();
  await move(number, 'take');
  const at = app.clock.now() + 3_600_000;
  expect((await change(number, { due: { at }, remindAt: at - 1_800_000 })).status).toBe(200);
  const told = async () =>
    (
      (await rui!.call('GET', '/notifications')).body as {
        notifications: { event: string; number: number }[];
      }
    ).notifications
      .filter((each) => each.number === number)
      .map(({ event }) => event);
  const timersOf = () =>
    app.listo.db.tables.timers.find({ ticketNumber: number, kind: ['remind', 'dueByHand'] } as never);
  await until(timersOf, (timers) => timers.length === 2);
  app.clock.pass(1_900_000);
  await until(told, (events) => events.includes('reminded'));
  app.clock.pass(1_900_000);
  await until(told, (events) => events.includes('late'));
  expect((await told()).filter((event) => event === 'late')).toHaveLength(1);
  await move(number, 'finish', { solution: 'Restarted.' });
  expect((await read(number)).due!.standing).toBe('late');
  await move(number, 'reopen', { stillBroken: 'Still frozen' }, 'requester');
  expect((await read(number)).due!.standing).toBe('past');
});

test('finished before it is in time; taken back, nothing is left of it', async () => {
  const number = await create();
  await change(number, { due: { at: app.clock.now() + 60_000 } });
  await move(number, 'finish', { solution: 'Done.' });
  expect((await read(number)).due!.standing).toBe('inTime');
  await move(number, 'reopen', { stillBroken: 'No' }, 'requester');
  await change(number, { due: null });
  expect((await read(number)).due).toBeNull();
  await until(
    () => app.listo.db.tables.timers.find({ ticketNumber: number, kind: 'dueByHand' }),
    (timers) => timers.length === 0,
  );
});

test.each([
  ['a date that does not exist', { due: { date: '2026-02-30' } }, 422],
  ['a reminder without a due instant', { remindAt: 9_999_999_999_999 }, 422],
  ['a reminder after it is due', { due: { at: 9_999_999_999_000 }, remindAt: 9_999_999_999_999 }, 422],
  ['a reminder in the past', { due: { at: 9_999_999_999_999 }, remindAt: 1 }, 422],
])('%s is refused', async (_name, facts, status) => {
  const number = await create();
  expect((await change(number, facts)).status).toBe(status);
});

test('the requester may not set it', async () => {
  const number = await create();
  const { status } = await tomas!.call('PATCH', `/tickets/${number}`, { version: 1, due: { at: 1 } });
  expect(status).toBe(403);
});

test('the list is ordered by it too', async () => {
  const number = await create();
  const at = app.clock.now() + 120_000;
  await change(number, { due: { at } });
  await until(
    () => app.listo.db.tables.tickets.findOne({ number }),
    (ticket) => ticket?.tightestDueAt === at,
  );
});
