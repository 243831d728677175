import { TOTP, Secret } from 'otpauth';
import { startTestListo, type Person, type TestListo } from '../testing/harness';
import { findStep } from './factor';
import { hashPassword } from './sessions';

/** Second factors: codes of now, each once; codes for when they are lost; asked of whom it is set. */
let app: TestListo;
let [helder, marta]: Person[] = [];
const PASSWORD = 'correct horse battery';
const SITTING = { Cookie: '', 'Content-Type': 'application/json' };

type Session = { call: Person['call']; cookie: string; status: number; type: string };
async function signIn(person: string, code?: string, password = PASSWORD): Promise<Session> {
  const { email } = (await app.listo.db.tables.people.findOne({ id: person }))!;
  const response = await fetch(`${app.url}/api/v1/session`, {
    ...{ method: 'POST', headers: SITTING, body: JSON.stringify({ email, password, code }) },
  });
  const { type = '' } = (await response.json()) as { type?: string };
  const cookie = response.headers.getSetCookie()[0]?.split(';')[0] ?? '';
  return { call: callWith(cookie), cookie, status: response.status, type };
}
const callWith =
  (Cookie: string): Person['call'] =>
  async (method, path, body) => {
    const response = await fetch(`${app.url}/api/v1${path}`, {
      ...{ method, headers: { ...SITTING, Cookie } },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
    return { status: response.status, headers: response.headers, body: (await response.json()) as never };
  };
const codeOf = (secret: string, steps = 0): string =>
  new TOTP({ secret: Secret.fromBase32(secret) }).generate({
    ...{ timestamp: app.clock.now() + steps * 30_000 },
  });
/** Sets a second factor, and lets the step of its first code pass. */
async function set(call: Person['call']): Promise<{ secret: string; spares: string[] }> {
  const { secret } = (await call('POST', '/my/second-factor')).body as { secret: string };
  const set = await call('PUT', '/my/second-factor', { code: codeOf(secret) });
  expect(set.status).toBe(200);
  app.clock.pass(60_000);
  return { secret, ...(set.body as { spares: string[] }) };
}

beforeAll(async () => {
  app = await startTestListo('factor');
  [helder, marta] = await Promise.all(['helder', 'marta'].map(app.as));
  const passwordHash = await hashPassword(PASSWORD);
  for (const id of ['helder', 'marta', 'tomas', 'bia', 'rui'])
    await app.listo.db.tables.people.update({ id }, { passwordHash });
});
afterAll(() => app.end());
afterEach(async () => {
  await app.listo.db.run('DELETE FROM second_factors');
  await helder!.call('PUT', '/workshop/sign-on', { passwordsOnlyOf: null, factorAskedOf: 'nobody' });
});

/** RFC 6238, appendix B, SHA-1: the secret is the ASCII text 12345678901234567890; codes of eight digits. */
test.each([
  [59, '94287082', 0x1],
  [1_111_111_109, '07081804', 0x23523ec],
  [1_111_111_111, '14050471', 0x23523ed],
  [1_234_567_890, '89005924', 0x273ef07],
  [2_000_000_000, '69279037', 0x3f940aa],
  [20_000_000_000, '65353130', 0x27bc86aa],
])('at %i s the code of RFC 6238 is %s', (seconds, code, step) => {
  const secret = Secret.fromUTF8('12345678901234567890').base32;
  expect(findStep(secret, code, { now: seconds * 1000, digits: 8 })).toBe(step);
  // A step before and after are taken, two are not.
  expect(findStep(secret, code, { now: (seconds + 30) * 1000, digits: 8 })).toBe(step);
  expect(findStep(secret, code, { now: (seconds + 60) * 1000, digits: 8 })).toBeNull();
});

test('whoever has one gives a code with the password; each works once', async () => {
  const { secret } = await set(marta!.call);
  expect((await signIn('marta')).type).toBe('/problems/codeNeeded');
  expect((await signIn('marta', '000000')).type).toBe('/problems/wrongFactorCode');
  const code = codeOf(secret);
  expect((await signIn('marta', ` ${code.slice(0, 3)} ${code.slice(3)}`)).status).toBe(200);
  expect((await signIn('marta', code)).type).toBe('/problems/wrongFactorCode');
  // Nor does one of before, though it is still of the time that is taken.
  expect((await signIn('marta', codeOf(secret, -1))).type).toBe('/problems/wrongFactorCode');
  app.clock.pass(30_000);
  expect((await signIn('marta', codeOf(secret))).status).toBe(200);
});

test('who does not know the password learns nothing of the second factor', async () => {
  await set(marta!.call);
  expect((await signIn('marta', undefined, 'wrong')).type).toBe('/problems/wrongNameOrPassword');
});

test('wrong codes count like wrong passwords', async () => {
  const { secret } = await set(marta!.call);
  for (let i = 0; i < 8; i++) await signIn('marta', '000000');
  expect((await signIn('marta', codeOf(secret))).type).toBe('/problems/tooManyTries');
  app.clock.pass(15 * 60_000 + 1);
  expect((await signIn('marta', codeOf(secret))).status).toBe(200);
});

test('a spare code lets in once', async () => {
  const { spares } = await set(marta!.call);
  expect(new Set(spares).size).toBe(8);
  expect((await signIn('marta', spares[0]!.toUpperCase())).status).toBe(200);
  expect((await signIn('marta', spares[0])).status).toBe(401);
  expect((await marta!.call('GET', '/my/second-factor')).body).toMatchObject({ spares: 7 });
});

test('one that was begun and not confirmed does not count, and a wrong code does not confirm it', async () => {
  const begin = async () =>
    ((await marta!.call('POST', '/my/second-factor')).body as { secret: string }).secret;
  const first = await begin();
  expect((await marta!.call('PUT', '/my/second-factor', { code: '000000' })).status).toBe(401);
  expect((await signIn('marta')).status).toBe(200);
  // Begun anew it is another secret.
  const second = await begin();
  expect((await marta!.call('PUT', '/my/second-factor', { code: codeOf(first) })).status).toBe(401);
  expect((await marta!.call('PUT', '/my/second-factor', { code: codeOf(second) })).status).toBe(200);
  expect((await marta!.call('POST', '/my/second-factor')).status).toBe(409);
});

test('it is taken away by a code of it, or by an administrator where it is lost', async () => {
  const { secret } = await set(marta!.call);
  const remove = (code: string) => marta!.call('DELETE', '/my/second-factor', { code });
  expect((await remove('')).status).toBe(401);
  expect((await remove('000000')).status).toBe(401);
  expect((await remove(codeOf(secret))).status).toBe(200);
  expect((await signIn('marta')).status).toBe(200);
  await set(marta!.call);
  expect((await marta!.call('DELETE', '/workshop/people/marta/second-factor')).status).toBe(403);
  expect((await helder!.call('DELETE', '/workshop/people/marta/second-factor')).status).toBe(200);
  const { history, hasFactor } = (await helder!.call('GET', '/workshop/people/marta')).body as {
    history: { type: string; byName: string }[];
    hasFactor: boolean;
  };
  expect(hasFactor).toBe(false);
  expect(history[0]).toMatchObject({ type: 'factorRemoved' });
});

describe('where it is asked of those who work in a team', () => {
  beforeEach(() =>
    helder!.call('PUT', '/workshop/sign-on', { passwordsOnlyOf: null, factorAskedOf: 'teams' }),
  );

  test('who has none gets no further than to set it', async () => {
    const rui = await signIn('rui');
    expect(rui.status).toBe(200);
    const seen = await rui.call('GET', '/session');
    expect(seen.body).toMatchObject({ me: null, mustSetFactor: true });
    for (const path of ['/tickets/1', '/worklists', '/live', '/sessions', '/my/archive', '/people?q=a'])
      expect((await rui.call('GET', path)).status).toBe(401);
    await set(rui.call);
    expect((await rui.call('GET', '/session')).body).toMatchObject({
      me: { id: 'rui' },
      mustSetFactor: false,
    });
    expect((await rui.call('GET', '/worklists')).status).toBe(200);
  });
  test('who is signed in already has to as well, at once', async () => {
    await helder!.call('PUT', '/workshop/sign-on', { passwordsOnlyOf: null, factorAskedOf: 'nobody' });
    const bia = await signIn('bia');
    expect((await bia.call('GET', '/worklists')).status).toBe(200);
    await helder!.call('PUT', '/workshop/sign-on', { passwordsOnlyOf: null, factorAskedOf: 'teams' });
    expect((await bia.call('GET', '/worklists')).status).toBe(401);
    expect((await bia.call('DELETE', '/session')).status).toBe(200);
  });
  test('employees are not asked', async () => {
    const tomas = await signIn('tomas');
    expect((await tomas.call('GET', '/session')).body).toMatchObject({ me: { id: 'tomas' } });
  });
});

test('a link for another password does not go round it', async () => {
  const { secret } = await set(marta!.call);
  const invited = await helder!.call('POST', '/workshop/people/marta/invitation');
  const token = (invited.body as { link: string }).link.split('/').at(-1)!;
  const accept = async (code?: string) =>
    (
      (await callWith('')('POST', `/invitations/${token}`, { password: 'a quite new password', code }))
        .body as { type?: string }
    ).type;
  expect(await accept()).toBe('/problems/codeNeeded');
  expect(await accept('000000')).toBe('/problems/wrongFactorCode');
  expect(await accept(codeOf(secret))).toBeUndefined();
  await app.listo.db.tables.people.update({ id: 'marta' }, { passwordHash: await hashPassword(PASSWORD) });
  // All that were open have ended.
  marta = await app.as('marta');
});

test('codes cannot be tried through by who sits at an open session either', async () => {
  const { secret } = await set(marta!.call);
  const remove = (code: string) => marta!.call('DELETE', '/my/second-factor', { code });
  for (let i = 0; i < 8; i++) await remove('000000');
  expect((await remove(codeOf(secret))).status).toBe(429);
  app.clock.pass(15 * 60_000 + 1);
  expect((await remove(codeOf(secret))).status).toBe(200);
});

test('the secret is sealed, the spare codes are hashed', async () => {
  const { secret, spares } = await set(marta!.call);
  const rows = JSON.stringify(await app.listo.db.select('SELECT * FROM second_factors'));
  for (const each of [secret, ...spares, ...spares.map((spare) => spare.replace('-', ''))])
    expect(rows).not.toContain(each);
});
