import type { Ticket } from '../../contract/tickets';
import type { ServicePlan } from '../../core/plans';
import { forgetCatalogue } from '../catalogue/services';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** What a plan promises counts the time that its approvals take, and its words at the end are filled in. */
let app: TestListo;
let [tomas, ana, rui]: Person[] = [];
// A Monday morning; the teams ashore work from 8 to 17 or 18, some of them later.
const MONDAY = Date.parse('2026-11-23T09:00:00Z');
const HOUR = 3_600_000;
beforeAll(async () => {
  app = await startTestListo('usual', { startsAt: MONDAY });
  [tomas, ana, rui] = await Promise.all(['tomas', 'ana', 'rui'].map(app.as));
});
afterAll(() => app.end());

const t = (en: string) => ({ en, pt: en });
const plan: ServicePlan = {
  doneWords: { en: 'Done for {name}, {what}: {title}.', pt: 'Feito para {name}, {what}: {title}.' },
  legs: [
    { id: 'agree', name: t('Agree') },
    { id: 'do', name: t('Do') },
  ],
  steps: [
    {
      ...{ id: 'yes', leg: 'agree', kind: 'approval', name: t('The manager agrees') },
      ...{ refs: [{ manager: 'ofRequester' }], needs: { kind: 'any' }, declineBy: 'any' },
    },
    { id: 'fetch', leg: 'do', kind: 'task', name: t('Fetch'), teamId: 'onboard', effort: 'PT1H' },
  ],
};
let version = 100;
/** Publishes another plan. */
async function use(next: ServicePlan): Promise<void> {
  await app.listo.db.tables.services.update({ id: 'other' }, { plan: next, version: version++ });
  forgetCatalogue(app.listo);
}
async function raise(title: string): Promise<Ticket> {
  const answers = { what: 'broken' };
  const { status, body } = await tomas!.call('POST', '/tickets', { serviceId: 'other', title, answers });
  expect(status).toBe(200);
  return read((body as { number: number }).number);
}
const read = async (number: number): Promise<Ticket> =>
  (await tomas!.call('GET', `/tickets/${number}`)).body as Ticket;
async function agree(number: number): Promise<void> {
  const asks = (await ana!.call('GET', '/my/asks')).body as { id: string; number: number }[];
  const { id } = asks.find((ask) => ask.number === number)!;
  const answer = await ana!.call('POST', `/asks/${id}/decision`, { decision: 'approve', words: '' });
  expect(answer.status).toBe(200);
}
const promised = ({ plan: shown }: Ticket): number => (shown!.promisedAt - app.clock.now()) / HOUR;

test('nothing known of it: an approval counts a working day, or its silence period', async () => {
  await use(plan);
  const unknown = promised(await raise('Nothing known'));
  const silent = plan.steps.map((step) =>
    step.kind === 'approval' ? { ...step, silence: { after: 'PT2H', then: 'remind' as const } } : step,
  );
  await use({ ...plan, steps: silent });
  const known = promised(await raise('Two hours of silence'));
  // Said to the quarter, and never too early.
  expect(known).toBeGreaterThan(2.9);
  expect(known).toBeLessThan(3.3);
  expect(unknown).toBeGreaterThan(8);
});

test('known of the last ones: their usual time; each request keeps what it was promised', async () => {
  await use(plan);
  const first = await raise('The first');
  for (let i = 0; i < 5; i++) {
    const { number } = await raise(`One of five, ${i}`);
    app.clock.pass(6 * 60_000);
    await agree(number);
  }
  const next = await raise('The next');
  // Six minutes for the answer and an hour for the work, said to the quarter and never too early.
  expect(promised(next)).toBeCloseTo(1.1, 0);
  expect(promised(next)).toBeGreaterThanOrEqual(1.1);
  expect(promised(next)).toBeLessThan(1.36);
  expect((await read(first.number)).plan!.promisedAt).toBe(first.plan!.promisedAt);
});

test('the words at the end are filled from the ticket and its answers', async () => {
  await use(plan);
  const { number } = await raise('The scanner');
  await agree(number);
  const fetchOf = async () => (await read(number)).plan!.legs[1]!.steps[0]!;
  await until(fetchOf, ({ state }) => state === 'active');
  for (const name of ['take', 'finish']) {
    const { version } = await fetchOf();
    const moved = await rui!.call('POST', `/tickets/${number}/steps/fetch/moves`, { name, version });
    expect(moved.status).toBe(200);
  }
  const { solution } = await until(
    () => read(number),
    ({ state }) => state === 'done',
  );
  expect(solution).toBe('Done for Tomás, broken: The scanner.');
});
