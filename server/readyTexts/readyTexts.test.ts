import { startTestListo, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, rui, hanna, bia]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('ready_texts');
  [tomas, rui, hanna, bia] = await Promise.all(['tomas', 'rui', 'hanna', 'bia'].map(app.as));
});
afterAll(() => app.end());

test('shared in a team, filled for a ticket in its requester’s language, kept by who may', async () => {
  const text = { en: 'Hello {name}, {title} is with {team}.', pt: '' };
  const save = (by: Person, body: object) => by.call('POST', '/ready-texts', body);
  expect((await save(tomas!, { teamId: null, name: 'X', text })).status).toBe(403);
  expect((await save(bia!, { teamId: 'onboard', name: 'X', text })).status).toBe(422);
  expect(
    (await save(rui!, { teamId: 'onboard', name: 'X', text: { en: 'Dear {nmae}', pt: '' } })).body,
  ).toMatchObject({
    fields: [{ field: 'text', code: 'unknownBlank' }],
  });
  const { body } = await save(rui!, { teamId: 'onboard', name: 'With us', text });
  const { id } = body as { id: string };
  await save(rui!, { teamId: null, name: 'Mine alone', text });
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
  const made = await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title: 'Kiosk 3', answers });
  const { number } = made.body as { number: number };
  const texts = (await hanna!.call('GET', `/tickets/${number}/ready-texts`)).body as {
    name: string;
    text: string;
  }[];
  expect(texts).toEqual([
    expect.objectContaining({ name: 'With us', text: 'Hello Tomás, Kiosk 3 is with Onboard systems.' }),
  ]);
  expect((await tomas!.call('GET', `/tickets/${number}/ready-texts`)).status).toBe(403);
  const change = { teamId: 'onboard', name: 'With us', text: { ...text, pt: 'Olá {name}' }, version: 1 };
  expect((await bia!.call('PUT', `/ready-texts/${id}`, { ...change, teamId: null })).status).toBe(404);
  expect((await hanna!.call('PUT', `/ready-texts/${id}`, change)).status).toBe(200);
  expect((await hanna!.call('PUT', `/ready-texts/${id}`, change)).status).toBe(409);
  expect((await hanna!.call('DELETE', `/ready-texts/${id}`)).status).toBe(200);
});
