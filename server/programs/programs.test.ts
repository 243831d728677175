import type { ProgramView } from '../../contract/programs';
import type { Ticket } from '../../contract/tickets';
import { KIOSK } from '../testing/chat';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';
import { makeProgram, programBody } from '../testing/programs';

/** Other programs by their keys: what they may do, how much, and until when. */
let app: TestListo;
let [helder, vasco]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('programs');
  [helder, vasco] = await Promise.all(['helder', 'vasco'].map(app.as));
});
afterAll(() => app.end());

const DAY_MS = 86_400_000;
const onboard = { teamId: 'onboard', role: 'agent' as const };
const ticketFor = (requesterId?: string) => ({
  ...{ serviceId: 'kiosk', title: 'Ticket kiosk is dark', answers: KIOSK },
  ...(requesterId !== undefined && { requesterId }),
});
const numberOf = (answer: { body: unknown }): number => (answer.body as { number: number }).number;
const typeOf = (answer: { body: unknown }): string => (answer.body as { type: string }).type;
const viewOf = async (id: string): Promise<ProgramView> =>
  ((await helder!.call('GET', '/workshop/programs')).body as ProgramView[]).find((each) => each.id === id)!;

test('only administrators keep the accounts of programs', async () => {
  for (const [method, path, body] of [
    ['GET', '/workshop/programs'],
    ['POST', '/workshop/programs', programBody()],
    ['POST', '/workshop/programs/x/keys', { endsAt: null }],
    ['DELETE', '/workshop/programs/x/keys/y'],
  ] as const)
    expect((await vasco!.call(method, path, body)).status).toBe(403);
});

test('a key works as its account says, and changes are told as the program’s, by which key', async () => {
  const link = await makeProgram(app, { name: 'Dock link', teams: [onboard] });
  expect(await link.call('GET', '/program')).toMatchObject({
    status: 200,
    body: { id: link.id, name: 'Dock link', teams: [onboard], keyId: link.keyId, mayChange: true },
  });
  const number = numberOf(await link.call('POST', '/tickets', ticketFor('tomas')));
  const read = await link.call('GET', `/tickets/${number}`);
  const ticket = read.body as Ticket;
  expect(ticket).toMatchObject({ requester: { id: 'tomas' }, title: 'Ticket kiosk is dark' });
  await link.call('POST', `/tickets/${number}/messages`, {
    ...{ text: 'The kiosk answers no ping.', readBy: 'team', links: [], fileIds: [] },
  });
  const rui = await app.as('rui');
  const seen = (await rui.call('GET', `/tickets/${number}`)).body as Ticket;
  expect(JSON.stringify(seen)).toContain('Dock link');
  expect(await app.listo.db.tables.journal.findOne({ ticketNumber: number, type: 'noted' })).toMatchObject({
    ...{ actorId: link.id, keyId: link.keyId, via: 'api' },
  });
});

test('a program is no requester: it says for whom it asks', async () => {
  const link = await makeProgram(app);
  const refused = await link.call('POST', '/tickets', ticketFor());
  expect(refused.status).toBe(422);
  expect(refused.body).toMatchObject({ fields: [{ field: 'requesterId', code: 'missing' }] });
});

test('what belongs to a person alone is refused, and what it is not let see is not there', async () => {
  const link = await makeProgram(app);
  expect(typeOf(await link.call('PUT', '/my/password', { current: 'x', password: 'y' }))).toBe(
    '/problems/forPeopleOnly',
  );
  const tomas = await app.as('tomas');
  const number = numberOf(await tomas.call('POST', '/tickets', ticketFor()));
  expect((await link.call('GET', `/tickets/${number}`)).status).toBe(404);
  expect((await link.call('GET', '/workshop/programs')).status).toBe(403);
});

test('an account that only reads changes nothing, and still asks for figures', async () => {
  const reader = await makeProgram(app, { mayChange: false, teams: [onboard] });
  expect((await reader.call('GET', '/worklists')).status).toBe(200);
  expect(typeOf(await reader.call('POST', '/tickets', ticketFor('tomas')))).toBe('/problems/readsOnly');
  const board = await helder!.call('GET', '/measures/boards/given-today');
  const { charts, stretch } = board.body as { charts: object[]; stretch: object };
  const asked = await reader.call('POST', '/measures/chart', { chart: charts[0], stretch, chosen: [] });
  expect([asked.status, typeOf(asked)]).not.toEqual([403, '/problems/readsOnly']);
});

test('it cannot hold a ticket: who takes it is somebody', async () => {
  const link = await makeProgram(app, { teams: [onboard] });
  const number = numberOf(await link.call('POST', '/tickets', ticketFor('tomas')));
  const { version } = (await link.call('GET', `/tickets/${number}`)).body as Ticket;
  const take = { version, name: 'take', by: 'agent', input: {} };
  expect(typeOf(await link.call('POST', `/tickets/${number}/moves`, take))).toBe('/problems/forPeopleOnly');
});

test('the answer says what is left of a minute; one too many is told when to come back', async () => {
  const link = await makeProgram(app, { perMinute: 3 });
  const other = await makeProgram(app, { perMinute: 3 });
  const first = await link.call('GET', '/program');
  expect(first.headers.get('RateLimit-Policy')).toContain('q=3; w=60');
  expect(first.headers.get('RateLimit')).toContain('r=2');
  // However many addresses it calls from: the account is counted.
  await link.call('GET', '/program');
  await link.call('GET', '/program');
  const late = await link.call('GET', '/program');
  expect([late.status, typeOf(late)]).toEqual([429, '/problems/tooManyCalls']);
  expect(Number(late.headers.get('Retry-After'))).toBeGreaterThan(0);
  expect((await other.call('GET', '/program')).status).toBe(200);
});

