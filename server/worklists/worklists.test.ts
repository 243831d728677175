import type { ListRow, OwnWorklist } from '../../contract/worklists';
import type { Condition } from '../../core/conditions';
import { DEFAULT_WEIGHTS, GIVEN_NAMES, PLAIN } from '../../core/worklist';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, rui, hanna, ivo, sofia, bia]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('worklists');
  [tomas, rui, hanna, ivo, sofia, bia] = await Promise.all(
    ['tomas', 'rui', 'hanna', 'ivo', 'sofia', 'bia'].map(app.as),
  );
});
afterAll(() => app.end());

type Page = { rows: ListRow[]; next: string | null; total: { count: number; isMore: boolean } };

const kiosk = (title: string, urgency = 'stopsWork') => ({
  serviceId: 'kiosk',
  title,
  answers: { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency },
});

async function create(by: Person, body: object): Promise<number> {
  const { status, body: answer } = await by.call('POST', '/tickets', body);
  expect(status).toBe(200);
  return (answer as { number: number }).number;
}

async function page(by: Person, list: string, asked: Record<string, string> = {}): Promise<Page> {
  const { status, body } = await by.call('GET', `/worklists/${list}?${new URLSearchParams(asked)}`);
  expect(status).toBe(200);
  return body;
}

const numbersOf = ({ rows }: Page): number[] => rows.map(({ number }) => number);

async function move(by: Person, number: number, name: string, input: object = {}): Promise<void> {
  const { version } = (await by.call('GET', `/tickets/${number}`)).body as { version: number };
  const { status } = await by.call('POST', `/tickets/${number}/moves`, { name, by: 'agent', version, input });
  expect(status).toBe(200);
}

const listOf = (name: string, condition: Condition, more: object = {}) => ({
  name,
  teamId: null,
  definition: { ...PLAIN, condition, ...more },
});

async function keep(by: Person, body: object): Promise<string> {
  const answer = await by.call('POST', '/worklists', body);
  expect(answer).toMatchObject({ status: 200 });
  return (answer.body as { id: string }).id;
}

test('every given list answers, and each ticket stands where its turn puts it', async () => {
  const number = await create(tomas!, kiosk('Given'));
  for (const name of GIVEN_NAMES) await page(rui!, name);
  const standsIn = async (...names: string[]) => {
    for (const name of ['nextUp', 'mine', 'teams', 'unassigned', 'held', 'done', 'closed', 'everything'])
      expect([name, numbersOf(await page(rui!, name)).includes(number)]).toEqual([
        name,
        names.includes(name),
      ]);
  };
  await standsIn('nextUp', 'teams', 'unassigned', 'everything');
  await move(rui!, number, 'take');
  await standsIn('nextUp', 'mine', 'teams', 'everything');
  await move(rui!, number, 'hold', { heldFor: 'supplier', reason: 'Part ordered' });
  await standsIn('mine', 'teams', 'held', 'everything');
  await move(rui!, number, 'resume');
  await move(rui!, number, 'finish', { solution: 'Swapped' });
  await standsIn('done', 'everything');
  const { version } = (await tomas!.call('GET', `/tickets/${number}`)).body as { version: number };
  await tomas!.call('POST', `/tickets/${number}/moves`, {
    name: 'confirm',
    by: 'requester',
    version,
    input: { rating: 5 },
  });
  await standsIn('closed', 'everything');
  const closed = await until(
    () => page(rui!, 'closed'),
    ({ rows }) => rows[0]?.standing !== null,
  );
  expect(closed.rows[0]).toMatchObject({ number, standing: 'inTime' });
  expect(numbersOf(await page(hanna!, 'openedByMe'))).not.toContain(number);
  const raised = await create(hanna!, { ...kiosk('By phone'), requesterId: 'tomas', via: 'phone' });
  expect(numbersOf(await page(hanna!, 'openedByMe'))).toContain(raised);
  await rui!.call('PUT', `/tickets/${raised}/followers`, { personId: 'ivo', role: 'alsoTold' });
  expect(numbersOf(await page(ivo!, 'alsoTold'))).toEqual([raised]);
});

