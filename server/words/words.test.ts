import type { Mentionable, Named } from '../../contract/words';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, lena, rui, hanna]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('words');
  [tomas, lena, rui, hanna] = await Promise.all(['tomas', 'lena', 'rui', 'hanna'].map(app.as));
});
afterAll(() => app.end());

async function create(title: string): Promise<number> {
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
  const { body } = await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title, answers });
  return (body as { number: number }).number;
}
const write = (by: Person, number: number, text: string, readBy = 'team') =>
  by.call('POST', `/tickets/${number}/messages`, { text, format: 'rich', readBy });
const toldOf = async (personId: string, number: number) => {
  const rows = await app.listo.db.tables.notifications.find({ personId, ticketNumber: number });
  return rows.map(({ event }) => event);
};
const mentionable = async (by: Person, number: number, q: string, readBy = 'team') =>
  (await by.call('GET', `/tickets/${number}/mentionable?q=${q}&readBy=${readBy}`)).body as Mentionable[];
const messagesOf = async (by: Person, number: number) =>
  (
    (await by.call('GET', `/tickets/${number}`)).body as {
      entries: { type: string; message: { id: string; text: string; format: string } | null }[];
    }
  ).entries;

test('who is called in a note is told so, once; who may not read it is not', async () => {
  const number = await create('Kiosk 3 frozen');
  await write(rui!, number, 'Have a look, @[Hanna Reis](person:hanna) and @[Tomás Veiga](person:tomas).');
  await until(
    () => toldOf('hanna', number),
    (events) => events.includes('mentioned'),
  );
  expect((await toldOf('hanna', number)).filter((event) => event === 'mentioned')).toHaveLength(1);
  expect(await toldOf('tomas', number)).not.toContain('mentioned');
});

test('a whole team is called, and everyone on the ticket hears an answer as called, not twice', async () => {
  const number = await create('Kiosk 4 frozen');
  await rui!.call('PUT', `/tickets/${number}/followers`, { personId: 'lena', role: 'alsoTold' });
  await write(rui!, number, 'All of you: @[everyone](everyone)', 'requester');
  await until(
    () => toldOf('lena', number),
    (events) => events.length > 0,
  );
  expect(await toldOf('lena', number)).toEqual(['mentioned']);
  expect(await toldOf('tomas', number)).toContain('mentioned');
  expect(await toldOf('tomas', number)).not.toContain('answered');
  await write(rui!, number, '@[Onboard systems](team:onboard) please');
  await until(
    () => toldOf('hanna', number),
    (events) => events.includes('mentioned'),
  );
});

test('only those who may read can be chosen, by the side that the words are for', async () => {
  const number = await create('Kiosk 5 frozen');
  const ids = (list: Mentionable[]) => list.map((each) => (each.kind === 'everyone' ? 'everyone' : each.id));
  expect(ids(await mentionable(rui!, number, 'tom'))).not.toContain('tomas');
  expect(ids(await mentionable(rui!, number, 'tom', 'requester'))).toContain('tomas');
  expect(ids(await mentionable(rui!, number, 'han'))).toContain('hanna');
  expect(ids(await mentionable(rui!, number, 'onb'))).toContain('onboard');
  // By any word of its name, in each language, from its beginning.
  expect(ids(await mentionable(rui!, number, 'systems'))).toContain('onboard');
  expect(ids(await mentionable(rui!, number, 'desk'))).toContain('desk');
  expect(ids(await mentionable(rui!, number, 'bordo'))).toContain('onboard');
  expect(ids(await mentionable(rui!, number, 'esk'))).not.toContain('desk');
  expect((await lena!.call('GET', `/tickets/${number}/mentionable?readBy=team`)).status).toBe(404);
});

test('a checklist is ticked off in place, by the team alone, and the journal says who', async () => {
  const number = await create('Kiosk 6 frozen');
  await write(rui!, number, 'First:\n- [ ] order\n- [ ] fit');
  const { id } = (await messagesOf(rui!, number)).find(({ message }) => message)!.message!;
  const check = (by: Person, body: object) =>
    by.call('POST', `/tickets/${number}/messages/${id}/checks`, body);
  expect((await check(rui!, { index: 1, text: 'fit', isDone: true })).status).toBe(200);
  expect((await check(rui!, { index: 0, text: 'another', isDone: true })).status).toBe(409);
  expect((await check(tomas!, { index: 0, text: 'order', isDone: true })).status).toBe(403);
  const entries = await messagesOf(hanna!, number);
  expect(entries.find(({ message }) => message)!.message).toMatchObject({
    text: 'First:\n- [ ] order\n- [x] fit',
    format: 'rich',
  });
  expect(entries.map(({ type }) => type)).toContain('ticked');
});

test('numbers are named only to those who may see the tickets', async () => {
  const number = await create('Kiosk 7 frozen');
  const named = async (by: Person) =>
    (await by.call('GET', `/named?numbers=${number},99999999`)).body as Named[];
  expect(await named(rui!)).toMatchObject([{ number, title: 'Kiosk 7 frozen', state: 'received' }]);
  expect(await named(lena!)).toEqual([]);
  expect((await rui!.call('GET', '/named?numbers=x')).status).toBe(422);
});
