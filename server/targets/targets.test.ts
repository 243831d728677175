import { factsOfEntry } from '../../core/journal';
import type { Target } from '../../contract/targets';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** What promises do as time runs out, who may change that, and what they attach to. */
let app: TestListo;
let [helder, hanna, tomas, ana, rui]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('targets');
  [helder, hanna, tomas, ana, rui] = await Promise.all(
    ['helder', 'hanna', 'tomas', 'ana', 'rui'].map(app.as),
  );
});
afterAll(() => app.end());

const list = async (person: Person): Promise<Target[]> => (await person.call('GET', '/targets')).body;
const find = async (id: string): Promise<Target> => (await list(helder!)).find((each) => each.id === id)!;
async function update(id: string, change: object, person = helder!) {
  return person.call('PATCH', `/targets/${id}`, { version: (await find(id)).version, ...change });
}
async function create(body: object): Promise<number> {
  return ((await tomas!.call('POST', '/tickets', body)).body as { number: number }).number;
}
const kiosk = {
  serviceId: 'kiosk',
  title: 'Kiosk 3 frozen',
  answers: { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' },
};
const clockOf = (ticketNumber: number, targetId: string) =>
  app.listo.db.tables.clocks.find({ ticketNumber, targetId }).then(([clock]) => clock ?? null);
const ticketOf = async (number: number) => (await app.listo.db.tables.tickets.findOne({ number }))!;
const toldOf = (number: number) => app.listo.db.tables.notifications.find({ ticketNumber: number });

test('at its percentage a promise tells whom it names, in its own words, each in their language', async () => {
  const notice = { handTo: null, raisesPriority: false };
  const words = {
    en: '{number}: {percent} % of {target} is used',
    pt: '{number}: {percent} % de {target} gasto',
  };
  const notices = [
    { ...notice, percent: 50, tell: ['lead'], words },
    { ...notice, percent: 100, tell: [], words: null },
  ];
  expect((await update('first-answer', { notices })).status).toBe(200);
  const number = await create(kiosk);
  await until(
    () => clockOf(number, 'first-answer'),
    (clock) => clock?.state === 'running',
  );
  // P2: an answer within half an hour.
  app.clock.pass(16 * 60_000);
  const told = await until(
    () => toldOf(number),
    (rows) => rows.some(({ event }) => event === 'warned'),
  );
  expect(
    told.filter(({ event }) => event === 'warned').map(({ personId, words: said }) => [personId, said?.en]),
  ).toEqual([['rui', `${number}: 50 % of First answer is used`]]);
  const { body } = await rui!.call('GET', '/notifications');
  expect(JSON.stringify(body)).toContain('50 % of First answer is used');
  app.clock.pass(16 * 60_000);
  await until(
    () => app.listo.db.tables.journal.find({ ticketNumber: number, type: 'late' }),
    (rows) => rows.map(factsOfEntry).some(({ targetId }) => targetId === 'first-answer'),
  );
  const late = (await toldOf(number)).filter(({ event }) => event === 'late');
  expect(late.filter(({ relation }) => relation === 'lead')).toEqual([]);
});

test('at its breach a promise hands the ticket on and makes it more urgent, and that is on the record', async () => {
  const act = { percent: 100, tell: ['lead'], words: null, raisesPriority: true };
  const handTo = { teamId: 'network', groupId: null, personId: 'alda' };
  expect((await update('taken-up', { notices: [{ ...act, handTo }] })).status).toBe(200);
  const number = await create(kiosk);
  expect((await ticketOf(number)).priority).toBe('P2');
  await until(
    () => clockOf(number, 'taken-up'),
    (clock) => clock?.state === 'running',
  );
  app.clock.pass(21 * 60_000);
  const ticket = await until(
    () => ticketOf(number),
    ({ teamId }) => teamId === 'network',
  );
  expect(ticket).toMatchObject({
    priority: 'P1',
    priorityReason: 'Taken up',
    assigneeId: 'alda',
    state: 'inWork',
  });
  const entries = await app.listo.db.tables.journal.find({ ticketNumber: number }, { order: ['id'] });
  const by = entries.filter(({ via }) => via === 'timer' || via === 'rule').map(({ type }) => type);
  expect(by).toEqual(expect.arrayContaining(['late', 'changed', 'givenOn']));
  // More urgent, it is judged by the new limit.
  await until(
    () => clockOf(number, 'resolution'),
    (clock) => clock?.limit === 4 * 3_600_000,
  );
});

test('an approval has a clock of its own, and its approver is told', async () => {
  const answers = { site: 'Port Alder', sort: 'hand', count: 1 };
  const number = await create({ serviceId: 'gate-scanner', title: 'Scanner', answers });
  const clock = await until(
    () => clockOf(number, 'decision'),
    (row) => row?.state === 'running',
  );
  expect(clock!.work).toMatch(/^approval:/);
  const { body } = await ana!.call('GET', '/my/asks');
  const [ask] = (body as { id: string; number: number }[]).filter((each) => each.number === number);
  expect(
    (await ana!.call('POST', `/asks/${ask!.id}/decision`, { decision: 'approve', words: '' })).status,
  ).toBe(200);
  await until(
    () => clockOf(number, 'decision'),
    (row) => row?.state === 'met',
  );
  const other = await create({ serviceId: 'gate-scanner', title: 'Another', answers });
  await until(
    () => clockOf(other, 'decision'),
    (row) => row?.state === 'running',
  );
  const { version } = await ticketOf(other);
  await tomas!.call('POST', `/tickets/${other}/moves`, {
    name: 'withdraw',
    by: 'requester',
    version,
    input: {},
  });
  await until(
    () => clockOf(other, 'decision'),
    (row) => row?.state === 'cancelled',
  );
});

test('switched off, a promise is not shown, warns nobody and comes back as if it had never gone', async () => {
  const number = await create(kiosk);
  await until(
    () => clockOf(number, 'resolution'),
    (clock) => clock?.state === 'running',
  );
  const shown = async (): Promise<string[]> => {
    const { body } = await rui!.call('GET', `/tickets/${number}`);
    return (body as { clocks: { targetId: string }[] }).clocks.map(({ targetId }) => targetId);
  };
  expect(await shown()).toContain('resolution');
  expect((await update('resolution', { isOn: false })).status).toBe(200);
  expect(await shown()).not.toContain('resolution');
  await until(
    () => clockOf(number, 'resolution'),
    (clock) => clock?.owed.length === 0,
  );
  expect((await update('resolution', { isOn: true })).status).toBe(200);
  await until(
    () => clockOf(number, 'resolution'),
    (clock) => clock?.owed.some(([what, at]) => what === 'late' && at === clock.dueAt) ?? false,
  );
});

test('a new team begins with two promises, which its administrator may change and others not', async () => {
  const name = { en: 'Crewing', pt: 'Tripulações' };
  const { status, body } = await helder!.call('POST', '/teams', { name, calendarId: 'office' });
  expect(status).toBe(200);
  const { id, targetIds } = body as { id: string; targetIds: string[] };
  const own = (await list(helder!)).filter(({ teamId }) => teamId === id);
  expect(own.map(({ measures }) => measures)).toEqual(['firstAnswer', 'resolution']);
  expect((await update(targetIds[0]!, { isOn: false }, hanna)).status).toBe(403);
  await app.listo.db.tables.members.insert({
    teamId: id,
    personId: 'joel',
    role: 'teamAdministrator',
    groupId: null,
  });
  const joel = await app.as('joel');
  expect((await update(targetIds[0]!, { isOn: false }, joel)).status).toBe(200);
  expect((await list(joel)).find((each) => each.id === targetIds[0])).toMatchObject({
    isOn: false,
    mayEdit: true,
  });
  expect((await hanna!.call('POST', '/teams', { name, calendarId: 'office' })).status).toBe(403);
});

test('one percentage cannot do two things', async () => {
  const notice = { percent: 50, tell: [], words: null, handTo: null, raisesPriority: false };
  const { body } = await update('resolution', { notices: [notice, notice] });
  expect(body).toMatchObject({ fields: [{ field: 'notices', code: 'repeated' }] });
});