test('next up goes by what is due, with a head start for what matters more, and says why', async () => {
  const small = await create(tomas!, kiosk('Small', 'canWait'));
  const urgent = await create(tomas!, kiosk('Urgent'));
  const before = await until(
    () => page(rui!, 'nextUp'),
    ({ rows }) =>
      rows.filter(
        ({ number, clocks, reasons }) =>
          [small, urgent].includes(number) && clocks.length > 0 && reasons[0]!.kind === 'due',
      ).length === 2,
  );
  const order = numbersOf(before);
  expect(order.indexOf(urgent)).toBeLessThan(order.indexOf(small));
  const reasons = before.rows.find(({ number }) => number === urgent)!.reasons.map(({ kind }) => kind);
  expect(reasons).toEqual(expect.arrayContaining(['due', 'priority', 'waiting']));
  // Once answered, nobody waits for a word.
  await rui!.call('POST', `/tickets/${urgent}/messages`, { text: 'On it', readBy: 'requester' });
  const { rows } = await page(rui!, 'nextUp');
  expect(rows.find(({ number }) => number === urgent)!.reasons.map(({ kind }) => kind)).not.toContain(
    'waiting',
  );
  await tomas!.call('POST', `/tickets/${urgent}/messages`, { text: 'And?', readBy: 'requester' });
  const again = await page(rui!, 'nextUp');
  expect(again.rows.find(({ number }) => number === urgent)!.waitsSince).not.toBeNull();
});

test('a lead tries other weights, then sets them; the order follows', async () => {
  const weights = { ...DEFAULT_WEIGHTS, priority: { P1: 0, P2: 0, P3: 0, P4: 0 }, waiting: 0 };
  expect((await ivo!.call('POST', '/teams/onboard/order/trial', { weights })).status).toBe(403);
  const tried = (await rui!.call('POST', '/teams/onboard/order/trial', { weights })).body as {
    rows: { number: number; now: number; then: number }[];
  };
  expect(tried.rows.length).toBeGreaterThan(1);
  const wrong = { ...weights, priority: { P1: 1, P2: 5, P3: 0, P4: 0 } };
  expect((await rui!.call('POST', '/teams/onboard/order/trial', { weights: wrong })).status).toBe(422);
  const teams = (await rui!.call('GET', '/teams')).body as { id: string; version: number }[];
  const { version } = teams.find(({ id }) => id === 'onboard')!;
  expect((await rui!.call('PUT', '/teams/onboard/order', { weights, version })).status).toBe(200);
  expect((await rui!.call('PUT', '/teams/onboard/order', { weights, version })).status).toBe(409);
  const after = numbersOf(await page(rui!, 'unassigned'));
  const expected = tried.rows.map(({ number }) => number).filter((number) => after.includes(number));
  expect(after.filter((number) => expected.includes(number))).toEqual(expected);
});

test('pages follow each other without a gap or a double, in every order', async () => {
  for (let i = 0; i < 7; i++) await create(tomas!, kiosk(`Page ${i}`, i % 2 ? 'canWait' : 'stopsWork'));
  await until(
    () => page(rui!, 'everything', { limit: '200' }),
    ({ rows }) => rows.every(({ clocks }) => clocks.length > 0),
  );
  for (const order of ['next', 'tightest', 'newest', 'oldest', 'changed', 'closed', 'priority'])
    for (const groupBy of ['none', 'state', 'priority', 'assigneeId']) {
      const whole = await page(rui!, 'everything', { order, groupBy, limit: '200' });
      const seen: number[] = [];
      let after: string | null = null;
      do {
        const part: Page = await page(rui!, 'everything', {
          order,
          groupBy,
          limit: '3',
          ...(after && { after }),
        });
        seen.push(...numbersOf(part));
        after = part.next;
      } while (after !== null);
      expect({ order, groupBy, seen }).toEqual({ order, groupBy, seen: numbersOf(whole) });
    }
  expect((await rui!.call('GET', '/worklists/everything?after=nonsense')).status).toBe(422);
});

