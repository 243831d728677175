import type { Ask } from '../../contract/approvals';
import type { Ticket } from '../../contract/tickets';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** Who is away is stood in for: what would come to them to decide comes to their delegate, and counts as their say. */
let app: TestListo;
let [ana, ines, tomas, helge]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('absences');
  [ana, ines, tomas, helge] = await Promise.all(['ana', 'ines', 'tomas', 'helge'].map(app.as));
});
afterAll(() => app.end());

const DAY = 86_400_000;
const away = async (by: Person, fromDays: number, toDays: number, delegateId: string | null) => {
  const now = app.clock.now();
  const body = { fromAt: now + fromDays * DAY, toAt: now + toDays * DAY, delegateId };
  const { status, body: answer } = await by.call('POST', '/my/absences', body);
  return {
    status,
    id: (answer as { id: string }).id,
    fields: (answer as { fields?: { code: string }[] }).fields,
  };
};
async function askForScanner(): Promise<number> {
  const answers = { site: 'Port Alder', sort: 'hand', count: 1 };
  const body = { serviceId: 'gate-scanner', title: 'Scanner', answers };
  return ((await tomas!.call('POST', '/tickets', body)).body as { number: number }).number;
}
const asksOf = async (by: Person): Promise<Ask[]> => (await by.call('GET', '/my/asks')).body as Ask[];

test('a delegate is asked, decides, and their word counts as that of who is away', async () => {
  const { status, id } = await away(ana!, -1, 2, 'ines');
  expect(status).toBe(200);
  const number = await askForScanner();
  expect((await asksOf(ana!)).filter((ask) => ask.number === number)).toEqual([]);
  const [ask] = (await asksOf(ines!)).filter((each) => each.number === number);
  expect(ask).toMatchObject({ voter: { id: 'ana' }, reason: 'manager' });
  expect(
    (await ines!.call('POST', `/asks/${ask!.id}/decision`, { decision: 'approve', words: '' })).status,
  ).toBe(200);
  const ticket = await until(
    async () => (await tomas!.call('GET', `/tickets/${number}`)).body as Ticket,
    ({ state }) => state === 'received',
  );
  expect(ticket.approvals[0]).toMatchObject({
    outcome: 'approved',
    asks: [{ voter: { id: 'ana' }, asked: { id: 'ines' } }],
  });
  expect((await ana!.call('DELETE', `/my/absences/${id}`)).status).toBe(200);
});

test('away without anybody, where nobody else is asked: the fallback takes it; not yet away, it comes to oneself', async () => {
  const alone = await away(ana!, -1, 1, null);
  const first = await askForScanner();
  expect((await asksOf(ana!)).some(({ number }) => number === first)).toBe(false);
  const [taken] = (await asksOf(helge!)).filter(({ number }) => number === first);
  expect(taken).toMatchObject({ voter: { id: 'helge' }, reason: 'fallback' });
  await ana!.call('DELETE', `/my/absences/${alone.id}`);
  const later = await away(ana!, 3, 5, 'ines');
  const second = await askForScanner();
  expect((await asksOf(ana!)).some(({ number }) => number === second)).toBe(true);
  await ana!.call('DELETE', `/my/absences/${later.id}`);
});

test('nobody decides their own: with the one who asks as delegate, and the fallback away too, it stays', async () => {
  const { id } = await away(ana!, -1, 1, 'tomas');
  const other = await away(helge!, -1, 1, null);
  const number = await askForScanner();
  expect((await asksOf(tomas!)).some((ask) => ask.number === number)).toBe(false);
  expect((await asksOf(ana!)).some((ask) => ask.number === number)).toBe(true);
  await helge!.call('DELETE', `/my/absences/${other.id}`);
  await ana!.call('DELETE', `/my/absences/${id}`);
});

test('what does not fit is refused at its field, and nobody takes back what is not theirs', async () => {
  expect((await away(helge!, 2, 1, null)).fields).toEqual([{ field: 'toAt', code: 'notPossible' }]);
  expect((await away(helge!, -3, -1, null)).fields).toEqual([{ field: 'toAt', code: 'notPossible' }]);
  expect((await away(helge!, 1, 2, 'helge')).fields).toEqual([{ field: 'delegateId', code: 'notAChoice' }]);
  expect((await away(helge!, 1, 2, 'nobody')).fields).toEqual([{ field: 'delegateId', code: 'notAChoice' }]);
  const { id } = await away(helge!, 1, 3, 'ana');
  expect((await away(helge!, 2, 4, null)).fields).toEqual([{ field: 'fromAt', code: 'overlaps' }]);
  expect((await away(helge!, 3, 4, null)).status).toBe(200);
  expect((await ana!.call('DELETE', `/my/absences/${id}`)).status).toBe(404);
  expect(((await helge!.call('GET', '/my/absences')).body as unknown[]).length).toBe(2);
});
