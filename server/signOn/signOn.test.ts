import type { Me } from '../../contract/session';
import type { ProviderBody, ProviderView } from '../../contract/signOn';
import { hashPassword } from '../sessions/sessions';
import { startTestListo, type Person, type TestListo } from '../testing/harness';
import { Browser, startProvider, type Spoil, type TestProvider } from '../testing/provider';

/** Signing in at the organisation's provider, against a certified implementation of OpenID Connect. */
let app: TestListo;
let provider: TestProvider;
let helder: Person;
let id: string;
const { warn } = console;

const body = (more: Partial<ProviderBody> & { secret?: string } = {}) => ({
  ...{
    name: 'Solvarra account',
    issuer: provider.issuer,
    clientId: provider.clientId,
    secret: provider.secret,
  },
  ...{ domains: ['solvarra.example'], isOn: true, makesPeople: false, siteId: 'head' },
  ...{ groupsClaim: '', groupTable: [], endsThere: false, ...more },
});
const read = async (): Promise<ProviderView> =>
  ((await helder.call('GET', '/workshop/sign-on')).body as { providers: ProviderView[] }).providers.find(
    (each) => each.id === id,
  )!;
async function set(more: Partial<ProviderBody>): Promise<void> {
  const { version } = await read();
  const answer = await helder.call('PUT', `/workshop/sign-on/providers/${id}`, { ...body(more), version });
  expect(answer.status).toBe(200);
}
function account(subject: string, claims: Record<string, unknown> = {}): string {
  const usual = { name: `Someone ${subject}`, email: `${subject}@solvarra.example`, email_verified: true };
  provider.accounts.set(subject, { id: subject, claims: { ...usual, ...claims } });
  return subject;
}
const start = (back = '/ask') => `${app.url}/sign-on/${id}?back=${encodeURIComponent(back)}`;
const codeOf = (address: string): string | null => new URL(address).searchParams.get('signOn');
async function whoIs(browser: Browser): Promise<Me | null> {
  const Cookie = browser.cookiesFor(app.url);
  const response = await fetch(`${app.url}/api/v1/session`, { headers: { Cookie } });
  return ((await response.json()) as { me: Me | null }).me;
}
const emailOf = async (personId: string): Promise<string> =>
  (await app.listo.db.tables.people.findOne({ id: personId }))!.email;

beforeAll(async () => {
  // The provider says of itself that it keeps its accounts in memory, which is what is wanted here.
  console.warn = () => undefined;
  provider = await startProvider();
  app = await startTestListo('sign_on', { env: { LISTO_OUTGOING_HOSTS: provider.issuer } });
  await provider.leadBackTo(app.url);
  helder = await app.as('helder');
  id = ((await helder.call('POST', '/workshop/sign-on/providers', body())).body as { id: string }).id;
});
afterAll(async () => {
  console.warn = warn;
  await app.end();
  await provider.end();
});
afterEach(() => provider.spoil(null));

test('only administrators keep providers', async () => {
  const marta = await app.as('marta');
  for (const [method, path, sent] of [
    ['GET', '/workshop/sign-on'],
    ['PUT', '/workshop/sign-on', { passwordsOnlyOf: null, factorAskedOf: 'nobody' }],
    ['POST', '/workshop/sign-on/providers', body()],
    ['PUT', `/workshop/sign-on/providers/${id}`, { ...body(), version: 1 }],
    ['DELETE', `/workshop/sign-on/providers/${id}`],
    ['POST', `/workshop/sign-on/providers/${id}/checks`],
  ] as const)
    expect((await marta.call(method, path, sent)).status).toBe(403);
});

test('who is known by a verified address comes in, to the page they wanted, and later by their id there', async () => {
  const browser = new Browser();
  const subject = account('s-ines', { email: (await emailOf('ines')).toUpperCase() });
  expect(await browser.signIn(start('/ask/tickets?x=1'), subject)).toBe(`${app.url}/ask/tickets?x=1`);
  expect((await whoIs(browser))?.id).toBe('ines');
  account('s-ines', { email: 'married@solvarra.example', email_verified: false });
  const another = new Browser();
  await another.signIn(start(), subject);
  expect((await whoIs(another))?.id).toBe('ines');
  expect(await read()).toMatchObject({ people: 1, hasSecret: true });
  const kept = (await helder.call('GET', '/workshop/people/ines')).body as {
    providers: string[];
    history: { type: string }[];
  };
  expect(kept.providers).toEqual(['Solvarra account']);
  expect(kept.history.map(({ type }) => type)).toContain('personLinked');
});