test('a list of one’s own: conditions, marks, sharing, and who may change it', async () => {
  const number = await create(tomas!, kiosk('Turnstile at the pier'));
  const pier: Condition = { field: 'title', op: 'contains', value: 'PIER' };
  const id = await keep(
    rui!,
    listOf('Pier', pier, { marks: [{ condition: pier, look: 'sea', means: 'By the pier' }] }),
  );
  const shown = await page(rui!, id);
  expect(numbersOf(shown)).toEqual([number]);
  expect(shown.rows[0]).toMatchObject({ mark: 0 });
  expect((await hanna!.call('GET', `/worklists/${id}`)).status).toBe(404);
  const shared = { ...listOf('Pier', pier), teamId: 'onboard', version: 1 };
  expect((await hanna!.call('PUT', `/worklists/${id}`, shared)).status).toBe(404);
  expect((await rui!.call('PUT', `/worklists/${id}`, { ...shared, teamId: 'people' })).status).toBe(422);
  expect((await rui!.call('PUT', `/worklists/${id}`, shared)).status).toBe(200);
  expect(numbersOf(await page(ivo!, id))).toEqual([number]);
  expect((await ivo!.call('PUT', `/worklists/${id}`, { ...shared, version: 2 })).status).toBe(403);
  expect((await bia!.call('GET', `/worklists/${id}`)).status).toBe(404);
  expect((await rui!.call('PUT', `/worklists/${id}`, shared)).status).toBe(409);
  const [listed] = (await ivo!.call('GET', '/worklists')).body as OwnWorklist[];
  expect(listed).toMatchObject({ id, mayEdit: false, isOrphaned: false, owner: { id: 'rui' } });
  expect((await rui!.call('PUT', '/worklists/everything', { ...shared, version: 1 })).status).toBe(403);
});

test('a shared list outlives its owner, and whoever leads the team takes it over', async () => {
  const late = listOf('Late', { field: 'isLate', op: 'is', value: true });
  const id = await keep(ivo!, { ...late, teamId: 'onboard' });
  await app.listo.db.tables.people.update({ id: 'ivo' }, { leftAt: 1 });
  const found = ((await hanna!.call('GET', '/worklists')).body as OwnWorklist[]).find(
    (list) => list.id === id,
  );
  expect(found).toMatchObject({ isOrphaned: true, mayEdit: true });
  await page(hanna!, id);
  await hanna!.call('PUT', `/worklists/${id}`, { ...late, teamId: 'onboard', version: 1 });
  expect((await app.listo.db.tables.worklists.findOne({ id }))!.ownerId).toBe('hanna');
  await app.listo.db.tables.people.update({ id: 'ivo' }, { leftAt: null as never });
});

test('a condition on what there is no more is refused when kept, and said where it was kept before', async () => {
  const gone: Condition = { field: 'colour', op: 'is', value: 'red' };
  expect((await rui!.call('POST', '/worklists', listOf('Gone', gone))).body).toMatchObject({
    fields: [{ field: 'condition.colour', code: 'unknownField' }],
  });
  await app.listo.db.tables.worklists.insert({
    ...{ id: 'old', ownerId: 'rui', teamId: null, name: 'Old', version: 1, changedAt: 1 },
    definition: { ...PLAIN, condition: gone },
  });
  const old = ((await rui!.call('GET', '/worklists')).body as OwnWorklist[]).find(({ id }) => id === 'old');
  expect(old!.problems).toEqual([{ code: 'unknownField', field: 'colour' }]);
  expect((await rui!.call('GET', '/worklists/old')).body).toMatchObject({ status: 409 });
  const where = JSON.stringify({ field: 'createdAt', op: 'is', value: 5 });
  expect((await rui!.call('GET', `/worklists/everything?${new URLSearchParams({ where })}`)).status).toBe(
    422,
  );
});

