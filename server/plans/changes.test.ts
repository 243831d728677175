import type { PlanStepView, PlanView } from '../../contract/plans';
import type { Ticket } from '../../contract/tickets';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** Changes of one ticket's plan while it runs. */
let app: TestListo;
let [ana, jonas, bia]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('planchanges', { startsAt: Date.parse('2026-11-23T09:00:00Z') });
  // A Monday morning.
  [ana, jonas, bia] = await Promise.all(['ana', 'jonas', 'bia'].map(app.as));
});
afterAll(() => app.end());

async function raise(by: Person): Promise<number> {
  const body = {
    ...{ serviceId: 'crew-transfer', requesterId: 'lena', title: 'Lena Storm moves to Port Alder' },
    answers: { from: 'Fenwick Sound', to: 'Port Alder', day: '2026-12-04' },
  };
  return ((await by.call('POST', '/tickets', body)).body as { number: number }).number;
}
const planOf = async (number: number): Promise<PlanView> =>
  ((await bia!.call('GET', `/tickets/${number}`)).body as Ticket).plan!;
const stepOf = async (number: number, stepId: string): Promise<PlanStepView> =>
  (await planOf(number)).legs.flatMap(({ steps }) => steps).find(({ id }) => id === stepId)!;

test('a step is added to one ticket: its team gets it at its turn, and the forecast follows', async () => {
  const number = await raise(ana!);
  const before = await planOf(number);
  const leg = before.legs[1]!.id;
  const body = { name: 'Fetch the sea chest', legId: leg, teamId: 'stores', hours: 400 };
  expect((await jonas!.call('POST', `/tickets/${number}/steps`, body)).status).toBe(403);
  const bad = await bia!.call('POST', `/tickets/${number}/steps`, { ...body, after: ['welcome'] });
  expect(bad).toMatchObject({ status: 422, body: { fields: [{ field: 'after' }] } });
  const added = await bia!.call('POST', `/tickets/${number}/steps`, body);
  const { stepId } = added.body as { stepId: string };
  const plan = await planOf(number);
  expect(await stepOf(number, stepId)).toMatchObject({ state: 'waiting', team: { id: 'stores' } });
  expect(plan.forecastAt).toBeGreaterThan(plan.promisedAt);

  // It slips: the team is told at once, the requester in plain words once someone has looked.
  expect(plan.mayTellSlip).toBe(true);
  const toldOf = (): Promise<{ personId: string }[]> =>
    app.listo.db.tables.notifications.find({ ticketNumber: number, event: 'slipTold' });
  expect(await toldOf()).toEqual([]);
  expect((await bia!.call('POST', `/tickets/${number}/plan/word`)).status).toBe(200);
  const told = await until(toldOf, (rows) => rows.length > 0);
  expect(told.map(({ personId }) => personId)).toContain('lena');
  expect((await bia!.call('POST', `/tickets/${number}/plan/word`)).status).toBe(409);
});

test('where nobody looks, the requester reads of a slip after a while', async () => {
  const number = await raise(ana!);
  const { legs } = await planOf(number);
  const body = { name: 'Wait for the crane', legId: legs[1]!.id, teamId: 'stores', hours: 400 };
  await bia!.call('POST', `/tickets/${number}/steps`, body);
  app.clock.pass(5 * 3_600_000);
  const told = await until(
    () => app.listo.db.tables.notifications.find({ ticketNumber: number, event: 'slipTold' }),
    (rows) => rows.length > 0,
  );
  expect(told.map(({ personId }) => personId)).toContain('lena');
});
