import type { Service, ServiceCard } from '../../contract/catalogue';
import type { EditedService } from '../../contract/services';
import { startTestListo, type Person, type TestListo } from '../testing/harness';
import { forgetCatalogue } from './services';

/** A service that is open for a time and for so many: signing up for a day of first aid. */
let app: TestListo;
let [hanna, bia, tomas, lena]: Person[] = [];
const OPENS = Date.parse('2026-11-25T09:00:00Z');
const CLOSES = Date.parse('2026-11-27T17:00:00Z');
const HOUR = 3_600_000;
beforeAll(async () => {
  app = await startTestListo('opening', { startsAt: OPENS - HOUR });
  [hanna, bia, tomas, lena] = await Promise.all(['hanna', 'bia', 'tomas', 'lena'].map(app.as));
});
afterAll(() => app.end());

const thanks = { en: 'See you on the quay!', pt: 'Até breve, no cais!' };
const send = (by: Person, more: object = {}): Promise<{ status: number; body: unknown }> =>
  by.call('POST', '/tickets', { serviceId: 'first-aid', title: 'A place', answers: {}, ...more });
const read = async (by = tomas!): Promise<Service> =>
  (await by.call('GET', '/services/first-aid')).body as Service;
const isListed = async (): Promise<boolean> => {
  forgetCatalogue(app.listo);
  const cards = (await tomas!.call('GET', '/services')).body as ServiceCard[];
  return cards.some(({ id }) => id === 'first-aid');
};

async function write(change: object): Promise<EditedService['problems']> {
  const { definition, draftVersion } = (await hanna!.call('GET', '/workshop/services/first-aid'))
    .body as EditedService;
  const body = { draftVersion, definition: { ...definition, ...change } };
  const saved = await hanna!.call('PUT', '/workshop/services/first-aid/draft', body);
  return (saved.body as EditedService).problems;
}

async function publish(): Promise<number> {
  const { draftVersion } = (await hanna!.call('GET', '/workshop/services/first-aid')).body as EditedService;
  return (await hanna!.call('POST', '/workshop/services/first-aid/versions', { draftVersion })).status;
}

test('what could never be open is not published', async () => {
  const title = { en: 'First aid', pt: 'Primeiros socorros' };
  await hanna!.call('POST', '/workshop/services', { title, teamId: 'onboard', from: { kit: 'question' } });
  const description = { en: 'A day of first aid', pt: 'Um dia de primeiros socorros' };
  const form = { fields: [] };
  const opening = { from: CLOSES, until: OPENS, most: 0 };
  const problems = await write({ description, form, opening, thanks: { en: 'Thanks', pt: '' } });
  expect(problems).toEqual([
    { part: 'audience', code: 'endsFirst' },
    { part: 'audience', code: 'badMost' },
    { part: 'words', code: 'noThanks' },
  ]);
  expect(await publish()).toBe(422);
  expect(await write({ opening: { from: OPENS, until: CLOSES, most: 2 }, thanks })).toEqual([]);
  expect(await publish()).toBe(200);
});

test('before it opens it is not listed, says from when, and takes nothing', async () => {
  expect(await isListed()).toBe(false);
  expect(await read()).toMatchObject({ isOn: true, standing: { state: 'notYet', at: OPENS }, thanks });
  expect((await send(tomas!)).body).toMatchObject({ type: '/problems/serviceNotYet' });
});

test('of twelve who ask at once for the two places two have one, and the others are told', async () => {
  app.clock.set(OPENS);
  expect(await isListed()).toBe(true);
  expect((await read()).standing).toEqual({ state: 'open', until: CLOSES, left: 2 });
  const all = Array.from({ length: 4 }, () => [hanna!, tomas!, lena!]).flat();
  const sent = await Promise.all(all.map((by) => send(by)));
  expect(sent.filter(({ status }) => status === 200)).toHaveLength(2);
  expect(sent.find(({ status }) => status === 409)!.body).toMatchObject({ type: '/problems/serviceFull' });
  expect(await isListed()).toBe(false);
  expect((await read()).standing).toEqual({ state: 'full' });
});

test('one who withdraws leaves the place to another; an agent who writes down what was asked is not held up', async () => {
  const [taken] = await app.listo.db.tables.tickets.find({ serviceId: 'first-aid' }, { order: ['number'] });
  const by = await app.as(taken!.requesterId);
  await by.call('POST', `/tickets/${taken!.number}/moves`, {
    ...{ name: 'withdraw', by: 'requester', version: taken!.version, input: {} },
  });
  forgetCatalogue(app.listo);
  expect((await read()).standing).toMatchObject({ state: 'open', left: 1 });
  expect((await send(lena!)).status).toBe(200);
  expect((await send(lena!)).status).toBe(409);
  // Written down by the desk: over and above, and after the end too.
  app.clock.set(CLOSES + HOUR);
  expect((await send(tomas!)).body).toMatchObject({ type: '/problems/serviceOver' });
  expect((await send(bia!)).body).toMatchObject({ type: '/problems/serviceOver' });
  expect((await send(bia!, { requesterId: 'tomas', via: 'phone' })).status).toBe(200);
});