test('rights hold in lists, counts, shares and loads', async () => {
  const secret = await create(tomas!, {
    serviceId: 'in-confidence',
    title: 'In confidence',
    answers: { about: 'leave', what: 'Please' },
  });
  const teamsOf = async (by: Person): Promise<(string | null)[]> => {
    const { body } = await by.call('GET', '/worklists/everything/shares?by=teamId,state');
    return (body as { fields: { values: { value: string | null }[] }[] }).fields[0]!.values.map(
      ({ value }) => value,
    );
  };
  const rowsOf = async (by: Person): Promise<ListRow[]> =>
    (await by.call('GET', `/worklists/everything/rows?numbers=${secret}`)).body;
  const loadOf = async (by: Person): Promise<number> => {
    const where = encodeURIComponent(JSON.stringify({ field: 'teamId', op: 'is', value: 'people' }));
    const { body } = await by.call('GET', `/worklists/everything/load?where=${where}`);
    const { people } = body as { people: { person: object | null; states: Record<string, number> }[] };
    const nobody = people.find(({ person }) => person === null)!;
    return Object.values(nobody.states).reduce((sum, count) => sum + count, 0);
  };
  expect(numbersOf(await page(sofia!, 'everything'))).toContain(secret);
  expect(await teamsOf(sofia!)).toContain('people');
  expect(await rowsOf(sofia!)).toHaveLength(1);
  expect(await loadOf(sofia!)).toBe(1);
  expect(numbersOf(await page(rui!, 'everything', { limit: '200' }))).not.toContain(secret);
  expect(await teamsOf(rui!)).not.toContain('people');
  expect(await rowsOf(rui!)).toEqual([]);
  expect(await loadOf(rui!)).toBe(0);
  expect((await rui!.call('GET', '/worklists/everything/export')).body).not.toContain('In confidence');
  expect((await sofia!.call('GET', '/worklists/everything/export')).body).toContain('In confidence');
  expect((await tomas!.call('GET', '/worklists/everything')).status).toBe(403);
});

test('shares are counted by what holds one value, and by nothing else', async () => {
  for (const by of ['isLate', 'alsoToldIds', 'work', 'colour', 'toString'])
    expect([by, (await rui!.call('GET', `/worklists/teams/shares?by=${by}`)).status]).toEqual([by, 422]);
  expect((await rui!.call('GET', '/worklists/teams/shares?by=answered,vessel')).status).toBe(200);
});

test('shares and loads add up to the list', async () => {
  const { total } = await page(rui!, 'teams');
  const { body } = await rui!.call('GET', '/worklists/teams/shares?by=state,priority,assigneeId');
  for (const { values } of (body as { fields: { values: { count: number }[] }[] }).fields)
    expect(values.reduce((sum, { count }) => sum + count, 0)).toBe(total.count);
});

test('load is all that someone carries, whatever the list; what nobody has is of the list', async () => {
  const number = await create(tomas!, kiosk('Carried'));
  await move(rui!, number, 'take');
  const loadOf = async (list: string) => {
    const { body } = await rui!.call('GET', `/worklists/${list}/load`);
    const { days, people } = body as {
      days: number[];
      people: { person: { id: string } | null; capacity: number | null; states: Record<string, number> }[];
    };
    expect(days).toHaveLength(7);
    return (id: string | null) => people.find(({ person }) => (person?.id ?? null) === id);
  };
  const carried = async (id: string): Promise<number> => {
    const condition = {
      all: [
        { field: 'assigneeId', op: 'is', value: id },
        { field: 'state', op: 'in', value: ['received', 'inWork', 'held'] },
      ],
    };
    const where = encodeURIComponent(JSON.stringify(condition));
    return (await page(rui!, 'everything', { where: decodeURIComponent(where) })).total.count;
  };
  const sumOf = (one: { states: Record<string, number> } | undefined): number =>
    Object.values(one?.states ?? {}).reduce((a, b) => a + b, 0);
  const inTeams = await loadOf('teams');
  // That list is of held work: what else she has is counted all the same.
  const inHeld = await loadOf('held');
  expect(sumOf(inHeld('rui'))).toBe(await carried('rui'));
  expect(sumOf(inTeams('rui'))).toBe(await carried('rui'));
  expect(sumOf(inTeams(null))).toBe((await page(rui!, 'unassigned')).total.count);
  expect(inTeams('ivo')).toMatchObject({ capacity: 12 });
});

