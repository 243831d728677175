import type { Problem, ProblemCard, RecurringGroup } from '../../contract/problems';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** Problems: opened from incidents, looked into, known, solved, and back. */
let app: TestListo;
let [sten, alda, rui, tomas, helder, orla]: Person[] = [];
const NOW = Date.parse('2026-11-25T10:00:00Z');
const DAY = 86_400_000;

beforeAll(async () => {
  app = await startTestListo('problems');
  [sten, alda, rui, tomas, helder, orla] = await Promise.all(
    ['sten', 'alda', 'rui', 'tomas', 'helder', 'orla'].map(app.as),
  );
});
afterAll(() => app.end());
beforeEach(() => app.clock.set(NOW));

async function report(title: string): Promise<number> {
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
  const { body } = await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title, answers });
  return (body as { number: number }).number;
}
const open = (given: object = {}, by = alda!) =>
  by.call('POST', '/problems', { title: 'Kiosks freeze', teamId: 'network', ...given });
async function opened(given: object = {}): Promise<number> {
  const { status, body } = await open(given);
  if (status !== 200) throw new Error(JSON.stringify(body));
  return (body as { number: number }).number;
}
const read = async (number: number, by = alda!): Promise<Problem> =>
  (await by.call('GET', `/problems/${number}`)).body;
async function note(number: number, given: object, by = alda!) {
  const { version, stage, causeKindId, cause, workaround } = await read(number);
  return by.call('PUT', `/problems/${number}`, { version, stage, causeKindId, cause, workaround, ...given });
}
type Page = { state: string; entries: { type: string; data: Record<string, unknown> }[] };
const ticket = async (number: number): Promise<Page> => (await rui!.call('GET', `/tickets/${number}`)).body;
const faults = (answer: { body: { fields: { field: string; code: string }[] } }): string =>
  answer.body.fields.map(({ field, code }) => `${field} ${code}`).join();
const tie = (number: number, body: object, by = alda!) =>
  by.call('POST', `/problems/${number}/incidents`, body);

test('a problem is opened from incidents that may come of it, by those who work in teams', async () => {
  expect((await open({}, tomas)).status).toBe(403);
  const incident = await report('Kiosk 3 freezes on payment');
  const number = await opened({ numbers: [incident, incident] });
  expect(await read(number)).toMatchObject({
    stage: 'suspected',
    incidents: 1,
    openIncidents: 1,
    mayChange: true,
  });
  expect((await ticket(incident)).entries.find(({ type }) => type === 'problemTied')!.data).toMatchObject({
    other: number,
    tie: 'suspected',
  });
  const of = (await rui!.call('GET', `/tickets/${incident}/problems`)).body as {
    tied: ProblemCard[];
    fitting: ProblemCard[];
  };
  expect(of.tied.map((each) => each.number)).toEqual([number]);
  expect(faults(await open({ numbers: [number] }))).toBe('numbers notAnIncident');
  expect((await tomas!.call('GET', `/problems/${number}`)).status).toBe(404);
  const other = await opened({ teamId: 'apps', title: 'Roster sums wrong' });
  expect((await read(other)).teamId).toBe('apps');
});

test('incidents are confirmed, or taken off with a reason, and those are counted no more', async () => {
  const [one, two] = [await report('Kiosk 1 hangs'), await report('Kiosk 2 hangs')];
  const number = await opened({ title: 'Kiosks hang', numbers: [one, two] });
  expect((await tie(number, { numbers: [one], tie: 'confirmed' })).status).toBe(200);
  expect(faults(await tie(number, { numbers: [two], tie: 'dropped' }))).toBe('reason missing');
  expect((await tie(number, { numbers: [two], tie: 'dropped', reason: 'Out of paper' })).status).toBe(200);
  const problem = await read(number);
  expect(problem.incidents).toBe(1);
  expect(problem.tied.map((each) => [each.number, each.tie, each.reason])).toEqual(
    expect.arrayContaining([
      [one, 'confirmed', ''],
      [two, 'dropped', 'Out of paper'],
    ]),
  );
});

test('stages ask for what they claim is known; a stale or foreign hand changes nothing', async () => {
  const number = await opened({ title: 'Screens flicker' });
  expect(faults(await note(number, { stage: 'knownError' }))).toBe('cause missing,workaround missing');
  expect(faults(await note(number, { stage: 'solved', cause: 'Cable' }))).toBe('causeKindId missing');
  expect(faults(await note(number, { causeKindId: 'none' }))).toBe('causeKindId notAChoice');
  expect((await note(number, { stage: 'lookedInto' }, rui)).status).toBe(403);
  expect((await note(number, { stage: 'lookedInto' })).status).toBe(200);
  expect((await note(number, { version: 1, stage: 'suspected' })).status).toBe(409);
});

