import type { Notification } from '../../contract/notifications';
import type { Ticket } from '../../contract/tickets';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** What was filed wrongly is put right in place: under another service, or for someone else. */
let app: TestListo;
let [tomas, lena, rui, bia, ines]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('refile');
  [tomas, lena, rui, bia, ines] = await Promise.all(['tomas', 'lena', 'rui', 'bia', 'ines'].map(app.as));
});
afterAll(() => app.end());

const kiosk = {
  ...{ serviceId: 'kiosk', title: 'Kiosk 3 frozen' },
  answers: { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' },
};
async function raise(by: Person, body: object = kiosk): Promise<number> {
  return ((await by.call('POST', '/tickets', body)).body as { number: number }).number;
}
const read = async (number: number, by = rui!): Promise<Ticket> =>
  (await by.call('GET', `/tickets/${number}`)).body as Ticket;
async function put(number: number, what: 'service' | 'requester', body: object, by = rui!) {
  const { version } = await read(number);
  const { status, body: answer } = await by.call('PUT', `/tickets/${number}/${what}`, { version, ...body });
  return {
    status,
    codes: ((answer as { fields?: { code: string }[] }).fields ?? []).map(({ code }) => code),
  };
}

test('under another service, what both ask for stays, the rest is a note of the team, and its promises are those', async () => {
  const number = await raise(tomas!);
  const before = await until(
    () => read(number),
    ({ clocks }) => clocks.length > 0,
  );
  expect(await put(number, 'service', { serviceId: 'gate-broken' })).toEqual({ status: 200, codes: [] });
  const after = await read(number);
  expect(after).toMatchObject({ service: { id: 'gate-broken' }, number, state: before.state });
  expect(Object.fromEntries(after.answers.map(({ field, value }) => [field.name, value]))).toEqual({
    ...{ site: 'Port Alder', what: 'Stops', impact: 'site', urgency: 'stopsWork' },
  });
  const note = after.entries.find(({ type }) => type === 'noted')!;
  expect(note).toMatchObject({ audience: 'team', message: { text: 'Which kiosk? 3', readBy: 'team' } });
  expect(after.entries.at(-1)).toMatchObject({ type: 'refiled', data: { formerName: before.service.title } });
  // The one who asks reads where it is filed, and not the note.
  const theirs = await read(number, tomas!);
  expect(theirs.entries.map(({ type }) => type)).not.toContain('noted');
  await until(
    () => read(number),
    ({ clocks }) => clocks.some(({ state }) => state === 'running'),
  );
});

test('what has to be agreed, goes through several teams, or is in confidence, is not filed over', async () => {
  const number = await raise(tomas!);
  expect((await put(number, 'service', { serviceId: 'gate-scanner' })).codes).toEqual(['needsAgreement']);
  expect((await put(number, 'service', { serviceId: 'crew-transfer' })).codes).toEqual(['needsAgreement']);
  expect((await put(number, 'service', { serviceId: 'in-confidence' })).codes).toEqual(['otherConfidence']);
  expect((await put(number, 'service', { serviceId: 'nothing' })).codes).toEqual(['notAChoice']);
  const asked = {
    serviceId: 'gate-scanner',
    title: 'Scanner',
    answers: { site: 'Port Alder', sort: 'hand', count: 1 },
  };
  const agreed = await raise(tomas!, asked);
  expect((await put(agreed, 'service', { serviceId: 'kiosk' })).codes).toEqual(['needsAgreement']);
  expect((await put(agreed, 'requester', { requesterId: 'lena' })).codes).toEqual(['agreedForThem']);
  expect((await put(number, 'service', { serviceId: 'gate-broken' }, tomas!)).status).toBe(403);
});

test('who changed it meanwhile is not overwritten', async () => {
  const number = await raise(tomas!);
  const { version } = await read(number);
  expect(
    (await rui!.call('PUT', `/tickets/${number}/service`, { version, serviceId: 'gate-broken' })).status,
  ).toBe(200);
  const { status, body } = await rui!.call('PUT', `/tickets/${number}/service`, {
    version,
    serviceId: 'departures',
  });
  expect(status).toBe(409);
  expect(body).toMatchObject({ differences: [{ field: 'serviceId', theirs: 'gate-broken' }] });
});

test('for someone else, they read it and are told; who wrote it reads on', async () => {
  const number = await raise(tomas!);
  expect((await lena!.call('GET', `/tickets/${number}`)).status).toBe(404);
  expect(await put(number, 'requester', { requesterId: 'lena' })).toEqual({ status: 200, codes: [] });
  const after = await read(number, lena!);
  expect(after).toMatchObject({ requester: { id: 'lena' }, raisedBy: { id: 'tomas' } });
  expect(after.alsoTold.map(({ id }) => id)).toEqual(['tomas']);
  expect(after.entries.at(-1)).toMatchObject({ type: 'requesterChanged', data: { former: 'Tomás Veiga' } });
  await until(
    async () => (await lena!.call('GET', '/notifications')).body as { notifications: Notification[] },
    ({ notifications }) => notifications.some((told) => told.number === number && told.event === 'raisedFor'),
  );
  expect((await put(number, 'requester', { requesterId: 'nobody' })).codes).toEqual(['notAChoice']);

  // What an agent raised for the wrong person is no longer theirs to read.
  const byAgent = await raise(bia!, { ...kiosk, requesterId: 'lena', via: 'phone' });
  expect(await put(byAgent, 'requester', { requesterId: 'ines' })).toEqual({ status: 200, codes: [] });
  expect((await lena!.call('GET', `/tickets/${byAgent}`)).status).toBe(404);
  expect((await read(byAgent, ines!)).requester.id).toBe('ines');
});
