import type { api } from '../../contract';
import type { AnswerOf } from '../../contract/endpoint';
import type { Ticket } from '../../contract/tickets';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** Large requests of which a lead says whose turn it is. */
let app: TestListo;
let [vasco, petra, nuno, jonas, marta, helder]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('ranking', { startsAt: Date.parse('2026-11-23T09:00:00Z') });
  [vasco, petra, nuno, jonas, marta, helder] = await Promise.all(
    ['vasco', 'petra', 'nuno', 'jonas', 'marta', 'helder'].map(app.as),
  );
});
afterAll(() => app.end());

type Ranking = AnswerOf<typeof api.plans.ranking>;

async function raise(by: Person, title: string): Promise<number> {
  const answers = { program: 'stock', what: `${title}.`, hours: 4, day: '2027-02-01' };
  const { status, body } = await by.call('POST', '/tickets', { serviceId: 'program-change', title, answers });
  expect(status).toBe(200);
  return (body as { number: number }).number;
}
const read = async (by: Person = vasco!): Promise<Ranking> =>
  (await by.call('GET', '/teams/apps/ranking')).body as Ranking;
const titlesOf = async (by?: Person): Promise<string[]> =>
  (await read(by)).requests.map(({ title }) => title);
async function rank(by: Person, number: number, said: object) {
  const { requests } = await read();
  const { stepId, version } = requests.find((each) => each.number === number) ?? {
    stepId: 'rank',
    version: 2,
  };
  return by.call('POST', '/teams/apps/ranking', { number, stepId, version, ...said });
}
const ticketOf = async (number: number, by: Person): Promise<Ticket> =>
  (await by.call('GET', `/tickets/${number}`)).body as Ticket;
const stepOf = async (number: number, id: string, by: Person) =>
  (await ticketOf(number, by)).plan!.legs.flatMap(({ steps }) => steps).find((step) => step.id === id)!;

test('they come by how long they wait until the lead puts them in order; each requester sees the place', async () => {
  const one = await raise(nuno!, 'One booking for a car and its trailer');
  app.clock.set(app.clock.now() + 60_000);
  const two = await raise(jonas!, 'Stock shows what is on order');
  app.clock.set(app.clock.now() + 60_000);
  const three = await raise(nuno!, 'A ticket is found by its number plate');
  const [car, stock, plate] = [
    'One booking for a car and its trailer',
    'Stock shows what is on order',
    'A ticket is found by its number plate',
  ] as const;
  expect((await titlesOf()).slice(-3)).toEqual([car, stock, plate]);
  const before = (await read()).requests.length - 3;

  expect((await rank(vasco!, three, { place: before + 1 })).status).toBe(200);
  expect((await titlesOf()).slice(-3)).toEqual([plate, car, stock]);
  expect((await stepOf(two, 'rank', jonas!)).ranking).toEqual({ place: before + 3, count: before + 3 });
  const entries = (await ticketOf(three, nuno!)).entries;
  expect(entries.find(({ type }) => type === 'ranked')?.data).toMatchObject({
    place: before + 1,
    count: before + 3,
  });
  // One that comes later stands behind those that have a place.
  app.clock.set(app.clock.now() - 600_000);
  await raise(jonas!, 'Parts have a picture');
  app.clock.set(app.clock.now() + 600_000);
  expect((await titlesOf()).at(-1)).toBe('Parts have a picture');

  // Withdrawn: it waits for nothing any more.
  const { version } = await ticketOf(one, nuno!);
  await nuno!.call('POST', `/tickets/${one}/moves`, {
    name: 'withdraw',
    by: 'requester',
    version,
    input: {},
  });
  expect(await titlesOf()).not.toContain(car);
});

