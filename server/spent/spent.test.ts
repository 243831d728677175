import type { SpentEntry } from '../../contract/spent';
import { startTestListo, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, rui, hanna, sofia]: Person[] = [];
let [one, two]: number[] = [];
beforeAll(async () => {
  app = await startTestListo('spent');
  [tomas, rui, hanna, sofia] = await Promise.all(['tomas', 'rui', 'hanna', 'sofia'].map(app.as));
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
  const create = async (title: string) =>
    (
      (await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title, answers })).body as {
        number: number;
      }
    ).number;
  [one, two] = [await create('One'), await create('Two')];
});
afterAll(() => app.end());

const MINUTE = 60_000;
type Spent = { entries: SpentEntry[]; minutes: number; estimate: number | null };
const read = async (number: number): Promise<Spent> =>
  (await rui!.call('GET', `/tickets/${number}/time`)).body;
const timer = async (by: Person) =>
  ((await by.call('GET', '/my/timer')).body as { timer: { number: number; isLeftOn: boolean } | null }).timer;
const codes = ({ body }: { body: never }) =>
  (body as { fields: { code: string }[] }).fields.map(({ code }) => code);

test('one timer at a time; starting another stops it and keeps what it says', async () => {
  expect((await rui!.call('POST', `/tickets/${one}/timer`, {})).status).toBe(200);
  app.clock.pass(25 * MINUTE);
  expect(await timer(rui!)).toMatchObject({ number: one, isLeftOn: false });
  expect((await rui!.call('POST', `/tickets/${two}/timer`, {})).body).toMatchObject({ stopped: one });
  expect(await read(one!)).toMatchObject({
    minutes: 26,
    entries: [{ minutes: 26, isByHand: false, isMine: true }],
  });
  app.clock.pass(4 * MINUTE);
  const stop = { category: 'talking', note: 'Called the terminal' };
  expect((await rui!.call('POST', '/my/timer/stop', stop)).body).toMatchObject({ minutes: 5 });
  expect(await timer(rui!)).toBeNull();
  expect((await rui!.call('POST', '/my/timer/stop', stop)).status).toBe(409);
  expect((await read(two!)).entries[0]).toMatchObject({ category: 'talking', note: 'Called the terminal' });
  expect((await tomas!.call('POST', `/tickets/${one}/timer`, {})).status).toBe(403);
});

test('a timer left on over the weekend is not believed: its person says how long it was', async () => {
  await hanna!.call('POST', `/tickets/${one}/timer`, {});
  app.clock.pass(63 * 60 * MINUTE);
  expect(await timer(hanna!)).toMatchObject({ isLeftOn: true });
  expect(codes(await hanna!.call('POST', '/my/timer/stop', {}))).toEqual(['leftOn']);
  expect(codes(await hanna!.call('POST', `/tickets/${two}/timer`, {}))).toEqual(['leftOn']);
  expect((await hanna!.call('POST', '/my/timer/stop', { minutes: 40 })).body).toEqual({ minutes: 40 });
  expect((await read(one!)).entries.at(-1)).toMatchObject({ minutes: 40, isByHand: true });
});

test('by hand it is marked; changed and removed by whom it belongs to; estimated; summed as one may see', async () => {
  const now = app.clock.now();
  const written = {
    minutes: 90,
    startedAt: now - 120 * MINUTE,
    category: 'travelling',
    note: 'Quell Harbour',
  };
  expect(codes(await rui!.call('POST', `/tickets/${two}/time`, { ...written, minutes: 500 }))).toEqual([
    'notPossible',
  ]);
  const { id } = (await rui!.call('POST', `/tickets/${two}/time`, written)).body as { id: string };
  expect((await hanna!.call('PATCH', `/time/${id}`, { ...written, minutes: 1 })).status).toBe(404);
  expect((await rui!.call('PATCH', `/time/${id}`, { ...written, minutes: 60 })).status).toBe(200);
  await rui!.call('PUT', `/tickets/${two}/estimate`, { minutes: 45 });
  expect(await read(two!)).toMatchObject({ minutes: 65, estimate: 45 });
  const sums = async (by: Person, what: string) =>
    (await by.call('GET', `/time/sums?by=${what}&from=${now - 9e9}&to=${now + 9e9}`)).body as {
      key: string;
      minutes: number;
      byHand: number;
      name: { pt: string };
    }[];
  expect(await sums(rui!, 'person')).toMatchObject([
    { key: 'rui', minutes: 91, byHand: 60 },
    { key: 'hanna', minutes: 40, byHand: 40 },
  ]);
  expect((await sums(rui!, 'service'))[0]).toMatchObject({ key: 'kiosk', minutes: 131 });
  for (const by of ['costCentre', 'ticket', 'category'])
    expect((await sums(rui!, by)).reduce((sum, { minutes }) => sum + minutes, 0)).toBe(131);
  expect(await sums(sofia!, 'person')).toEqual([]);
  expect((await tomas!.call('GET', `/time/sums?by=person&from=0&to=1`)).status).toBe(403);
  expect((await rui!.call('DELETE', `/time/${id}`)).status).toBe(200);
  expect((await read(two!)).minutes).toBe(5);
});
