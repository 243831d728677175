import type { BulkJob } from '../../contract/bulk';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, rui, hanna, sofia, bia]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('bulk');
  [tomas, rui, hanna, sofia, bia] = await Promise.all(['tomas', 'rui', 'hanna', 'sofia', 'bia'].map(app.as));
});
afterAll(() => app.end());

type Page = {
  state: string;
  priority: string;
  assignee: { id: string } | null;
  version: number;
  entries: { type: string; message: { text: string } | null }[];
};

async function create(title: string): Promise<number> {
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
  const { body } = await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title, answers });
  return (body as { number: number }).number;
}
const read = async (number: number): Promise<Page> => (await rui!.call('GET', `/tickets/${number}`)).body;

async function start(by: Person, list: string, body: object): Promise<string> {
  const answer = await by.call('POST', `/worklists/${list}/bulk`, body);
  expect(answer).toMatchObject({ status: 200 });
  return (answer.body as { id: string }).id;
}
const ended = (by: Person, id: string): Promise<BulkJob> =>
  until(
    async () => (await by.call('GET', `/bulk/${id}`)).body as BulkJob,
    ({ state }) => state !== 'running',
  );

test('done to each, refused where it is not allowed and why, one line each in the journal, and undone', async () => {
  const numbers = await Promise.all(['One', 'Two', 'Three'].map(create));
  const [one, two, three] = numbers as [number, number, number];
  await rui!.call('POST', `/tickets/${three}/moves`, { name: 'take', by: 'agent', version: 1, input: {} });
  const done = { name: 'finish', by: 'agent', version: 2, input: { solution: 'Fine' } };
  await rui!.call('POST', `/tickets/${three}/moves`, done);
  const id = await start(rui!, 'teams', { numbers, deed: { kind: 'move', name: 'take' } });
  const job = await ended(rui!, id);
  expect(job).toMatchObject({ state: 'done', total: 3, done: 2, mayUndo: true, refusedCount: 1 });
  expect(job.refused).toEqual([{ number: three, title: 'Three', code: 'moveNotAllowed' }]);
  expect((await read(one)).entries.filter(({ type }) => type === 'taken')).toHaveLength(1);
  expect(await read(two)).toMatchObject({ state: 'inWork', assignee: { id: 'rui' } });
  // Someone goes on with one of them: that one stays.
  const { version } = await read(two);
  await hanna!.call('PATCH', `/tickets/${two}`, { version, title: 'Two, looked at' });
  await hanna!.call('POST', `/tickets/${two}/moves`, {
    name: 'take',
    by: 'agent',
    version: version + 1,
    input: {},
  });
  const undo = ((await rui!.call('POST', `/bulk/${id}/undo`)).body as { id: string }).id;
  expect(await ended(rui!, undo)).toMatchObject({ done: 1, refused: [{ number: two, code: 'stale' }] });
  expect(await read(one)).toMatchObject({ state: 'received', assignee: null });
  expect((await rui!.call('POST', `/bulk/${id}/undo`)).status).toBe(409);
});

test('all that a narrowed list lets through, with a ready text whose blanks fill themselves', async () => {
  const numbers = await Promise.all(['Storm A', 'Storm B'].map(create));
  await create('Calm');
  const where = JSON.stringify({ field: 'title', op: 'contains', value: 'storm' });
  const deed = { kind: 'words', text: 'Hello {name}, {number} is known to {team}.', readBy: 'requester' };
  const job = await ended(rui!, await start(rui!, 'teams', { where, deed }));
  expect(job).toMatchObject({ total: 2, done: 2, mayUndo: false });
  for (const number of numbers) {
    const said = (await read(number)).entries.flatMap(({ message }) => message?.text ?? []);
    expect(said).toContain(`Hello Tomás, ${number} is known to Onboard systems.`);
  }
});

test('more than can be done at once is refused before anything is done', async () => {
  const { select, run } = app.listo.db;
  const number = await create('Copied very often');
  const columns = await select<{ name: string }>(
    "SELECT COLUMN_NAME AS name FROM information_schema.COLUMNS WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = 'tickets' AND EXTRA = ''",
  );
  const names = columns.map(({ name }) => `t.${name}`).join();
  await run(
    `INSERT INTO tickets (${names.replaceAll('t.', '')}) SELECT ${names} FROM tickets t JOIN seq_1_to_5000 WHERE t.number = :number`,
    { number },
  );
  const where = JSON.stringify({ field: 'title', op: 'contains', value: 'very often' });
  const deed = { kind: 'move', name: 'take' };
  const answer = await rui!.call('POST', '/worklists/teams/bulk', { where, deed });
  expect(answer).toMatchObject({ status: 422, body: { type: '/problems/tooManyAtOnce' } });
  await run('DELETE FROM tickets WHERE title = :title AND number > :number', {
    ...{ title: 'Copied very often', number },
  });
  expect(await ended(rui!, await start(rui!, 'teams', { where, deed }))).toMatchObject({ done: 1 });
});

test('a change of facts rests on what was chosen: what someone changed meanwhile is refused', async () => {
  const number = await create('Priority');
  const { tables } = app.listo.db;
  const id = await start(rui!, 'teams', {
    numbers: [number],
    deed: { kind: 'facts', facts: { priority: 'P1', priorityReason: 'Storm' } },
  });
  expect(await ended(rui!, id)).toMatchObject({ done: 1 });
  expect(await read(number)).toMatchObject({ priority: 'P1' });
  // As if it had been chosen before the change.
  await tables.bulkItems.update({ jobId: id }, { state: 'waiting', version: 1 });
  await tables.bulkJobs.update(
    { id },
    {
      state: 'running',
      leaseUntil: 0,
      deed: { kind: 'facts', facts: { priority: 'P3', priorityReason: 'No' } },
    },
  );
  app.listo.wake();
  expect(await ended(rui!, id)).toMatchObject({ refused: [{ number, code: 'stale' }] });
});

test('nothing is done to what is not one’s own, and nobody reads another’s jobs', async () => {
  const number = await create('Not theirs');
  const id = await start(sofia!, 'everything', { numbers: [number], deed: { kind: 'move', name: 'take' } });
  expect(await ended(sofia!, id)).toMatchObject({ done: 0, refused: [{ number, code: 'forbidden' }] });
  expect((await bia!.call('GET', `/bulk/${id}`)).status).toBe(404);
  expect(
    (await tomas!.call('POST', '/worklists/everything/bulk', { deed: { kind: 'move', name: 'take' } }))
      .status,
  ).toBe(403);
  expect(
    (await rui!.call('POST', '/worklists/alsoTold/bulk', { deed: { kind: 'move', name: 'take' } })).status,
  ).toBe(422);
});

test('a job is gone on with by another process, and nothing is done twice', async () => {
  const numbers = await Promise.all(Array.from({ length: 12 }, (_, i) => create(`Many ${i}`)));
  const id = await start(rui!, 'teams', { numbers, deed: { kind: 'words', text: 'Noted', readBy: 'team' } });
  await app.another();
  expect(await ended(rui!, id)).toMatchObject({ done: 12, total: 12 });
  for (const number of numbers)
    expect((await read(number)).entries.filter(({ message }) => message?.text === 'Noted')).toHaveLength(1);
});