test('a word is an answer on the thread; once it goes ahead, the next step begins and the others move up', async () => {
  const number = await raise(jonas!, 'Counting by telephone');
  const said = await rank(vasco!, number, { words: 'After the summer timetable.' });
  expect(said.status).toBe(200);
  const ticket = await ticketOf(number, jonas!);
  expect(ticket.entries.find(({ type }) => type === 'answered')?.actor?.name).toBe('Vasco Lourinho');
  const { requests } = await read();
  expect(requests.find((each) => each.number === number)?.lastWord).toMatchObject({
    text: 'After the summer timetable.',
    by: 'Vasco Lourinho',
  });
  await until(
    () => jonas!.call('GET', '/notifications').then(({ body }) => JSON.stringify(body)),
    (told) => told.includes(String(number)) && told.includes('answered'),
  );

  expect((await rank(vasco!, number, { goesAhead: true })).status).toBe(200);
  expect(await stepOf(number, 'rank', petra!)).toMatchObject({ state: 'done', ranking: null });
  expect(await stepOf(number, 'build', petra!)).toMatchObject({ state: 'active' });
  expect(await titlesOf()).not.toContain('Counting by telephone');
  expect((await rank(vasco!, number, { goesAhead: true })).status).toBe(409);
});

test('only who leads the team ranks; who holds the ticket may leave it out, with a reason; others see nothing', async () => {
  const number = await raise(nuno!, 'Prices by season');
  const { version } = await stepOf(number, 'rank', vasco!);
  expect(await stepOf(number, 'rank', petra!)).toMatchObject({
    assignee: { id: 'vasco' },
    moves: ['leaveOut'],
  });
  expect((await stepOf(number, 'rank', vasco!)).moves).toEqual(['finish', 'leaveOut']);
  expect((await rank(petra!, number, { place: 1 })).status).toBe(403);
  const finish = { name: 'finish', version };
  expect((await petra!.call('POST', `/tickets/${number}/steps/rank/moves`, finish)).status).toBe(403);
  expect((await read(petra!)).mayRank).toBe(false);
  expect((await marta!.call('GET', '/teams/apps/ranking')).status).toBe(403);
  expect((await nuno!.call('GET', '/teams/apps/ranking')).status).toBe(403);
  expect((await helder!.call('GET', '/teams/none/ranking')).status).toBe(404);
  expect((await rank(vasco!, number, { place: 1, version: version - 1 })).status).toBe(409);

  const reason = 'The law asks for it.';
  const leaveOut = { name: 'leaveOut', version, reason };
  expect((await petra!.call('POST', `/tickets/${number}/steps/rank/moves`, leaveOut)).status).toBe(200);
  expect(await stepOf(number, 'build', petra!)).toMatchObject({ state: 'active' });
});

test('two leads who move at once leave one order, in which each stands where it was put', async () => {
  const numbers = await Promise.all(['East', 'West', 'North', 'South'].map((each) => raise(jonas!, each)));
  const before = (await read()).requests;
  const moves = numbers.map((number) => {
    const { stepId, version } = before.find((each) => each.number === number)!;
    return vasco!.call('POST', '/teams/apps/ranking', { number, stepId, version, place: 1 });
  });
  expect((await Promise.all(moves)).map(({ status }) => status)).toEqual([200, 200, 200, 200]);
  const after = (await read()).requests.map(({ number }) => number);
  expect(new Set(after)).toEqual(new Set(before.map(({ number }) => number)));
  expect(new Set(after.slice(0, 4))).toEqual(new Set(numbers));
  const places = await app.listo.db.select<{ place: number }>(
    "SELECT place FROM plan_steps WHERE stepId = 'rank' AND state = 'active' ORDER BY place",
  );
  expect(places.map(({ place }) => place)).toEqual(after.map((_, i) => i + 1));
});

test('one that has waited longer than it should is looked at again by the hour, not all the time', async () => {
  const number = await raise(nuno!, 'Fares for bicycles');
  app.clock.set(app.clock.now() + 20 * 86_400_000);
  const look = await until(
    () => app.listo.db.tables.timers.findOne({ ticketNumber: number, kind: 'planLook' }),
    (timer) => timer !== null && timer.at > app.clock.now(),
  );
  expect(look!.at - app.clock.now()).toBeGreaterThan(1_800_000);
});