test.each([
  ['an address that is not verified', { email_verified: false }, 'mailNotVerified'],
  ['an address of another organisation', { email: 'tomas@elsewhere.example' }, 'notItsDomain'],
  ['somebody who is not known', { email: 'who@solvarra.example' }, 'notKnown'],
])('%s does not come in, and is told why', async (_what, claims, code) => {
  const browser = new Browser();
  const subject = account(`s-${code}`, { email: await emailOf('tomas'), ...claims });
  expect(codeOf(await browser.signIn(start(), subject))).toBe(code);
  expect(await whoIs(browser)).toBeNull();
});

test('an address that was given on does not open the account of who had it', async () => {
  const subject = account('s-other', { email: await emailOf('ines') });
  expect(codeOf(await new Browser().signIn(start(), subject))).toBe('otherSubject');
});

test('who has left does not come in', async () => {
  const subject = account('s-lena', { email: await emailOf('lena') });
  await new Browser().signIn(start(), subject);
  await app.listo.db.tables.people.update({ id: 'lena' }, { leftAt: app.clock.now() });
  expect(codeOf(await new Browser().signIn(start(), subject))).toBe('left');
  await app.listo.db.tables.people.update({ id: 'lena' }, { leftAt: null });
});

test('where the provider may, who comes for the first time is made, with places by their groups', async () => {
  const groupTable = [
    { group: 'it-desk', teamId: 'desk', role: 'agent' as const },
    { group: 'it-net', teamId: 'network', role: 'lead' as const },
  ];
  await set({ makesPeople: true, groupsClaim: 'groups', groupTable });
  const groups = { groups: ['it-desk', 'it-net', 'all'], name: 'Nuno Vale', locale: 'pt-PT' };
  const subject = account('s-nuno', { email: 'nuno.vale@solvarra.example', ...groups });
  const browser = new Browser();
  await browser.signIn(start(), subject);
  const me = (await whoIs(browser))!;
  expect(me).toMatchObject({ name: 'Nuno Vale', language: 'pt', isAdministrator: false });
  expect(me.teams).toEqual(
    expect.arrayContaining([
      { teamId: 'desk', role: 'agent' },
      { teamId: 'network', role: 'lead' },
    ]),
  );
  // The next time their groups are others; a place that was given here by hand stays.
  await helder.call('PUT', `/workshop/people/${me.id}/teams/onboard`, { role: 'agent', groupId: null });
  account('s-nuno', { email: 'nuno.vale@solvarra.example', ...groups, groups: ['it-net'] });
  await new Browser().signIn(start(), subject);
  const teams = (await whoIs(browser))!.teams.map(({ teamId }) => teamId).sort();
  expect(teams).toEqual(['network', 'onboard']);
  await set({});
});

describe('what is brought back works once, in the browser that began, in time', () => {
  const subject = 's-once';
  beforeAll(async () => void account(subject, { email: await emailOf('aro') }));

  test('twice it does not', async () => {
    const browser = new Browser();
    const back = await browser.comeBack(start(), subject);
    const state = browser.cookiesFor(app.url);
    expect((await browser.ask(back)).next).toBe(`${app.url}/ask`);
    const replay = await fetch(back, { headers: { Cookie: state }, redirect: 'manual' });
    expect(codeOf(new URL(replay.headers.get('Location')!, app.url).href)).toBe('notBegunHere');
  });
  test('in another browser it does not', async () => {
    const back = await new Browser().comeBack(start(), subject);
    const other = new Browser();
    await other.ask(start());
    expect(codeOf((await other.ask(back)).next!)).toBe('notBegunHere');
    expect(await whoIs(other)).toBeNull();
  });
  test('after ten minutes it does not', async () => {
    const browser = new Browser();
    const back = await browser.comeBack(start(), subject);
    app.clock.pass(10 * 60_000 + 1);
    expect(codeOf((await browser.ask(back)).next!)).toBe('notBegunHere');
  });
  test('it leads to no other site', async () => {
    for (const back of ['https://evil.example/', '//evil.example', '/\\evil.example', 'javascript:alert(1)'])
      expect(await new Browser().signIn(start(back), subject)).toBe(`${app.url}/ask`);
  });
});