test('a known error is offered where its words fit, and its way around becomes an article', async () => {
  const number = await opened({ title: 'Badge printer prints nothing' });
  expect(faults(await alda!.call('POST', `/problems/${number}/article`))).toBe('workaround missing');
  await note(number, { stage: 'knownError', cause: 'Driver', workaround: 'Switch it off and on' });
  const incident = await report('Badge printer prints nothing again');
  const of = (await rui!.call('GET', `/tickets/${incident}/problems`)).body as { fitting: ProblemCard[] };
  expect(of.fitting[0]).toMatchObject({ number, workaround: 'Switch it off and on' });
  const { id } = (await alda!.call('POST', `/problems/${number}/article`)).body as { id: string };
  const article = await app.listo.db.tables.articles.findOne({ id });
  expect(`${article!.body.en}${article!.body.pt}`).toContain('Switch it off and on');
  expect((await alda!.call('POST', `/problems/${number}/article`)).body).toEqual({ id });
});

test('solved, those who reported it hear so; with three more of them within thirty days it is back by itself', async () => {
  const incident = await report('Turnstile reader stays red');
  const number = await opened({ title: 'Turnstile readers stay red', numbers: [incident] });
  const solved = { stage: 'solved', cause: 'Worn contacts, all replaced', causeKindId: 'fault' };
  expect((await note(number, solved)).status).toBe(200);
  expect((await ticket(incident)).entries.find(({ type }) => type === 'problemSolved')!.data).toMatchObject({
    other: number,
  });
  const told = await until(
    async () =>
      (await tomas!.call('GET', '/notifications')).body as {
        notifications: { event: string; number: number }[];
      },
    ({ notifications }) => notifications.some((each) => each.event === 'problemSolved'),
  );
  expect(told.notifications.find(({ event }) => event === 'problemSolved')!.number).toBe(incident);
  expect((await ticket(number)).state).toBe('done');
  app.clock.pass(2 * DAY);
  await report('Coffee machine leaks');
  for (const day of [1, 2]) {
    app.clock.pass(day * DAY);
    await report(`Turnstile reader stays red at gate ${day}`);
  }
  await until(
    () => read(number),
    ({ incidents }) => incidents === 3,
  );
  expect(await read(number)).toMatchObject({ stage: 'solved', backAt: null });
  app.clock.pass(DAY);
  await report('Reader of the turnstile stays red');
  const back = await until(
    () => read(number),
    ({ stage }) => stage !== 'solved',
  );
  expect(back).toMatchObject({ stage: 'lookedInto', incidents: 4, solvedAt: null });
  expect(back.backAt).not.toBeNull();
  const page = await ticket(number);
  expect(page.state).toBe('received');
  expect(page.entries.find(({ type }) => type === 'problemBack')!.data).toMatchObject({ count: 3 });
});

test('what keeps breaking is found by its words, with the problem that it belongs to', async () => {
  for (const kiosk of [1, 2, 3]) await report(`Ticket roll jammed in kiosk ${kiosk}`);
  const groups = async () =>
    (await alda!.call('GET', '/problems/recurring?days=30')).body as RecurringGroup[];
  const group = (await groups()).find(({ title }) => title.startsWith('Ticket roll'))!;
  expect(group).toMatchObject({ problem: null, serviceId: 'kiosk' });
  expect(group.numbers).toHaveLength(3);
  const number = await opened({ title: 'Ticket rolls jam', numbers: group.numbers });
  const known = (await groups()).find(({ title }) => title.startsWith('Ticket roll'))!;
  expect(known.problem).toMatchObject({ number });
  const list = (await alda!.call('GET', '/problems')).body as ProblemCard[];
  expect(list.map((each) => each.number)).toContain(number);
});

test('an incident in confidence is tied to no problem of another team, nor put with one by itself', async () => {
  const incident = await report('A word in confidence');
  await app.listo.db.tables.tickets.update({ number: incident }, { teamId: 'people', isConfidential: true });
  const number = await opened({ title: 'Another matter' });
  expect((await tie(number, { numbers: [incident], tie: 'suspected' })).status).toBe(404);
  expect(faults(await tie(number, { numbers: [incident], tie: 'suspected' }, orla))).toBe(
    'numbers confidential',
  );
  expect((await read(number)).incidents).toBe(0);
});

test('the kinds of causes are the organisation’s own; one that is in use stays', async () => {
  const { kinds, maySet } = (await sten!.call('GET', '/cause-kinds')).body as {
    kinds: { id: string }[];
    maySet: boolean;
  };
  expect(maySet).toBe(false);
  expect((await sten!.call('PUT', '/cause-kinds', { kinds })).status).toBe(403);
  const name = { en: 'Salt water', pt: '' };
  expect(
    faults(await helder!.call('PUT', '/cause-kinds', { kinds: [{ id: 'salt', name: { en: '', pt: '' } }] })),
  ).toBe('kinds missing');
  const number = await opened({ title: 'Plugs rust' });
  await note(number, { causeKindId: 'fault' });
  expect(faults(await helder!.call('PUT', '/cause-kinds', { kinds: [{ id: 'salt', name }] }))).toBe(
    'kinds inUse',
  );
  expect(
    (await helder!.call('PUT', '/cause-kinds', { kinds: [...kinds, { id: 'salt', name }] })).status,
  ).toBe(200);
  const after = (await sten!.call('GET', '/cause-kinds')).body as {
    kinds: { id: string; name: { pt: string } }[];
  };
  expect(after.kinds.at(-1)).toEqual({ id: 'salt', name: { en: 'Salt water', pt: 'Salt water' } });
});
