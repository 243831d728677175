import { startTestListo, type Person, type TestListo } from '../testing/harness';
import { kindRow, thingRow } from '../testing/things';

/** Things of a ticket that is filed under another service, and what is not handed out. */
let app: TestListo;
let [bia, tomas]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('refiledThings');
  [bia, tomas] = await Promise.all(['bia', 'tomas'].map(app.as));
  await app.listo.db.tables.thingKinds.insert(kindRow({ id: 'laptop' }));
  await app.listo.db.tables.things.insert(thingRow({ id: 'l-1', name: 'Laptop L-1' }));
});
afterAll(() => app.end());

test('what another service does not ask for stays tied, and can be taken off then', async () => {
  const { ticketThings } = app.listo.db.tables;
  const { body } = await tomas!.call('POST', '/tickets', {
    ...{ serviceId: 'other', title: 'It is slow', fileIds: [], alsoToldIds: [], via: 'portal' },
    answers: { site: 'Port Alder', what: 'Slow', impact: 'person', urgency: 'canWait' },
  });
  const { number } = body as { number: number };
  const untie = () => bia!.call('DELETE', `/tickets/${number}/things/l-1`);
  await ticketThings.insert({ ticketNumber: number, thingId: 'l-1', how: 'about', isAnswer: true, at: 1 });
  expect((await untie()).status).toBe(422);
  const { version } = (await bia!.call('GET', `/tickets/${number}`)).body as { version: number };
  const sent = { version, serviceId: 'locked-out' };
  expect((await bia!.call('PUT', `/tickets/${number}/service`, sent)).status).toBe(200);
  expect(await ticketThings.find({ ticketNumber: number })).toMatchObject([
    { thingId: 'l-1', isAnswer: false },
  ]);
  expect((await untie()).status).toBe(200);
});

test('what stands where it is cannot be handed over, however it is asked', async () => {
  const { thingKinds, things } = app.listo.db.tables;
  await thingKinds.insert(kindRow({ id: 'line', isHandedOut: false }));
  await things.insert(thingRow({ id: 'n-1', kindId: 'line' }));
  const refused = await bia!.call('POST', '/things/n-1/acts', {
    ...{ version: 1, act: 'handOver', holderId: 'tomas' },
  });
  expect((refused.body as { fields: object[] }).fields).toEqual([{ field: 'act', code: 'notNow' }]);
});