/** Each "must" for a client of OpenID Connect Core 1.0, 3.1.3.7, with one thing wrong in the token. */
describe('a token with one thing wrong lets nobody in', () => {
  const seconds = (): number => Math.floor(Date.now() / 1000);
  const withClaims =
    (change: Record<string, unknown>): Spoil =>
    (token) => ({ ...token, claims: { ...token.claims, ...change } });
  const without =
    (name: string): Spoil =>
    (token) => {
      const { [name]: _gone, ...claims } = token.claims;
      return { ...token, claims };
    };
  const cases: [string, () => Spoil][] = [
    ['2: another issuer', () => withClaims({ iss: 'https://evil.example' })],
    ['2: no issuer', () => without('iss')],
    ['3: for another client', () => withClaims({ aud: 'somebody-else' })],
    ['3: for nobody', () => without('aud')],
    ['3, 4: for several without saying for whom', () => withClaims({ aud: ['listo-here', 'other'] })],
    ['5: issued to another client', () => withClaims({ aud: ['listo-here', 'other'], azp: 'other' })],
    ['6: signed by somebody else', () => (token) => ({ ...token, key: null })],
    [
      '6: not signed',
      () =>
        ({ claims }) =>
          `${encode({ alg: 'none' })}.${encode(claims)}.`,
    ],
    ['7: by an algorithm that it does not use', () => (token) => ({ ...token, header: { alg: 'PS256' } })],
    ['8: by the secret of the client', () => (token) => ({ ...token, header: { alg: 'HS256' } })],
    ['9: over', () => withClaims({ exp: seconds() - 120 })],
    ['9: without an end', () => without('exp')],
    ['10: without when it was made', () => without('iat')],
    ['11: another nonce', () => withClaims({ nonce: 'another' })],
    ['11: no nonce', () => without('nonce')],
    ['2 (sub): nobody', () => without('sub')],
    ['5.3.2 (sub): another than at its own address', () => withClaims({ sub: 's-other' })],
  ];
  const encode = (value: object): string => Buffer.from(JSON.stringify(value)).toString('base64url');

  test.each(cases)('%s', async (_what, spoil) => {
    const subject = account('s-spoilt', { email: await emailOf('aro') });
    const stranger = await provider.makeKey();
    provider.spoil((token) => {
      const spoilt = spoil()(token);
      if (typeof spoilt === 'string') return spoilt;
      if (spoilt.header.alg === 'HS256') return { ...spoilt, key: Buffer.from(provider.secret) };
      return spoilt.key === null ? { ...spoilt, key: stranger } : spoilt;
    });
    const browser = new Browser();
    expect(codeOf(await browser.signIn(start(), subject))).toBe('failed');
    expect(await whoIs(browser)).toBeNull();
  });
  test('the same with nothing wrong does', async () => {
    const subject = account('s-once', { email: await emailOf('aro') });
    provider.spoil((token) => token);
    const browser = new Browser();
    await browser.signIn(start(), subject);
    expect((await whoIs(browser))?.id).toBe('aro');
  });
});

test('a provider that has changed its keys is understood at once', async () => {
  const subject = account('s-once', { email: await emailOf('aro') });
  await provider.changeKeys();
  const browser = new Browser();
  await browser.signIn(start(), subject);
  expect((await whoIs(browser))?.id).toBe('aro');
});

test('who says no there is told so; a provider that is away too', async () => {
  const browser = new Browser();
  expect(codeOf(await browser.signIn(start(), ''))).toBe('refusedThere');
  const away = { ...body({ name: 'Away', domains: ['away.example'] }), issuer: 'https://sso.away.example' };
  const refused = await helder.call('POST', '/workshop/sign-on/providers', away);
  expect(refused.body).toMatchObject({ fields: [{ field: 'issuer', code: 'addressNotAllowed' }] });
  await app.listo.db.tables.signOnProviders.insert({
    ...{ ...body(), id: 'away', name: 'Away', domains: ['away.example'], sealedSecret: null, version: 1 },
    issuer: `${provider.issuer}/nothing-here`,
  });
  expect(codeOf((await browser.ask(`${app.url}/sign-on/away`)).next!)).toBe('away');
  const check = await helder.call('POST', '/workshop/sign-on/providers/away/checks');
  expect((check.body as { error: string }).error).not.toBe('');
  expect((await helder.call('POST', `/workshop/sign-on/providers/${id}/checks`)).body).toEqual({
    ...{ error: null, endsSessions: true },
  });
  await app.listo.db.tables.signOnProviders.remove({ id: 'away' });
});

