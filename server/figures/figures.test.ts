import type { TeamFigures } from '../../contract/figures';
import { listBehind, TEAM_NUMBER_NAMES } from '../../core/figures';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, rui, sofia]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('figures');
  [tomas, rui, sofia] = await Promise.all(['tomas', 'rui', 'sofia'].map(app.as));
});
afterAll(() => app.end());

async function create(): Promise<number> {
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
  const { body } = await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title: 'Kiosk', answers });
  return (body as { number: number }).number;
}
async function move(by: Person, number: number, name: string, input: object = {}): Promise<void> {
  const { version } = (await by.call('GET', `/tickets/${number}`)).body as { version: number };
  const body = { name, by: by === tomas ? 'requester' : 'agent', version, input };
  expect((await by.call('POST', `/tickets/${number}/moves`, body)).status).toBe(200);
}
const today = async (by: Person): Promise<TeamFigures[]> =>
  (await by.call('GET', '/figures/today')).body as TeamFigures[];
const onboard = async (): Promise<TeamFigures> => (await today(rui!)).find(({ id }) => id === 'onboard')!;

test('a hand-made day adds up: open, waiting, late, in time, as rated, day by day', async () => {
  const [first, second, third, fourth] = [await create(), await create(), await create(), await create()];
  await move(rui!, first, 'take');
  await move(rui!, first, 'finish', { solution: 'Restarted' });
  await move(tomas!, first, 'confirm', { rating: 5 });
  await move(rui!, second, 'take');
  await move(rui!, second, 'hold', { heldFor: 'requester', message: 'Which?' });
  await move(rui!, third, 'take');
  const clocks = await until(
    () => app.listo.db.tables.clocks.find({ ticketNumber: first, work: 'ticket' }),
    (rows) => rows.some(({ state, stoppedAt }) => state === 'met' && stoppedAt !== null),
  );
  expect(clocks.length).toBeGreaterThan(0);
  expect(await onboard()).toMatchObject({
    open: 3,
    unassigned: 1,
    held: 1,
    late: 0,
    promised: 1,
    inTime: 1,
    ratings: 1,
    rating: 5,
  });
  expect((await onboard()).days.at(-1)).toMatchObject({ arrived: 4, resolved: 1 });
  // Two days on, what is taken or lies there is late; it is resolved late.
  app.clock.pass(2 * 86_400_000);
  await move(rui!, third, 'finish', { solution: 'At last' });
  const later = await until(onboard, ({ promised }) => promised === 2);
  expect(later).toMatchObject({ open: 2, late: 1, promised: 2, inTime: 1 });
  expect(later.days.slice(-3).map(({ arrived, resolved }) => [arrived, resolved])).toEqual([
    [4, 1],
    [0, 0],
    [0, 1],
  ]);
  expect(fourth).toBeGreaterThan(0);
});

test('one reads of one’s own teams alone, and employees of none', async () => {
  expect((await today(sofia!)).map(({ id }) => id)).not.toContain('onboard');
  expect((await tomas!.call('GET', '/figures/today')).status).toBe(403);
});

test('each number is as large as the list that it opens, steps of plans included', async () => {
  // Two days on, also the first steps of this plan are late.
  const answers = { from: 'Fenwick Sound', to: 'Port Alder', day: '2026-12-18', gear: true, size: 's' };
  const aro = await app.as('aro');
  const sent = await aro.call('POST', '/tickets', {
    ...{ serviceId: 'crew-transfer', requesterId: 'lena', title: 'Lena moves', answers },
  });
  expect(sent.status).toBe(200);
  const { number } = sent.body as { number: number };
  const { db } = app.listo;
  await db.run(
    "UPDATE plan_steps SET state = 'active', neededBy = 1 WHERE ticketNumber = :number AND teamId IS NOT NULL",
    {
      number,
    },
  );
  let isStepSeen = false;
  for (const personId of ['rui', 'bia', 'hanna', 'jonas']) {
    const person = await app.as(personId);
    for (const team of await today(person))
      for (const name of TEAM_NUMBER_NAMES) {
        const { list, where } = listBehind(name, [team.id]);
        const query = new URLSearchParams({ where: JSON.stringify(where), limit: '100' });
        const { body } = await person.call('GET', `/worklists/${list}?${query}`);
        const { rows, total } = body as { rows: { step: object | null }[]; total: { count: number } };
        expect([team.id, name, team[name]]).toEqual([team.id, name, total.count]);
        isStepSeen ||= name === 'late' && rows.some(({ step }) => step !== null);
      }
  }
  expect(isStepSeen).toBe(true);
});
