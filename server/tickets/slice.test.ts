import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** One request from the person who has the need to the person who meets it, and back, through HTTP. */
let app: TestListo;
let [tomas, ana, rui, hanna, sofia]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('slice');
  [tomas, ana, rui, hanna, sofia] = await Promise.all(['tomas', 'ana', 'rui', 'hanna', 'sofia'].map(app.as));
});
afterAll(() => app.end());

type Page = {
  version: number;
  state: string;
  heldFor: string | null;
  assignee: { id: string } | null;
  entries: {
    type: string;
    via: string;
    audience: string;
    message: { text: string; readBy: string } | null;
  }[];
  moves: { name: string; by: string }[];
  clocks: { measures: string; state: string }[];
};

const scanner = {
  serviceId: 'gate-scanner',
  title: 'Scanner for gate 2',
  answers: { site: 'Port Alder', sort: 'hand', count: 1 },
};
const kiosk = {
  serviceId: 'kiosk',
  title: 'Kiosk 3 frozen',
  answers: { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' },
};

async function create(person: Person, body: object = kiosk): Promise<number> {
  const { status, body: answer } = await person.call('POST', '/tickets', body);
  expect(status).toBe(200);
  return (answer as { number: number }).number;
}

async function read(person: Person, number: number): Promise<Page> {
  return (await person.call('GET', `/tickets/${number}`)).body;
}

async function move(person: Person, number: number, name: string, by: string, input: object = {}) {
  const { version } = await read(person, number);
  return person.call('POST', `/tickets/${number}/moves`, { name, by, version, input });
}

async function worklist(person: Person, name: string): Promise<number[]> {
  const { body } = await person.call('GET', `/worklists/${name}?limit=200`);
  return (body as { rows: { number: number }[] }).rows.map(({ number }) => number);
}

async function told(person: Person, number: number): Promise<string[]> {
  const { body } = await person.call('GET', '/notifications');
  const { notifications } = body as { notifications: { event: string; number: number }[] };
  return notifications.filter((each) => each.number === number).map(({ event }) => event);
}

test('asked, granted, taken, answered, held, answered, done, confirmed', async () => {
  const number = await create(tomas!, scanner);
  expect(await read(tomas!, number)).toMatchObject({ state: 'held', heldFor: 'approval' });
  await until(
    () => told(ana!, number),
    (events) => events.includes('asked'),
  );
  expect(await worklist(rui!, 'upcoming')).toContain(number);
  expect(await worklist(rui!, 'nextUp')).not.toContain(number);
  expect((await move(rui!, number, 'take', 'agent')).status).toBe(409);
  expect(await told(rui!, number)).toEqual([]);

  const asks = (await ana!.call('GET', '/my/asks')).body as {
    id: string;
    number: number;
    reason: string;
    cost: number;
  }[];
  const ask = asks.find((each) => each.number === number)!;
  expect(ask).toMatchObject({ reason: 'manager', cost: 34_000, title: 'Scanner for gate 2' });
  expect((await ana!.call('POST', `/asks/${ask.id}/decision`, { decision: 'approve' })).status).toBe(200);
  await until(
    () => worklist(rui!, 'nextUp'),
    (numbers) => numbers.includes(number),
  );
  expect(
    (await ana!.call('POST', `/asks/${ask.id}/decision`, { decision: 'decline', words: 'no' })).status,
  ).toBe(409);

  expect((await move(rui!, number, 'take', 'agent')).status).toBe(200);
  await rui!.call('POST', `/tickets/${number}/messages`, { text: 'On it', readBy: 'requester' });
  await rui!.call('POST', `/tickets/${number}/messages`, { text: 'Last one in stock', readBy: 'team' });
  const missing = await move(rui!, number, 'hold', 'agent', { heldFor: 'requester' });
  expect(missing).toMatchObject({ status: 422, body: { fields: [{ field: 'message', code: 'missing' }] } });
  await move(rui!, number, 'hold', 'agent', { heldFor: 'requester', message: 'Left or right hand?' });
  expect(await read(tomas!, number)).toMatchObject({ state: 'held', heldFor: 'requester' });
  await tomas!.call('POST', `/tickets/${number}/messages`, { text: 'Right', readBy: 'requester' });
  expect(await read(rui!, number)).toMatchObject({ state: 'inWork', heldFor: null, assignee: { id: 'rui' } });
  await move(rui!, number, 'finish', 'agent', { solution: 'Handed over' });
  await move(tomas!, number, 'confirm', 'requester', { rating: 5, ratingWord: 'Quick' });
  const page = await read(rui!, number);
  expect(page).toMatchObject({ state: 'closed', rating: 5, moves: [] });
  expect(page.entries.map(({ type }) => type)).toEqual([
    'sent',
    'asked',
    'decided',
    'granted',
    'taken',
    'answered',
    'noted',
    'held',
    'answered',
    'done',
    'confirmed',
  ]);
  await until(
    () => told(tomas!, number),
    (events) => events.includes('done'),
  );
  expect((await told(tomas!, number)).sort()).toEqual(['answered', 'decided', 'done', 'held', 'taken']);
});

test('the first answer is met by what the requester can read, and runs while an approval is pending', async () => {
  const number = await create(tomas!, scanner);
  const clockOf = async (measures: string) =>
    (await read(rui!, number)).clocks.find((clock) => clock.measures === measures)?.state;
  await until(
    () => clockOf('firstAnswer'),
    (state) => state === 'running',
  );
  expect(await clockOf('resolution')).toBe('paused');
  await rui!.call('POST', `/tickets/${number}/messages`, { text: 'Only for us', readBy: 'team' });
  await rui!.call('POST', `/tickets/${number}/messages`, {
    text: 'Waiting for your manager',
    readBy: 'requester',
  });
  await until(
    () => clockOf('firstAnswer'),
    (state) => state === 'met',
  );
});

test('the requester never reads team notes, and a note by them is refused', async () => {
  const number = await create(tomas!);
  await rui!.call('POST', `/tickets/${number}/messages`, { text: 'secret of the team', readBy: 'team' });
  expect(JSON.stringify(await read(tomas!, number))).not.toContain('secret of the team');
  expect(
    (await tomas!.call('POST', `/tickets/${number}/messages`, { text: 'x', readBy: 'team' })).status,
  ).toBe(403);
});

test('still broken goes back to the same agent; withdrawn ends the asks', async () => {
  const number = await create(tomas!);
  await move(rui!, number, 'take', 'agent');
  await move(rui!, number, 'finish', 'agent', { solution: 'Restarted' });
  await move(tomas!, number, 'reopen', 'requester', { stillBroken: 'Again' });
  expect(await read(rui!, number)).toMatchObject({ state: 'inWork', assignee: { id: 'rui' } });

  const second = await create(tomas!, scanner);
  await move(tomas!, second, 'withdraw', 'requester');
  const asks = (await ana!.call('GET', '/my/asks')).body as { number: number }[];
  expect(asks.some((each) => each.number === second)).toBe(false);
});

test('a declined request closes with its reason and the team is not troubled', async () => {
  const number = await create(tomas!, scanner);
  const asks = (await ana!.call('GET', '/my/asks')).body as { id: string; number: number }[];
  const { id } = asks.find((each) => each.number === number)!;
  expect((await ana!.call('POST', `/asks/${id}/decision`, { decision: 'decline' })).status).toBe(422);
  await ana!.call('POST', `/asks/${id}/decision`, { decision: 'decline', words: 'Use the spare one' });
  await until(
    () => read(tomas!, number),
    ({ state }) => state === 'closed',
  );
  expect(await read(tomas!, number)).toMatchObject({ isDeclined: true });
  await until(
    () => told(tomas!, number),
    (events) => events.includes('decided'),
  );
  expect(await told(rui!, number)).toEqual([]);
});

test('raised for someone: they are told at once, by whom; without the right it is refused', async () => {
  const { body } = await rui!.call('POST', '/tickets', { ...kiosk, requesterId: 'ines', via: 'phone' });
  const ines = await app.as('ines');
  const { number } = body as { number: number };
  await until(
    () => told(ines, number),
    (events) => events.includes('raisedFor'),
  );
  expect(await read(ines, number)).toMatchObject({ raisedBy: { id: 'rui' }, via: 'phone' });
  expect((await tomas!.call('POST', '/tickets', { ...kiosk, requesterId: 'ines' })).status).toBe(403);
});

test('a shared ticket may be written on, a collaborator notes but does not answer', async () => {
  const number = await create(tomas!);
  const [joel, piet] = await Promise.all(['joel', 'yves'].map(app.as));
  expect((await joel!.call('GET', `/tickets/${number}`)).status).toBe(404);
  await tomas!.call('PUT', `/tickets/${number}/followers`, { personId: 'joel', role: 'alsoTold' });
  expect(
    (await joel!.call('POST', `/tickets/${number}/messages`, { text: 'Me too', readBy: 'requester' })).status,
  ).toBe(200);
  expect(
    (await tomas!.call('PUT', `/tickets/${number}/followers`, { personId: 'yves', role: 'collaborator' }))
      .status,
  ).toBe(403);
  await rui!.call('PUT', `/tickets/${number}/followers`, { personId: 'yves', role: 'collaborator' });
  expect(
    (await piet!.call('POST', `/tickets/${number}/messages`, { text: 'Seen this', readBy: 'team' })).status,
  ).toBe(200);
  expect(
    (await piet!.call('POST', `/tickets/${number}/messages`, { text: 'Hello', readBy: 'requester' })).status,
  ).toBe(403);
});

test('impact and urgency give the priority; an override says why', async () => {
  const number = await create(tomas!);
  const page = await read(rui!, number);
  expect(page).toMatchObject({ priority: 'P2' });
  const refused = await rui!.call('PATCH', `/tickets/${number}`, { version: page.version, priority: 'P1' });
  expect(refused).toMatchObject({ status: 422, body: { fields: [{ field: 'priorityReason' }] } });
  await rui!.call('PATCH', `/tickets/${number}`, {
    version: page.version,
    priority: 'P1',
    priorityReason: 'The minister sails',
  });
  expect(await read(rui!, number)).toMatchObject({ priority: 'P1', priorityReason: 'The minister sails' });
});

test('two agents take the same ticket: the second gets the difference', async () => {
  const number = await create(tomas!);
  const { version } = await read(rui!, number);
  const take = (person: Person) =>
    person.call('POST', `/tickets/${number}/moves`, { name: 'take', by: 'agent', version });
  expect((await take(rui!)).status).toBe(200);
  const second = await take(hanna!);
  expect(second).toMatchObject({ status: 409, body: { type: '/problems/stale' } });
  expect((second.body as { differences: object[] }).differences).toContainEqual({
    field: 'assigneeId',
    theirs: 'Rui Bastos',
    yours: 'Hanna Vik',
    by: 'Rui Bastos',
  });
});

test('changes of different fields from one version go together', async () => {
  const number = await create(tomas!);
  const { version } = await read(rui!, number);
  expect((await rui!.call('PATCH', `/tickets/${number}`, { version, title: 'Kiosk 3, E-71' })).status).toBe(
    200,
  );
  expect((await hanna!.call('PATCH', `/tickets/${number}`, { version, urgency: 'slowsWork' })).status).toBe(
    200,
  );
  expect((await hanna!.call('PATCH', `/tickets/${number}`, { version, title: 'Mine' })).status).toBe(409);
  expect(await read(rui!, number)).toMatchObject({ title: 'Kiosk 3, E-71', priority: 'P3' });
});

test('a confidential ticket is not there for others: by number, in lists, counts, search and reckonings', async () => {
  const body = {
    serviceId: 'in-confidence',
    title: 'Quartzite leave question',
    answers: { about: 'leave', what: 'How?' },
  };
  const number = await create(tomas!, body);
  const helder = await app.as('helder');
  for (const person of [rui!, helder, ana!]) {
    expect((await person.call('GET', `/tickets/${number}`)).status).toBe(404);
    expect((await person.call('GET', `/tickets/${number}/clocks/resolution`)).status).toBe(404);
    expect(
      (await person.call('POST', `/tickets/${number}/messages`, { text: 'x', readBy: 'team' })).status,
    ).toBe(404);
    expect(JSON.stringify((await person.call('GET', '/find?q=Quartzite')).body)).not.toContain('Quartzite');
  }
  const countOf = async (person: Person) =>
    ((await person.call('GET', '/worklists/everything')).body as { total: { count: number } }).total.count;
  const before = await countOf(rui!);
  await create(tomas!, body);
  expect(await countOf(rui!)).toBe(before);
  expect(await worklist(sofia!, 'nextUp')).toContain(number);
  expect((await sofia!.call('GET', '/find?q=Quartzite')).body).toMatchObject({
    tickets: [{ number: expect.any(Number) }, { number }],
  });
});
