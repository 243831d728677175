import type { RoutingSettings } from '../../core/routing';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, rui, hanna, ivo, duarte]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('routing');
  [tomas, rui, hanna, ivo, duarte] = await Promise.all(
    ['tomas', 'rui', 'hanna', 'ivo', 'duarte'].map(app.as),
  );
});
afterAll(() => app.end());

type Routing = { settings: RoutingSettings; version: number; people: { id: string; load: number }[] };
type Page = {
  assignee: { id: string } | null;
  state: string;
  team: { id: string };
  entries: { type: string; data: Record<string, unknown> }[];
};

const LEAST: RoutingSettings = {
  ...{ way: 'leastLoaded', units: { incident: 1, request: 1 }, needs: [], goesOnAfter: null, next: null },
};
const read = async (number: number): Promise<Page> => (await rui!.call('GET', `/tickets/${number}`)).body;

async function create(title: string): Promise<number> {
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
  const { body } = await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title, answers });
  return (body as { number: number }).number;
}

async function set(settings: Partial<RoutingSettings>, people: object[] = []) {
  const { version } = (await rui!.call('GET', '/teams/onboard/routing')).body as Routing;
  return rui!.call('PUT', '/teams/onboard/routing', { settings: { ...LEAST, ...settings }, people, version });
}

const assigned = (number: number) =>
  until(
    () => read(number),
    ({ assignee }) => assignee !== null,
  );

test('each new ticket finds whoever carries least, says why, and they are told', async () => {
  expect(
    (await ivo!.call('PUT', '/teams/onboard/routing', { settings: LEAST, people: [], version: 1 })).status,
  ).toBe(403);
  expect((await set({})).status).toBe(200);
  // All at once would be looked at in one round; one after the other each sees what came before.
  const given: string[] = [];
  for (const title of ['One', 'Two', 'Three', 'Four'])
    given.push((await assigned(await create(title))).assignee!.id);
  // Of the group that the service names; Hanna can carry twelve, Rui eight.
  expect(given).toEqual(['hanna', 'rui', 'hanna', 'rui']);
  const page = await assigned(await create('Five'));
  const why = page.entries.find(({ type }) => type === 'routed')!.data;
  expect(why).toMatchObject({ personId: page.assignee!.id, way: 'leastLoaded', couldHave: 2, load: 2 });
  expect(page.state).toBe('received');
});

test('what is given by itself has been taken up by nobody; a person who begins it takes it up', async () => {
  await set({});
  const number = await create('Given');
  const page = await assigned(number);
  const takenUp = async () => {
    const clocks = await until(
      () => app.listo.db.tables.clocks.find({ ticketNumber: number }),
      (rows) => rows.some(({ targetId }) => targetId === 'first-answer'),
    );
    const { isTakenUp } = (await rui!.call('GET', `/tickets/${number}`)).body as { isTakenUp: boolean };
    return { isTakenUp, answer: clocks.find(({ targetId }) => targetId === 'first-answer')!.stoppedAt };
  };
  expect(await takenUp()).toEqual({ isTakenUp: false, answer: null });
  // To read it is not to begin it.
  const holder = page.assignee!.id === 'rui' ? rui! : hanna!;
  await holder.call('GET', `/tickets/${number}`);
  expect((await takenUp()).isTakenUp).toBe(false);
  const { version } = (await holder.call('GET', `/tickets/${number}`)).body as { version: number };
  const move = { name: 'finish', by: 'agent', version, input: { solution: 'Restarted' } };
  expect((await holder.call('POST', `/tickets/${number}/moves`, move)).status).toBe(200);
  expect((await takenUp()).isTakenUp).toBe(true);
});

test('who is busy, on leave, full or without the skill is passed over; what nobody can have waits for whoever becomes free', async () => {
  const people = [
    { id: 'hanna', capacity: 12, skills: { kiosks: 3 } },
    { id: 'rui', capacity: 8, skills: { kiosks: 1 } },
  ];
  const needs = [{ serviceId: 'kiosk', skill: 'kiosks', level: 2 }];
  expect((await set({ needs: [{ ...needs[0]!, skill: 'diving' }] }, people)).body).toMatchObject({
    fields: [{ code: 'nobodyHasSkill', field: 'needs.diving' }],
  });
  expect((await set({ needs }, people)).status).toBe(200);
  await hanna!.call('PUT', '/me/presence', { presence: 'busy' });
  const number = await create('For Hanna');
  await until(
    async () =>
      (await app.listo.db.select<{ position: number }>('SELECT MIN(position) AS position FROM consumers'))[0]!
        .position,
    (position) => position > 0,
  );
  expect((await read(number)).assignee).toBeNull();
  await hanna!.call('PUT', '/me/presence', { presence: 'available' });
  expect((await assigned(number)).assignee!.id).toBe('hanna');
  await set({});
});

test('what nobody takes up in time goes to the next line, and the record says so', async () => {
  await set({ goesOnAfter: 30, next: { teamId: 'desk', groupId: null } });
  const number = await create('Left lying');
  await assigned(number);
  await until(
    () => app.listo.db.tables.timers.find({ ticketNumber: number, kind: 'goesOn' }),
    (timers) => timers.length === 1,
  );
  app.clock.pass(31 * 60_000);
  const page = await until(
    () => read(number),
    ({ team }) => team.id === 'desk',
  );
  expect(page.entries.map(({ type }) => type)).toEqual(expect.arrayContaining(['wentOn', 'givenOn']));
  // What someone has taken up stays.
  const taken = await create('Taken');
  const { version } = (await rui!.call('GET', `/tickets/${taken}`)).body as { version: number };
  await rui!.call('POST', `/tickets/${taken}/moves`, { name: 'take', by: 'agent', version, input: {} });
  await set({});
});

test('the work of someone who goes on leave comes back, and finds another', async () => {
  const number = await create('Comes back');
  const first = (await assigned(number)).assignee!.id;
  const person = { rui, hanna, ivo, duarte }[first]!;
  const now = app.clock.now();
  expect(
    (
      await person.call('POST', '/my/absences', {
        fromAt: now - 1,
        toAt: now + 5 * 86_400_000,
        delegateId: null,
      })
    ).status,
  ).toBe(200);
  const page = await until(
    () => read(number),
    ({ assignee }) => assignee !== null && assignee.id !== first,
  );
  expect(page.entries.map(({ type }) => type)).toContain('cameBack');
});
