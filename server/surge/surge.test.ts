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

test('the lead chooses how often a quiet hour may raise a false alarm', async () => {
  expect((await ivo!.call('PUT', '/teams/onboard/surge', { alarmRate: 0.1 })).status).toBe(403);
  expect((await rui!.call('PUT', '/teams/onboard/surge', { alarmRate: 2 })).status).toBe(422);
  expect((await rui!.call('PUT', '/teams/onboard/surge', { alarmRate: 0.0001 })).status).toBe(200);
  expect((await rui!.call('GET', '/surges')).body).toMatchObject({ alarmRate: 0.0001 });
});
