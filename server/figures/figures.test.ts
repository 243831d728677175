import type { TeamFigures } from '../../contract/figures';
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
