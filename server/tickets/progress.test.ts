import type { Ticket, TicketRow } from '../../contract/tickets';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** How far a request is, in its team's own words. */
let app: TestListo;
let [tomas, jonas, helder]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('progress');
  [tomas, jonas, helder] = await Promise.all(['tomas', 'jonas', 'helder'].map(app.as));
});
afterAll(() => app.end());

test('a label that counts as finished marks the ticket, taking it back takes the mark back, and its requester reads it', async () => {
  const body = { serviceId: 'spares', title: 'Rope', answers: { parts: [{ part: 'Rope', many: 2 }] } };
  const { number } = (await tomas!.call('POST', '/tickets', body)).body as { number: number };
  const read = async (by: Person): Promise<Ticket> =>
    (await by.call('GET', `/tickets/${number}`)).body as Ticket;
  const put = async (progressId: string | null): Promise<number> =>
    (await jonas!.call('PATCH', `/tickets/${number}`, { version: (await read(jonas!)).version, progressId }))
      .status;
  expect(await put('nosuch')).toBe(422);
  expect(await put('delivered')).toBe(200);
  const ticket = await read(tomas!);
  expect(ticket).toMatchObject({ progress: { name: { en: 'delivered' } } });
  expect(ticket.progressFinishedAt).not.toBeNull();
  const { rows } = (await jonas!.call('GET', '/worklists/unassigned')).body as { rows: TicketRow[] };
  expect(rows.find((row) => row.number === number)).toMatchObject({ progress: { id: 'delivered' } });
  expect(await put('ordered')).toBe(200);
  expect(await read(tomas!)).toMatchObject({ progress: { id: 'ordered' }, progressFinishedAt: null });
  expect(await put(null)).toBe(200);
  expect(await read(tomas!)).toMatchObject({ progress: null, progressFinishedAt: null });
});

test('a team’s labels are set by those who answer for it', async () => {
  const teams = (await helder!.call('GET', '/teams')).body as { id: string; version: number }[];
  const { version } = teams.find(({ id }) => id === 'desk')!;
  const label = { id: 'asked', name: { en: 'asked around', pt: 'perguntado' }, isFinished: false };
  const save = (by: Person, progressLabels: object[]) =>
    by.call('PATCH', '/teams/desk', { version, progressLabels });
  expect((await save(jonas!, [label])).status).toBe(403);
  expect((await save(helder!, [{ ...label, name: { en: 'asked', pt: ' ' } }])).status).toBe(422);
  expect((await save(helder!, [label, label])).status).toBe(422);
  expect((await save(helder!, [label])).status).toBe(200);
});

test('a lead names how far their own team’s work is, and sets up nothing else by that', async () => {
  const versionOf = async (id: string): Promise<number> =>
    ((await helder!.call('GET', '/teams')).body as { id: string; version: number }[]).find(
      (team) => team.id === id,
    )!.version;
  const save = async (id: string, body: object) =>
    (await jonas!.call('PATCH', `/teams/${id}`, { version: await versionOf(id), ...body })).status;
  const progressLabels = [{ id: 'cut', name: { en: 'cut to size', pt: 'cortado' }, isFinished: false }];
  expect(await save('stores', { progressLabels })).toBe(200);
  expect(await save('stores', { progressLabels, decidesInChat: false })).toBe(403);
  expect(await save('stores', { answersMail: true })).toBe(403);
  expect(await save('desk', { progressLabels })).toBe(403);
});

test('what counts as finished decides whether a due date by hand was kept, also when it is made to count afterwards', async () => {
  const body = { serviceId: 'spares', title: 'Shackles', answers: { parts: [{ part: 'Shackle', many: 4 }] } };
  const { number } = (await tomas!.call('POST', '/tickets', body)).body as { number: number };
  const read = async (): Promise<Ticket> => (await jonas!.call('GET', `/tickets/${number}`)).body as Ticket;
  const put = async (facts: object) =>
    expect(
      (await jonas!.call('PATCH', `/tickets/${number}`, { version: (await read()).version, ...facts }))
        .status,
    ).toBe(200);
  const setLabels = async (isFinished: boolean) => {
    const teams = (await helder!.call('GET', '/teams')).body as { id: string; version: number }[];
    const { version } = teams.find(({ id }) => id === 'stores')!;
    const progressLabels = [{ id: 'packed', name: { en: 'packed', pt: 'embalado' }, isFinished }];
    expect((await jonas!.call('PATCH', '/teams/stores', { version, progressLabels })).status).toBe(200);
  };
  const standing = async (): Promise<string> => (await read()).due!.standing;
  await setLabels(false);
  const at = app.clock.now() + 3_600_000;
  await put({ due: { at } });
  await put({ progressId: 'packed' });
  const labelledAt = (await read()).entries.at(-1)!.at;
  app.clock.pass(7_200_000);
  expect(await standing()).toBe('past');
  // It was packed an hour before it was due.
  await setLabels(true);
  await until(standing, (stands) => stands === 'inTime');
  expect((await read()).progressFinishedAt).toBe(labelledAt);
  // What is finished is no longer due.
  const isDue = async (): Promise<boolean> =>
    (await app.listo.db.tables.tickets.findOne({ number }))!.tightestDueAt === at;
  await until(isDue, (isIt) => !isIt);
  // No sentence that says nothing stands in its history.
  expect(
    (await read()).entries.filter(
      ({ type, changes }) => type === 'changed' && Object.keys(changes).length === 0,
    ),
  ).toEqual([]);
  await setLabels(false);
  await until(standing, (stands) => stands === 'past');
  await until(isDue, Boolean);
});
