import type { SurgeRow } from '../../contract/surge';
import { startTestListo, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, rui, ivo, sofia]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('surge');
  [tomas, rui, ivo, sofia] = await Promise.all(['tomas', 'rui', 'ivo', 'sofia'].map(app.as));
});
afterAll(() => app.end());

const WEEK = 7 * 86_400_000;
const kiosk = async (title: string): Promise<number> => {
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
  const { body } = await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title, answers });
  return (body as { number: number }).number;
};
const surges = async (by: Person): Promise<SurgeRow[]> =>
  ((await by.call('GET', '/surges')).body as { surges: SurgeRow[] }).surges;

test('more than this hour of the week usually brings is seen, by those whose it is, until it is tied together', async () => {
  const end = app.clock.now();
  // Two in this hour of each of the weeks before.
  for (let week = 8; week >= 1; week--) {
    app.clock.set(end - week * WEEK - 600_000);
    await kiosk('Usual one');
    await kiosk('Usual other');
  }
  app.clock.set(end);
  const numbers: number[] = [];
  for (let i = 0; i < 3; i++) numbers.push(await kiosk(`Frozen ${i}`));
  expect(await surges(rui!)).toEqual([]);
  for (let i = 3; i < 10; i++) numbers.push(await kiosk(`Frozen ${i}`));
  const [surge] = await surges(rui!);
  expect(surge).toMatchObject({ serviceId: 'kiosk', count: 10, numbers });
  // Out of hours, some of those before went to another team.
  expect(surge!.usual).toBeGreaterThan(0.5);
  expect(surge!.usual).toBeLessThanOrEqual(2);
  expect(surge!.chance).toBeLessThan(0.001);
  expect(await surges(sofia!)).toEqual([]);
  expect((await tomas!.call('GET', '/surges')).status).toBe(403);
  const [first, ...others] = numbers;
  // One that stands under another already holds up none of the rest.
  await rui!.call('PUT', `/tickets/${others[0]}/under`, { under: first, as: 'cause' });
  const tied = await rui!.call('PUT', `/tickets/${first}/below`, { numbers: [...others, first] });
  expect(tied.body).toEqual({ put: others.length - 1, refused: [others[0], first] });
  expect((await surges(rui!))[0]!.numbers).toEqual([first]);
});

test('many that have nothing in common are no surge, nor is what fits no service', async () => {
  app.clock.pass(2 * 3_600_000);
  const unlike = [
    'Paper is out',
    'Touch does nothing',
    'Wrong price shown',
    'Door hangs',
    'Speaker hums',
    'Lens fogged',
  ];
  for (const title of unlike) await kiosk(title);
  expect(await surges(rui!)).toEqual([]);
  const other = await app.listo.db.tables.services.findOne({ id: 'other' });
  for (let i = 0; i < 8; i++)
    await tomas!.call('POST', '/tickets', {
      serviceId: other!.id,
      title: 'Odd noise',
      answers: { what: 'A noise' },
    });
  const [asked] = await app.listo.db.tables.tickets.find({ title: 'Odd noise' }, { limit: 1 });
  const [member] = await app.listo.db.tables.members.find({ teamId: asked!.teamId });
  expect(await surges(await app.as(member!.personId))).toEqual([]);
  // Among the unlike, those that say the same are the surge.
  const same: number[] = [];
  for (let i = 0; i < 7; i++) same.push(await kiosk(`Cash drawer stuck, kiosk ${i}`));
  expect(await surges(rui!)).toMatchObject([{ count: 7, numbers: same }]);
});

test('the lead chooses how often a quiet hour may raise a false alarm', async () => {
  expect((await ivo!.call('PUT', '/teams/onboard/surge', { alarmRate: 0.1 })).status).toBe(403);
  expect((await rui!.call('PUT', '/teams/onboard/surge', { alarmRate: 2 })).status).toBe(422);
  expect((await rui!.call('PUT', '/teams/onboard/surge', { alarmRate: 0.0001 })).status).toBe(200);
  expect((await rui!.call('GET', '/surges')).body).toMatchObject({ alarmRate: 0.0001 });
});