test('signing out leads on to the provider, where that is wanted', async () => {
  await set({ endsThere: true });
  const subject = account('s-once', { email: await emailOf('aro') });
  const browser = new Browser();
  await browser.signIn(start(), subject);
  const Cookie = browser.cookiesFor(app.url);
  const gone = await fetch(`${app.url}/api/v1/session`, { method: 'DELETE', headers: { Cookie } });
  const { goOnAt } = (await gone.json()) as { goOnAt: string };
  const address = new URL(goOnAt);
  expect(address.origin).toBe(provider.issuer);
  expect(address.searchParams.get('post_logout_redirect_uri')).toBe(`${app.url}/`);
  expect((await browser.ask(goOnAt)).status).toBe(200);
  await set({});
});

test('all that does not fit a provider is said at once', async () => {
  const wrong = body({
    ...{ domains: ['solvarra.example', 'no domain', 'new.example', 'New.example'], siteId: 'nowhere' },
    groupTable: [{ group: 'a', teamId: 'none', role: 'agent' }],
  });
  const { body: problem } = await helder.call('POST', '/workshop/sign-on/providers', wrong);
  expect((problem as { fields: object[] }).fields).toEqual([
    { field: 'domains.0', code: 'taken' },
    { field: 'domains.1', code: 'malformed' },
    { field: 'domains.3', code: 'twice' },
    { field: 'siteId', code: 'notAChoice' },
    { field: 'groupTable.0', code: 'notAChoice' },
    { field: 'groupsClaim', code: 'missing' },
  ]);
});

test('the secret is kept sealed, and is in no answer', async () => {
  for (const name of ['sign_on_providers', 'journal', 'outgoing_calls']) {
    const rows = await app.listo.db.select(`SELECT * FROM ${name}`);
    expect(JSON.stringify(rows)).not.toContain(provider.secret);
  }
  expect(JSON.stringify(await read())).not.toContain(provider.secret);
});

test('without passwords all come by the provider but the one for an emergency', async () => {
  const passwordHash = await hashPassword('correct horse battery');
  for (const person of ['helder', 'tomas'])
    await app.listo.db.tables.people.update({ id: person }, { passwordHash });
  const signIn = async (person: string) =>
    (
      await helder.call('POST', '/session', {
        email: await emailOf(person),
        password: 'correct horse battery',
      })
    ).status;
  expect(await signIn('tomas')).toBe(200);
  const only = { passwordsOnlyOf: 'helder', factorAskedOf: 'nobody' };
  const notOne = await helder.call('PUT', '/workshop/sign-on', { ...only, passwordsOnlyOf: 'tomas' });
  expect(notOne.status).toBe(422);
  expect((await helder.call('PUT', '/workshop/sign-on', only)).status).toBe(200);
  expect([await signIn('helder'), await signIn('tomas')]).toEqual([200, 403]);
  const tomas = await app.as('tomas');
  const change = { current: 'correct horse battery', password: 'another horse battery' };
  expect((await tomas.call('PUT', '/my/password', change)).status).toBe(403);
  // The last provider stays as long as there are no passwords, and on; so does the one who has theirs.
  const { version } = await read();
  const typesOf = async (...calls: [string, string, unknown?][]) => {
    const answers = [];
    for (const [method, path, sent] of calls)
      answers.push((await helder.call(method, path, sent)).body as { type: string });
    return answers.map(({ type }) => type);
  };
  const path = `/workshop/sign-on/providers/${id}`;
  expect(await typesOf(['DELETE', path], ['PUT', path, { ...body({ isOn: false }), version }])).toEqual([
    ...['/problems/lastWayIn', '/problems/lastWayIn'],
  ]);
  await app.listo.db.tables.people.update({ id: 'tomas' }, { isAdministrator: true });
  await helder.call('PUT', '/workshop/sign-on', { ...only, passwordsOnlyOf: 'tomas' });
  const kept = (await app.listo.db.tables.people.findOne({ id: 'tomas' }))!;
  const leaving: [string, string, unknown] = ['POST', '/people/tomas/leaving', { version: kept.version }];
  expect(await typesOf(leaving)).toEqual(['/problems/emergencyPassword']);
  await helder.call('PUT', '/workshop/sign-on', { ...only, passwordsOnlyOf: null });
  expect(await signIn('tomas')).toBe(200);
  expect(await typesOf(leaving)).toEqual([undefined]);
});

test('a provider that is taken away lets nobody in; who came by it stays', async () => {
  expect((await helder.call('DELETE', `/workshop/sign-on/providers/${id}`)).status).toBe(200);
  expect(codeOf((await new Browser().ask(start())).next!)).toBe('notBegunHere');
  expect(await app.listo.db.tables.people.findOne({ id: 'ines' })).not.toBeNull();
});