test('mine and my group’s is one list, and asks for the groups that one is in', async () => {
  const { tables } = app.listo.db;
  const [group] = await tables.groups.find({ teamId: 'onboard' });
  const mine = await create(tomas!, kiosk('Mine'));
  await move(rui!, mine, 'take');
  const ofGroup = await create(tomas!, kiosk('Of the group'));
  const other = await create(tomas!, kiosk('Of nobody'));
  await tables.tickets.update({ number: ofGroup }, { groupId: group!.id });
  const listed = async () => numbersOf(await page(rui!, 'mineAndGroups', { limit: '200' }));
  await tables.members.update({ personId: 'rui', teamId: 'onboard' }, { groupId: null });
  expect(await listed()).toContain(mine);
  expect(await listed()).not.toContain(ofGroup);
  await tables.members.update({ personId: 'rui', teamId: 'onboard' }, { groupId: group!.id });
  const both = await listed();
  expect(both).toEqual(expect.arrayContaining([mine, ofGroup]));
  expect(both).not.toContain(other);
  // What is mine and my group's stands there once.
  await tables.tickets.update({ number: mine }, { groupId: group!.id });
  expect((await listed()).filter((number) => number === mine)).toHaveLength(1);
});

test('lists ask for words of what was asked, for estimates and time spent, and show how to reach who asked', async () => {
  const { tables } = app.listo.db;
  const number = await create(tomas!, {
    ...kiosk('Odd'),
    answers: { ...kiosk('').answers, what: 'It hums the “Aída” march' },
  });
  await tables.tickets.update({ number }, { estimateMinutes: 90 });
  await rui!.call('POST', `/tickets/${number}/time`, {
    minutes: 25,
    category: 'working',
    note: '',
    startedAt: app.clock.now() - 3_600_000,
  });
  const fitting = async (where: object): Promise<number[]> =>
    numbersOf(await page(rui!, 'everything', { where: JSON.stringify(where), limit: '200' }));
  expect(await fitting({ field: 'said', op: 'contains', value: 'aída' })).toEqual([number]);
  // The names of questions are not what was said.
  expect(await fitting({ field: 'said', op: 'contains', value: 'urgency' })).toEqual([]);
  expect(await fitting({ field: 'estimateMinutes', op: 'gt', value: 60 })).toContain(number);
  expect(await fitting({ field: 'spentMinutes', op: 'gte', value: 25 })).toContain(number);
  const [row] = (
    await page(rui!, 'everything', { where: JSON.stringify({ field: 'number', op: 'is', value: number }) })
  ).rows;
  const person = (await tables.people.findOne({ id: 'tomas' }))!;
  expect(row!.more).toEqual({
    ...{ mail: person.email, phone: person.phone, department: person.department },
    ...{ estimate: 90, spent: 25 },
  });
});

test('one row is read anew by its number, with its place', async () => {
  const number = await create(tomas!, kiosk('One row'));
  const read = async () =>
    (await rui!.call('GET', `/worklists/unassigned/rows?numbers=${number}`)).body as ListRow[];
  expect((await read())[0]).toMatchObject({ number, title: 'One row' });
  await move(rui!, number, 'take');
  expect(await read()).toEqual([]);
});
