import type { TicketTemplate } from '../../contract/templates';
import { startTestListo, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, rui, hanna, bia]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('templates');
  [tomas, rui, hanna, bia] = await Promise.all(['tomas', 'rui', 'hanna', 'bia'].map(app.as));
});
afterAll(() => app.end());

const season = {
  ...{ teamId: 'onboard', name: 'Season begins', serviceId: 'kiosk', title: 'Kiosk slow: season begins' },
  answers: { what: 'Queues since the morning' },
};
const save = (by: Person, body: object) => by.call('POST', '/templates', body);
const list = async (by: Person) => (await by.call('GET', '/templates')).body as TicketTemplate[];

test('a team keeps what comes again, for its members alone, each name once', async () => {
  expect((await save(tomas!, season)).status).toBe(403);
  expect((await save(bia!, season)).body).toMatchObject({
    fields: [{ field: 'teamId', code: 'notAChoice' }],
  });
  expect((await save(rui!, { ...season, serviceId: 'nothing' })).body).toMatchObject({
    fields: [{ field: 'serviceId', code: 'notAChoice' }],
  });
  const { id } = (await save(rui!, season)).body as { id: string };
  expect((await save(hanna!, season)).body).toMatchObject({ fields: [{ field: 'name', code: 'isKept' }] });
  expect(await list(hanna!)).toEqual([{ ...season, id, isOffered: false, mayEdit: true, mayOffer: true }]);
  expect(await list(bia!)).toEqual([]);
  expect((await bia!.call('DELETE', `/templates/${id}`)).status).toBe(404);
  expect((await hanna!.call('DELETE', `/templates/${id}`)).status).toBe(200);
  expect(await list(rui!)).toEqual([]);
});

test('one that is called something else and offered is there for whoever asks, of the team’s own services', async () => {
  const offered = async (by: Person, serviceId = 'kiosk') =>
    (await by.call('GET', `/services/${serviceId}/templates`)).body as { name: string }[];
  const { id } = (await save(rui!, season)).body as { id: string };
  expect(await offered(tomas!)).toEqual([]);
  const wanted = { name: 'When the season begins', isOffered: true };
  expect((await bia!.call('PUT', `/templates/${id}`, wanted)).status).toBe(404);
  expect((await hanna!.call('PUT', `/templates/${id}`, wanted)).status).toBe(200);
  const { title, answers } = season;
  expect(await offered(tomas!)).toEqual([{ id, name: wanted.name, title, answers }]);
  const other = (await save(bia!, { ...season, teamId: 'desk', isOffered: true })).body as { id: string };
  expect((await offered(tomas!)).map(({ name }) => name)).toEqual([wanted.name]);
  expect((await bia!.call('PUT', `/templates/${other.id}`, { ...wanted, name: '' })).status).toBe(422);
  expect((await tomas!.call('GET', '/services/nothing/templates')).status).toBe(404);
});
