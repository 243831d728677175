import { startTestListo, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, rui, hanna, bia, helder]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('procedures');
  [tomas, rui, hanna, bia, helder] = await Promise.all(
    ['tomas', 'rui', 'hanna', 'bia', 'helder'].map(app.as),
  );
});
afterAll(() => app.end());

const words = (en: string, pt = '') => ({ en, pt });
const step = (id: string, name: string) => ({
  id,
  name: words(name),
  who: words('Assignee'),
  instruction: words(`**${name}** well`),
});
const kiosk = {
  ...{
    teamId: 'onboard',
    serviceId: 'kiosk',
    kind: null,
    name: words('A frozen kiosk'),
    overview: words('Two steps.'),
  },
  steps: [step('restart', 'Restart it'), step('test', 'Test a sale')],
};
const incidents = {
  ...kiosk,
  serviceId: null,
  kind: 'incident',
  name: words('Any incident'),
  steps: [step('look', 'Look')],
};

async function create(): Promise<number> {
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
  const { body } = await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title: 'Kiosk 3', answers });
  return (body as { number: number }).number;
}
type OfTicket = {
  procedure: { id: string; name: object; version: number } | null;
  ticks: { stepId: string; by: { id: string } }[];
};
const ofTicket = async (by: Person, number: number) =>
  (await by.call('GET', `/tickets/${number}/procedure`)).body as OfTicket;

test('the most specific way of doing it stands beside a ticket, and is ticked off into its journal', async () => {
  const number = await create();
  expect((await ofTicket(rui!, number)).procedure).toBeNull();
  expect((await helder!.call('POST', '/procedures', incidents)).status).toBe(200);
  expect((await ofTicket(rui!, number)).procedure!.name).toEqual(words('Any incident', 'Any incident'));
  expect((await helder!.call('POST', '/procedures', kiosk)).status).toBe(200);
  const tick = (by: Person, id: string, isDone: boolean) =>
    by.call('PUT', `/tickets/${number}/procedure/${id}`, { isDone });
  expect((await tick(rui!, 'restart', true)).status).toBe(200);
  expect((await tick(hanna!, 'test', true)).status).toBe(200);
  expect((await tick(hanna!, 'test', false)).status).toBe(200);
  expect((await tick(rui!, 'look', true)).status).toBe(409);
  expect((await tick(tomas!, 'test', true)).status).toBe(403);
  expect(await ofTicket(hanna!, number)).toMatchObject({
    procedure: { name: { en: 'A frozen kiosk' } },
    ticks: [{ stepId: 'restart', by: { id: 'rui' } }],
  });
  const entries = await app.listo.db.tables.journal.find({ ticketNumber: number }, { order: ['id'] });
  expect(entries.map(({ type }) => type).filter((type) => type.startsWith('procedure'))).toEqual([
    'procedureTicked',
    'procedureTicked',
    'procedureUnticked',
  ]);
  expect((await tomas!.call('GET', `/tickets/${number}/procedure`)).status).toBe(403);
});

test('those who lead or set up a team write it, once for each thing; nothing is overwritten unseen', async () => {
  expect((await bia!.call('POST', '/procedures', kiosk)).status).toBe(403);
  expect((await helder!.call('POST', '/procedures', kiosk)).body).toMatchObject({
    fields: [{ field: 'serviceId', code: 'isWritten' }],
  });
  expect((await helder!.call('POST', '/procedures', { ...kiosk, kind: 'incident' })).body).toMatchObject({
    fields: [{ field: 'serviceId', code: 'notAChoice' }],
  });
  expect(
    (
      await helder!.call('POST', '/procedures', {
        ...kiosk,
        serviceId: 'gate-scanner',
        steps: [step('a', ' ')],
      })
    ).body,
  ).toMatchObject({ fields: [{ field: 'steps.0.name', code: 'missing' }] });
  const list = (await rui!.call('GET', '/procedures')).body as {
    id: string;
    serviceId: string;
    version: number;
    mayEdit: boolean;
  }[];
  const { id } = list.find(({ serviceId }) => serviceId === 'kiosk')!;
  const change = { ...kiosk, name: words('A kiosk that is frozen'), version: 1 };
  expect((await bia!.call('PUT', `/procedures/${id}`, change)).status).toBe(403);
  expect((await helder!.call('PUT', `/procedures/${id}`, change)).body).toEqual({ version: 2 });
  expect((await helder!.call('PUT', `/procedures/${id}`, change)).status).toBe(409);
  expect((await helder!.call('DELETE', `/procedures/${id}`)).status).toBe(200);
  expect((await helder!.call('DELETE', `/procedures/${id}`)).status).toBe(404);
});