test('two keys at a time: a program changes from one to the other; a key that is taken back is refused', async () => {
  const link = await makeProgram(app);
  const path = `/workshop/programs/${link.id}/keys`;
  const second = (await helder!.call('POST', path, { endsAt: null })).body as { id: string; key: string };
  expect(typeOf(await helder!.call('POST', path, { endsAt: null }))).toBe('/problems/twoKeys');
  expect((await app.withKey(second.key).call('GET', '/program')).status).toBe(200);
  await helder!.call('DELETE', `${path}/${link.keyId}`);
  expect(typeOf(await link.call('GET', '/program'))).toBe('/problems/keyRevoked');
  expect((await app.withKey(second.key).call('GET', '/program')).status).toBe(200);
  expect((await helder!.call('POST', path, { endsAt: null })).status).toBe(200);
});

test('a key ends, and so does an account; switched off nothing of it works', async () => {
  const link = await makeProgram(app, { endsAt: app.clock.now() + 2 * DAY_MS });
  const path = `/workshop/programs/${link.id}`;
  const soon = app.clock.now() + DAY_MS;
  const short = (await helder!.call('POST', `${path}/keys`, { endsAt: soon })).body as { key: string };
  const byShort = () => app.withKey(short.key).call('GET', '/program');
  expect((await byShort()).status).toBe(200);
  app.clock.pass(DAY_MS + 1);
  expect(typeOf(await byShort())).toBe('/problems/keyEnded');
  expect((await link.call('GET', '/program')).status).toBe(200);
  const { version, endsAt } = await viewOf(link.id);
  const off = programBody({ isOn: false, endsAt });
  expect((await helder!.call('PUT', path, { ...off, version })).status).toBe(200);
  expect(typeOf(await link.call('GET', '/program'))).toBe('/problems/programOff');
  await helder!.call('PUT', path, { ...off, isOn: true, version: version + 1 });
  app.clock.pass(DAY_MS);
  expect(typeOf(await link.call('GET', '/program'))).toBe('/problems/programEnded');
});

test('from elsewhere than its networks a key is refused', async () => {
  const near = await makeProgram(app, { networks: ['127.0.0.0/8', '::1'] });
  const far = await makeProgram(app, { networks: ['192.0.2.0/24'] });
  expect((await near.call('GET', '/program')).status).toBe(200);
  expect(typeOf(await far.call('GET', '/program'))).toBe('/problems/keyNotFromThere');
});

test('all that does not fit an account is said at once', async () => {
  const body = programBody({
    ...{ ownerId: 'nobody', networks: ['10.0.0.0/8', 'office'], endsAt: 5 },
    teams: [onboard, onboard, { teamId: 'none', role: 'lead' }],
  });
  const { status, body: problem } = await helder!.call('POST', '/workshop/programs', body);
  expect(status).toBe(422);
  expect((problem as { fields: object[] }).fields).toEqual([
    { field: 'networks.1', code: 'noNetwork' },
    { field: 'ownerId', code: 'notAChoice' },
    { field: 'teams.1', code: 'twice' },
    { field: 'teams.2', code: 'notAChoice' },
    { field: 'endsAt', code: 'inThePast' },
  ]);
});

test('who changes an account that somebody else has changed meanwhile hears so', async () => {
  const link = await makeProgram(app);
  const path = `/workshop/programs/${link.id}`;
  expect((await helder!.call('PUT', path, { ...programBody({ name: 'A' }), version: 1 })).status).toBe(200);
  expect(typeOf(await helder!.call('PUT', path, { ...programBody({ name: 'B' }), version: 1 }))).toBe(
    '/problems/stale',
  );
});

test('the secret of a key is kept nowhere: neither in a table nor in an answer to come', async () => {
  const link = await makeProgram(app);
  const secret = link.key.split('_').slice(2).join('_');
  const tables = await app.listo.db.select<{ name: string }>(
    'SELECT TABLE_NAME AS name FROM information_schema.tables WHERE TABLE_SCHEMA = DATABASE()',
  );
  for (const { name } of tables) {
    const rows = await app.listo.db.select(`SELECT * FROM \`${name}\``);
    expect(JSON.stringify(rows)).not.toContain(secret);
  }
  expect(JSON.stringify(await viewOf(link.id))).not.toContain(secret);
});

test('when and from where a key was last used is noted', async () => {
  const link = await makeProgram(app);
  await link.call('GET', '/program');
  const [key] = await until(
    async () => (await viewOf(link.id)).keys,
    ([first]) => first!.lastUsedAt !== null,
  );
  expect(key!.lastUsedFrom).toMatch(/127\.0\.0\.1|::1/);
});

test('wrong keys are refused, and after many of them from one address nothing is looked up', async () => {
  const other = await startTestListo('wrong_keys');
  const wrong = other.withKey(`listo_0123456789_${'x'.repeat(43)}`);
  expect(typeOf(await wrong.call('GET', '/program'))).toBe('/problems/badKey');
  expect(typeOf(await other.withKey('nonsense').call('GET', '/program'))).toBe('/problems/badKey');
  for (let i = 0; i < 40; i++) await wrong.call('GET', '/program');
  expect((await wrong.call('GET', '/program')).status).toBe(429);
  await other.end();
});
