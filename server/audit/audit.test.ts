import type { RecordView, SealView, TicketAsItWas } from '../../contract/records';
import type { Ticket } from '../../contract/tickets';
import { KIOSK } from '../testing/chat';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';
import { sealNow } from './seals';

/** What was done by anyone: found, taken out, sealed so that a change of the past shows, and a ticket as it was. */
let app: TestListo;
let [helder, tomas, rui, lena]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('audit');
  [helder, tomas, rui, lena] = await Promise.all(['helder', 'tomas', 'rui', 'lena'].map(app.as));
});
afterAll(() => app.end());

const HOUR_MS = 3_600_000;
const list = async (query = ''): Promise<RecordView[]> => {
  const { body } = await helder!.call('GET', `/records${query}`);
  return (body as { rows: RecordView[] }).rows;
};
const report = async (title: string): Promise<number> =>
  (
    (await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title, answers: KIOSK })).body as {
      number: number;
    }
  ).number;
const versionOf = async (number: number): Promise<number> =>
  ((await rui!.call('GET', `/tickets/${number}`)).body as Ticket).version;
async function move(number: number, name: string, input: object = {}): Promise<void> {
  const version = await versionOf(number);
  const { status } = await rui!.call('POST', `/tickets/${number}/moves`, {
    name,
    by: 'agent',
    version,
    input,
  });
  expect(status).toBe(200);
}
/** What is committed has its place in the order. */
const placed = () =>
  until(
    () =>
      app.listo.db.select<{ count: number }>('SELECT COUNT(*) AS count FROM journal WHERE position IS NULL'),
    ([row]) => row!.count === 0,
  );
async function seal() {
  await placed();
  return app.listo.db.transaction((tx) => sealNow(app.listo, tx));
}
const check = async (id: number) =>
  (await helder!.call('POST', `/records/seals/${id}/checks`)).body as { holds: boolean; isLinked: boolean };
const seals = async (): Promise<SealView[]> =>
  (await helder!.call('GET', '/records/seals')).body as SealView[];

test('only administrators read the record', async () => {
  for (const path of ['/records', '/records/out', '/records/seals'])
    expect((await rui!.call('GET', path)).status).toBe(403);
});

test('who came in, who was refused and who went is there, with the address', async () => {
  const json = { 'Content-Type': 'application/json' };
  const body = JSON.stringify({ email: 'tomas@solvarra.example', password: 'guessed' });
  await fetch(`${app.url}/api/v1/session`, { method: 'POST', headers: json, body });
  const marta = await app.as('marta');
  await marta.call('DELETE', '/session');
  const kinds = (await list('?only=access')).map(({ kind }) => kind);
  expect(kinds.slice(0, 3)).toEqual(['signedOut', 'signedIn', 'signInFailed']);
  const [, signedIn] = await list('?only=access');
  expect(signedIn).toMatchObject({ actor: { id: 'marta' }, about: { id: 'marta' } });
  expect(String(signedIn!.data.address)).toMatch(/127\.0\.0\.1|::1/);
});

test('it is narrowed by person, kind, ticket and time, and goes on where a page ended', async () => {
  const number = await report('Kiosk 3 is dark');
  await move(number, 'take');
  expect((await list(`?ticket=${number}`)).map(({ kind }) => kind)).toEqual(
    expect.arrayContaining(['sent', 'taken']),
  );
  expect((await list(`?ticket=${number}&kind=taken`)).map(({ actor }) => actor?.id)).toEqual(['rui']);
  expect(
    (await list('?person=rui')).every(({ actor, about }) => actor?.id === 'rui' || about?.id === 'rui'),
  ).toBe(true);
  const later = app.clock.now() + HOUR_MS;
  expect(await list(`?from=${later}`)).toEqual([]);
  const [first] = await list();
  const older = await list(`?before=${first!.id}`);
  expect(older[0]!.id).toBeLessThan(first!.id);
});

test('what happened to a ticket in confidence is not there for who may not read it; who looked at it is', async () => {
  const letter = { serviceId: 'letter', title: 'zqx', answers: { about: 'salary', language: 'en' } };
  const { number } = (await lena!.call('POST', '/tickets', letter)).body as { number: number };
  const sofia = await app.as('sofia');
  await sofia.call('GET', `/tickets/${number}`);
  await sofia.call('GET', `/tickets/${number}`);
  await lena!.call('GET', `/tickets/${number}`);
  expect(await list(`?ticket=${number}`)).toEqual([]);
  const looks = (await list('?kind=confidentialRead')).filter(({ data }) => data.number === number);
  expect(looks.map(({ actor }) => actor?.id)).toEqual(['sofia']);
});

