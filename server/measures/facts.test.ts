import type { BehindRow } from '../../contract/measures';
import { chartOf } from '../../core/measures';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';
import { askForFacts } from './facts';
import type { TicketFactRow } from './model';

/** What figures count of tickets: kept with the journal, and gathered anew from it with the same result. */
let app: TestListo;
let [tomas, rui, elin]: Person[] = [];
const HOUR = 3_600_000;

beforeAll(async () => {
  app = await startTestListo('facts');
  [tomas, rui, elin] = await Promise.all(['tomas', 'rui', 'elin'].map(app.as));
});
afterAll(() => app.end());

async function report(title: string): Promise<number> {
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
  const { body } = await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title, answers });
  return (body as { number: number }).number;
}
const versionOf = async (number: number): Promise<number> =>
  ((await rui!.call('GET', `/tickets/${number}`)).body as { version: number }).version;
async function move(number: number, name: string, input: object = {}): Promise<void> {
  const body = { version: await versionOf(number), name, by: 'agent', input };
  const { status, body: answer } = await rui!.call('POST', `/tickets/${number}/moves`, body);
  if (status !== 200) throw new Error(JSON.stringify(answer));
}
const factOf = (number: number): Promise<TicketFactRow | null> =>
  app.listo.db.tables.ticketFacts.findOne({ number });
const allFacts = (): Promise<TicketFactRow[]> =>
  app.listo.db.tables.ticketFacts.find({}, { order: ['number'] });
const gathered = (): Promise<unknown> =>
  until(
    () => app.listo.db.tables.timers.find({ kind: 'gatherFacts' }),
    (timers) => timers.length === 0,
  );

test('a ticket is counted as it comes, and as it moves', async () => {
  const number = await report('Kiosk 3 freezes');
  const fresh = await until(
    () => factOf(number),
    (fact) => fact !== null,
  );
  expect(fresh).toMatchObject({
    kind: 'incident',
    serviceId: 'kiosk',
    requesterId: 'tomas',
    done: null,
    teams: 1,
  });
  app.clock.pass(HOUR);
  await move(number, 'take');
  app.clock.pass(HOUR);
  await move(number, 'finish', { solution: 'Restarted it.' });
  const done = (await until(
    () => factOf(number),
    (fact) => fact?.done != null,
  ))!;
  expect(done).toMatchObject({ state: 'done', assigneeId: 'rui', isConfidential: false });
  // The clock goes on between two calls.
  expect(Math.floor(done.toDone! / HOUR)).toBe(2);
  expect(done.own + done.waited).toBe(done.workToDone);
});

test('gathered anew from the journal everything is the same, also while work goes on', async () => {
  const numbers = [await report('One'), await report('Two'), await report('Three')];
  await move(numbers[0]!, 'take');
  const before = await until(
    allFacts,
    (facts) =>
      facts.length === 4 &&
      facts.some(({ number, assigneeId }) => number === numbers[0] && assigneeId === 'rui'),
  );
  await app.listo.db.run('DELETE FROM ticket_facts');
  await app.listo.db.transaction((tx) => askForFacts({ listo: app.listo, tx }));
  app.listo.wake();
  await gathered();
  expect(await allFacts()).toEqual(before);
});

test('what rests on fewer entries does not write over what rests on more', async () => {
  const number = await report('Four');
  const known = (await until(
    () => factOf(number),
    (fact) => fact !== null,
  ))!;
  await app.listo.db.tables.ticketFacts.update({ number }, { upTo: known.upTo + 1_000, rating: 5 });
  await app.listo.db.transaction((tx) => askForFacts({ listo: app.listo, tx }));
  await gathered();
  expect(await factOf(number)).toMatchObject({ rating: 5 });
});

test('a ticket that has gone where it is in confidence is not named, also before its fact has followed', async () => {
  const number = await report('Five');
  await until(
    () => factOf(number),
    (fact) => fact !== null,
  );
  const chart = { ...chartOf('tickets', 'number'), id: 'c' };
  const asked = { chart, stretch: { last: 1, unit: 'week' }, beside: [], chosen: {} };
  const latest = async (by: Person) =>
    ((await by.call('POST', '/measures/behind', asked)).body as { rows: BehindRow[] }).rows[0];
  expect(await latest(elin!)).toMatchObject({ number, title: 'Five', person: 'Tomás Veiga' });
  await app.listo.db.run("UPDATE tickets SET isConfidential = 1, teamId = 'people' WHERE number = :number", {
    number,
  });
  expect(await latest(elin!)).toMatchObject({ number: null, title: '', person: '' });
  expect(await latest(await app.as('sofia'))).toMatchObject({ number, title: 'Five' });
});

test('only who sets up may have all gathered anew', async () => {
  expect((await elin!.call('POST', '/measures/gathering')).status).toBe(403);
  expect((await (await app.as('helder')).call('POST', '/measures/gathering')).status).toBe(200);
  await gathered();
});
