import { factsOfEntry } from '../../core/journal';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';
import { append } from './append';
import { createEntryReader, passOver, registerConsumers, runConsumer, type Consumer } from './consumer';
import { placeEntries } from './sequencer';

const HOUR = 3_600_000;
let app: TestListo;
let tomas: Person;
let rui: Person;
beforeAll(async () => {
  app = await startTestListo('journal');
  [tomas, rui] = (await Promise.all(['tomas', 'rui'].map(app.as))) as [Person, Person];
});
afterAll(() => app.end());

const kiosk = {
  serviceId: 'kiosk',
  title: 'Kiosk',
  answers: { site: 'x', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' },
};
const create = async (body: object): Promise<number> =>
  ((await tomas.call('POST', '/tickets', body)).body as { number: number }).number;
const typesOf = async (number: number) =>
  (await app.listo.db.tables.journal.find({ ticketNumber: number }, { order: ['id'] })).map(
    ({ type }) => type,
  );
const stateOf = async (number: number) => (await app.listo.db.tables.tickets.findOne({ number }))!.state;

test('the journal is never rewritten or deleted', async () => {
  const number = await create(kiosk);
  await until(
    () => app.listo.db.tables.journal.findOne({ ticketNumber: number }),
    (entry) => entry?.position != null,
  );
  const { run } = app.listo.db;
  await expect(
    run("UPDATE journal SET type = 'other' WHERE ticketNumber = :number", { number }),
  ).rejects.toThrow('never rewritten');
  await expect(run('DELETE FROM journal WHERE ticketNumber = :number', { number })).rejects.toThrow(
    'never deleted',
  );
});

test('an entry that commits after one with a higher id is not skipped', async () => {
  const { listo } = app;
  const entry = { actorId: null, via: 'rule' as const, ticketNumber: null, audience: 'team' as const };
  const seen: string[] = [];
  const watcher: Consumer = {
    name: 'watcher',
    hears: () => true,
    handle: (_, entries) => Promise.resolve(void seen.push(...entries.map(({ type }) => type))),
  };
  await listo.db.run(
    "INSERT INTO consumers (name, position) SELECT 'watcher', COALESCE(MAX(position), 0) FROM journal",
  );
  const slow = await listo.db.sequelize.transaction();
  await append({ listo, tx: slow }, { ...entry, type: 'categoriesChanged' });
  await listo.db.transaction((tx) => append({ listo, tx }, { ...entry, type: 'chatSet' }));
  const look = async () => {
    await placeEntries(listo.db);
    await runConsumer(listo, watcher);
    return seen;
  };
  await until(look, (types) => types.includes('chatSet'));
  expect(seen).toEqual(['chatSet']);
  await slow.commit();
  await until(look, (types) => types.includes('categoriesChanged'));
  expect(seen).toEqual(['chatSet', 'categoriesChanged']);
  await listo.db.tables.consumers.remove({ name: 'watcher' });
});

test('consumers that hear nothing of what is new come along without being asked, the others stay', async () => {
  const { listo } = app;
  const entry = { actorId: null, via: 'rule' as const, ticketNumber: null, audience: 'team' as const };
  const begin = (name: string) =>
    listo.db.run(
      'INSERT INTO consumers (name, position) SELECT :name, COALESCE(MAX(position), 0) FROM journal',
      { name },
    );
  const heard: string[] = [];
  const listener = (name: string, wanted: string): Consumer => ({
    name,
    hears: ({ type }) => type === wanted,
    handle: (_, entries) => Promise.resolve(void heard.push(...entries.map(({ type }) => `${name} ${type}`))),
  });
  const consumers = [
    listener('north', 'chatSet'),
    listener('south', 'teamMade'),
    listener('deaf', 'nothing'),
  ];
  for (const { name } of consumers) await begin(name);
  const from = (await listo.db.tables.consumers.findOne({ name: 'deaf' }))!.position;
  const made = { type: 'teamMade', data: { teamId: 'pier', name: 'Pier' } } as const;
  for (const each of [
    { type: 'chatSet' },
    { type: 'categoriesChanged' },
    made,
    { type: 'categoriesChanged' },
  ] as const)
    await listo.db.transaction((tx) => append({ listo, tx }, { ...entry, ...each }));
  await until(
    () => placeEntries(listo.db).then(() => listo.db.tables.journal.find({ position: null })),
    (unplaced) => unplaced.length === 0,
  );

  const { moved, left } = await passOver(listo, consumers, createEntryReader(listo));
  expect([moved, left.map(({ name }) => name)]).toEqual([1, ['north', 'south']]);
  for (const consumer of left) await runConsumer(listo, consumer);
  expect(heard).toEqual(['north chatSet', 'south teamMade']);
  const rows = await listo.db.tables.consumers.find({ name: ['north', 'south', 'deaf'] } as never);
  expect(new Set(rows.map(({ position }) => position)).size).toBe(1);
  expect(rows[0]!.position).toBeGreaterThanOrEqual(from + 4);
  expect(await passOver(listo, consumers, createEntryReader(listo))).toEqual({ moved: 0, left: [] });
  for (const { name } of consumers) await listo.db.tables.consumers.remove({ name });
});

test('a process starts while a consumer of another works; a new one begins at the present end', async () => {
  const { db } = app.listo;
  const named = (name: string): Consumer => ({ name, hears: () => true, handle: () => Promise.resolve() });
  const isThere = () => db.tables.consumers.findOne({ name: 'newcomer' });
  await db.run("INSERT INTO consumers (name, position) VALUES ('working', 7)");
  await db.transaction(async (tx) => {
    await db.select("SELECT position FROM consumers WHERE name = 'working' FOR UPDATE", {}, tx);
    // Its row is locked all the while: to wait for it would last until the lock's own time is out, and fail.
    await registerConsumers(app.listo, [named('working')]);
  });
  expect((await db.tables.consumers.findOne({ name: 'working' }))!.position).toBe(7);
  expect(await isThere()).toBeNull();
  await registerConsumers(app.listo, [named('working'), named('newcomer')]);
  const [end] = await db.select<{ position: number }>('SELECT MAX(position) AS position FROM journal');
  expect((await isThere())!.position).toBeLessThanOrEqual(end!.position);
  expect((await isThere())!.position).toBeGreaterThan(0);
  for (const name of ['working', 'newcomer']) await db.tables.consumers.remove({ name });
});

test('a consumer that fails half way leaves nothing and comes again', async () => {
  const { listo } = app;
  await listo.db.run(
    "INSERT INTO consumers (name, position) SELECT 'clumsy', COALESCE(MAX(position), 0) FROM journal",
  );
  await create(kiosk);
  let tries = 0;
  const clumsy: Consumer = {
    name: 'clumsy',
    hears: () => true,
    async handle({ db }, _entries, tx) {
      await db.tables.settings.insert({ name: `try-${++tries}`, value: 1 }, tx);
      if (tries === 1) throw new Error('killed');
    },
  };
  const attempt = async () => {
    await placeEntries(listo.db);
    return runConsumer(listo, clumsy).catch(() => 0);
  };
  await until(attempt, (handled) => handled > 0);
  expect((await listo.db.tables.settings.find({})).map(({ name }) => name)).toEqual(
    expect.not.arrayContaining(['try-1']),
  );
  await listo.db.tables.consumers.remove({ name: 'clumsy' });
});

describe('at the instant', () => {
  test('warned and late, once each, in order, marked when they come late', async () => {
    const number = await create(kiosk);
    const clock = await until(
      () => app.listo.db.tables.clocks.findOne({ ticketNumber: number, targetId: 'first-answer' }),
      (row) => row !== null,
    );
    app.clock.set(clock!.dueAt! + 60_000);
    const types = await until(
      () => typesOf(number),
      (seen) => seen.includes('late'),
    );
    expect(types.filter((type) => type === 'warned')).not.toHaveLength(0);
    const notices = await app.listo.db.tables.journal.find(
      { ticketNumber: number, type: ['warned', 'late'] } as never,
      { order: ['id'] },
    );
    const firstAnswer = notices.filter((entry) => factsOfEntry(entry).targetId === 'first-answer');
    expect(firstAnswer.map((entry) => [entry.type, factsOfEntry(entry).isOverdueNotice])).toEqual([
      ['warned', true],
      ['late', true],
    ]);
    await rui.call('GET', `/tickets/${number}`);
  });

  test('done and unanswered, a ticket closes after five working days, not before', async () => {
    const number = await create(kiosk);
    const version = async () =>
      ((await rui.call('GET', `/tickets/${number}`)).body as { version: number }).version;
    await rui.call('POST', `/tickets/${number}/moves`, {
      name: 'finish',
      by: 'agent',
      version: await version(),
      input: { solution: 'x' },
    });
    const timer = await until(
      () => app.listo.db.tables.timers.findOne({ ticketNumber: number, kind: 'closeTicket' }),
      (row) => row !== null,
    );
    const { resolvedAt } = (await app.listo.db.tables.tickets.findOne({ number }))!;
    const calendar = (await app.listo.calendars.getAll()).terminals!;
    expect(calendar.workingBetween(resolvedAt!, timer!.at)).toBe(5 * 17.5 * HOUR);
    app.clock.set(timer!.at + 1);
    await until(
      () => stateOf(number),
      (state) => state === 'closed',
    );
    expect((await typesOf(number)).at(-1)).toBe('closed');
  });
});