test('it goes out as JSON lines and as a table, and that is on record too', async () => {
  const { body, status } = await helder!.call('GET', '/records/out?kind=taken');
  expect(status).toBe(200);
  const lines = (body as string)
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as { type: string; id: number });
  expect(lines.length).toBeGreaterThan(0);
  expect(lines.every(({ type }) => type === 'taken')).toBe(true);
  const csv = (await helder!.call('GET', '/records/out?kind=taken&format=csv')).body as string;
  expect(csv.split('\r\n')[0]).toContain('id,at,kind');
  expect(csv.trim().split('\r\n')).toHaveLength(lines.length + 1);
  expect((await list('?kind=exported'))[0]).toMatchObject({
    actor: { id: 'helder' },
    data: { what: 'records' },
  });
  expect((await helder!.call('GET', '/records/out?colour=red')).status).toBe(400);
});

test('a seal holds as long as nobody touches what it covers; a change, a loss or an exchange of the past shows', async () => {
  await report('Before the seal');
  await seal();
  await report('After the first seal');
  await seal();
  const [second, first] = await seals();
  for (const { id } of [first!, second!]) expect(await check(id)).toEqual({ holds: true, isLinked: true });
  expect(second!.firstPosition).toBe(first!.lastPosition + 1);
  expect(await seal()).toBeNull();
  const [entry] = await app.listo.db.select<{ id: number; data: string; actorId: string }>(
    'SELECT id, data, actorId FROM journal WHERE position = :position',
    { position: first!.lastPosition },
  );
  // The database itself refuses this; whoever rules over it can lift that.
  await app.listo.db.run('DROP TRIGGER journal_is_never_rewritten');
  const put = (set: string) =>
    app.listo.db.run(`UPDATE journal SET ${set} WHERE id = :id`, { id: entry!.id });
  await put("actorId = 'somebody'");
  expect((await check(first!.id)).holds).toBe(false);
  expect((await check(second!.id)).holds).toBe(true);
  await app.listo.db.run('UPDATE journal SET actorId = :actorId WHERE id = :id', { ...entry! });
  expect((await check(first!.id)).holds).toBe(true);
  await put('position = 999999999');
  expect((await check(first!.id)).holds).toBe(false);
  await app.listo.db.run('UPDATE journal SET position = :position WHERE id = :id', {
    ...{ id: entry!.id, position: first!.lastPosition },
  });
  await app.listo.db.run('UPDATE audit_seals SET hash = :hash WHERE id = :id', {
    id: first!.id,
    hash: 'f'.repeat(64),
  });
  expect(await check(first!.id)).toEqual({ holds: false, isLinked: true });
  expect((await check(second!.id)).isLinked).toBe(false);
});

test('a ticket as it was: its fields then, what was said by then, and what has changed since', async () => {
  const number = await report('The gate is stuck');
  app.clock.pass(HOUR_MS);
  await move(number, 'take');
  app.clock.pass(HOUR_MS);
  const then = app.clock.now();
  app.clock.pass(HOUR_MS);
  await move(number, 'finish', { solution: 'Oiled it.' });
  const { status, body } = await rui!.call('GET', `/records/tickets/${number}?at=${then}`);
  expect(status).toBe(200);
  const was = body as TicketAsItWas;
  expect(was.then).toMatchObject({
    title: 'The gate is stuck',
    state: 'inWork',
    assigneeId: expect.stringMatching(/^Rui/),
  });
  expect(was.since.state).toEqual({ then: 'inWork', now: 'done' });
  const [earlier, later] = [false, true].map((isLater) =>
    was.entries.filter((entry) => entry.isLater === isLater).map(({ kind }) => kind),
  );
  expect(earlier).toEqual(expect.arrayContaining(['sent', 'taken']));
  expect(later).toContain('done');
  expect((await rui!.call('GET', `/records/tickets/${number}?at=5`)).status).toBe(404);
  expect((await lena!.call('GET', `/records/tickets/${number}?at=${then}`)).status).toBe(404);
  // The requester reads their own ticket as it was, without what the team said among itself.
  const own = (await tomas!.call('GET', `/records/tickets/${number}?at=${then}`)).body as TicketAsItWas;
  expect(own.entries.every(({ kind }) => kind !== 'noted')).toBe(true);
});

test('each night what the day added is sealed by itself', async () => {
  for (let night = 0; night < 2; night++) {
    // A night that finds nothing new makes no seal: what it is to find is there before it comes.
    await report('Of this day');
    await placed();
    const before = (await seals()).length;
    app.clock.pass(24 * HOUR_MS);
    await until(seals, (all) => all.length > before);
  }
  const [last, before] = await seals();
  expect(last!.firstPosition).toBe(before!.lastPosition + 1);
});
