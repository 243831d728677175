import { createServer } from 'node:http';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';
import { hashPassword } from '../sessions/sessions';

/** Getting in, staying in, and doing things in another's name. */
let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('attack_sessions', { env: { LISTO_SESSION_IDLE_HOURS: '24' } });
});
afterAll(() => app.end());

const post = (path: string, body: object, headers: Record<string, string> = {}) =>
  fetch(`${app.url}/api/v1${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', ...headers },
    body: JSON.stringify(body),
  });
const cookieOf = async (personId: string): Promise<string> =>
  (await post('/session/demo', { personId })).headers.getSetCookie()[0]!.split(';')[0]!;

/** Opens a stream. @returns a promise of how long it went on, and what it said */
async function listen(path: string, Cookie: string): Promise<{ ended: Promise<number>; said(): string }> {
  const answer = await fetch(`${app.url}${path}`, { headers: { Cookie } });
  expect(answer.status).toBe(200);
  const begun = performance.now();
  let said = '';
  const ended = (async () => {
    try {
      for await (const part of answer.body as unknown as AsyncIterable<Uint8Array>)
        said += Buffer.from(part).toString();
    } catch {
      // Cut off is ended, too.
    }
    return performance.now() - begun;
  })();
  await until(
    () => Promise.resolve(said),
    (text) => text.length > 0,
  );
  return { ended, said: () => said };
}

describe.each(['/api/v1/live', '/api/v1/conversations/live', '/stand-in/rooms/live'])(
  '%s ends soon after',
  (path) => {
    const SOON_MS = 8_000;
    test('signing out', async () => {
      const Cookie = await cookieOf('rui');
      const stream = await listen(path, Cookie);
      await fetch(`${app.url}/api/v1/session`, { method: 'DELETE', headers: { Cookie } });
      expect(await stream.ended).toBeLessThan(SOON_MS);
    });
    test('a change of rights', async () => {
      const stream = await listen(path, await cookieOf('hanna'));
      await app.listo.db.run(
        "UPDATE team_members SET role = IF(role = 'lead', 'agent', 'lead') WHERE personId = 'hanna'",
      );
      expect(await stream.ended).toBeLessThan(SOON_MS);
    });
    test('leaving', async () => {
      const stream = await listen(path, await cookieOf('yves'));
      await app.listo.db.run("UPDATE people SET leftAt = 1 WHERE id = 'yves'");
      expect(await stream.ended).toBeLessThan(SOON_MS);
      await app.listo.db.run("UPDATE people SET leftAt = NULL WHERE id = 'yves'");
    });
  },
);

describe('signing in', () => {
  const attempt = (email: string, password: string) => post('/session', { email, password });
  beforeAll(async () => {
    const passwordHash = await hashPassword('right and long enough');
    for (const id of ['mina', 'joel']) await app.listo.db.tables.people.update({ id }, { passwordHash });
  });

  test('thirty at once are thirty tries', async () => {
    const answers = await Promise.all(
      Array.from({ length: 30 }, () => attempt('mina@solvarra.example', 'wrong')),
    );
    const statuses = answers.map(({ status }) => status);
    expect(statuses.filter((status) => status === 401).length).toBeLessThanOrEqual(8);
    expect(statuses.filter((status) => status === 429).length).toBeGreaterThanOrEqual(22);
  });

  test.each(['JOEL@solvarra.example', ' joel@solvarra.example', 'joel@solvarra.example '])(
    '%j counts as joel',
    async (email) => {
      expect((await attempt(email, 'right and long enough')).status).toBe(200);
    },
  );
  test.each([
    'jóel@solvarra.example',
    'joel@solvarra.example\u200b',
    'ｊoel@solvarra.example',
    'joel@ſolvarra.example',
  ])('%j is somebody else', async (email) =>
    expect((await attempt(email, 'right and long enough')).status).toBe(401),
  );

  test('a password is changed by who knows the old one, and ends all other sessions', async () => {
    const [one, other] = [await cookieOf('joel'), await cookieOf('joel')];
    const change = (Cookie: string, body: object) =>
      fetch(`${app.url}/api/v1/my/password`, {
        method: 'PUT',
        headers: { Cookie, 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      });
    expect((await change(one, { current: 'wrong', password: 'a quite different one' })).status).toBe(401);
    const weak = await change(one, { current: 'right and long enough', password: 'aaaaaaaaaaaa' });
    expect(await weak.json()).toMatchObject({ fields: [{ field: 'password', code: 'tooSimple' }] });
    expect(
      (await change(one, { current: 'right and long enough', password: 'a quite different one' })).status,
    ).toBe(200);
    const read = async (Cookie: string) =>
      (await fetch(`${app.url}/api/v1/my/tickets`, { headers: { Cookie } })).status;
    expect([
      await read(one),
      await until(
        () => read(other),
        (status) => status === 401,
      ),
    ]).toEqual([200, 401]);
  });

  test('a session in which nothing is done ends', async () => {
    const lena = await app.as('lena');
    expect((await lena.call('GET', '/my/tickets')).status).toBe(200);
    app.clock.pass(25 * 3_600_000);
    await until(
      () => lena.call('GET', '/my/tickets'),
      ({ status }) => status === 401,
    );
  });

  test('answers are kept by nobody, and cookies travel over TLS alone where the address does', async () => {
    const secure = await startTestListo('attack_tls', { env: { LISTO_ADDRESS: 'https://listo.example' } });
    const answer = await fetch(`${secure.url}/api/v1/session/demo`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: '{"personId":"tomas"}',
    });
    expect(answer.headers.getSetCookie()[0]).toMatch(/^__Host-listo-session=.*; Path=\/; HttpOnly; Secure/);
    expect(answer.headers.get('Cache-Control')).toBe('no-store');
    await secure.end();
  });
});

describe('in another’s name', () => {
  let tomas: Person;
  beforeAll(async () => {
    tomas = await app.as('tomas');
  });
  const kiosk = {
    ...{ serviceId: 'kiosk', title: 'Kiosk 3' },
    answers: { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' },
  };
  const create = async (body: object = kiosk): Promise<number> =>
    ((await tomas.call('POST', '/tickets', body)).body as { number: number }).number;

  test('a key belongs to the request that it came with', async () => {
    const ana = await app.as('ana');
    const scanner = {
      serviceId: 'gate-scanner',
      title: 'Scanner',
      answers: { site: 'x', sort: 'hand', count: 1 },
    };
    const number = await create(scanner);
    const ask = ((await ana.call('GET', '/my/asks')).body as { id: string; number: number }[]).find(
      (each) => each.number === number,
    )!;
    const headers = { 'Idempotency-Key': 'the-same-key-again' };
    const say = (decision: string) =>
      ana.call('POST', `/asks/${ask.id}/decision`, { decision, words: 'Not now' }, headers);
    const question = await ana.call('POST', `/asks/${ask.id}/question`, { words: 'Which gate?' }, headers);
    expect(question.status).toBeLessThan(300);
    // Another request under it did nothing, and said that it had.
    expect(await say('decline')).toMatchObject({ status: 409, body: { type: '/problems/keyUsed' } });
    expect((await app.listo.db.tables.asks.findOne({ id: ask.id }))!.decision).toBeNull();
  });

  test('unknown fields are refused, and what changes nothing is no event', async () => {
    const number = await create();
    const rui = await app.as('rui');
    const { version } = (await rui.call('GET', `/tickets/${number}`)).body as { version: number };
    const patch = (body: object) => rui.call('PATCH', `/tickets/${number}`, body);
    expect(await patch({ version, tittle: 'x' })).toMatchObject({
      ...{ status: 422, body: { fields: [{ field: 'tittle', code: 'unknown' }] } },
    });
    expect(await patch({ version, title: 'Kiosk 3' })).toMatchObject({ status: 200, body: { version } });
    expect(await app.listo.db.tables.journal.find({ ticketNumber: number, type: 'changed' })).toEqual([]);
  });

  test('who is told also has to be there', async () => {
    expect(await tomas.call('POST', '/tickets', { ...kiosk, alsoToldIds: ['nobody-there'] })).toMatchObject({
      ...{ status: 422, body: { fields: [{ field: 'alsoToldIds', code: 'notAChoice' }] } },
    });
  });

  test('what was sent stays, also for who sent it; what was not sent goes after a day', async () => {
    const upload = async (): Promise<string> => {
      const form = new FormData();
      form.append('file', new Blob(['notes']), 'no\u202egnp.txt');
      const { body } = await tomas.call('POST', '/files', form);
      expect(body).toMatchObject({ name: 'nognp.txt' });
      return (body as { id: string }).id;
    };
    const [sent, unsent] = [await upload(), await upload()];
    await create({ ...kiosk, fileIds: [sent] });
    expect(await tomas.call('DELETE', `/files/${sent}`)).toMatchObject({
      status: 409,
      body: { type: '/problems/fileSent' },
    });
    const { forgetUnsent } = await import('../files/unsent');
    const { FileStore } = await import('../files/store');
    app.clock.pass(25 * 3_600_000);
    await forgetUnsent(app.listo, new FileStore(app.dataDir));
    tomas = await app.as('tomas');
    expect((await tomas.call('GET', `/files/${unsent}`)).status).toBe(404);
    expect((await tomas.call('GET', `/files/${sent}`)).status).toBe(200);
  });
});

describe('outside addresses', () => {
  const reads = async (address: string, hosts = ''): Promise<string> => {
    const { callOut } = await import('../http/outgoing');
    const listo = { ...app.listo, config: { ...app.listo.config, LISTO_OUTGOING_HOSTS: hosts } };
    return callOut(listo, { address, body: '{}', id: 'made-up-0001', of: { kind: 'step', ref: 'x' } }).then(
      ({ status }) => String(status),
      (error: unknown) => (error as Error).constructor.name,
    );
  };
  test.each([
    ...[
      'http://127.0.0.1/',
      'https://127.0.0.1/',
      'https://localhost/',
      'https://2130706433/',
      'https://0x7f.1/',
    ],
    ...[
      'https://[::1]/',
      'https://[::ffff:10.0.0.1]/',
      'https://169.254.169.254/latest',
      'https://10.1.2.3/',
    ],
    ...[
      'file:///etc/passwd',
      'ftp://example.org/',
      '/api/v1/session',
      '//example.org/',
      'https://a:b@example.org/',
    ],
    ...['/stand-in/../api/v1/session', 'https://0.0.0.0/', 'https://100.64.0.1/'],
  ])('%s is not called', async (address) => expect(await reads(address)).toBe('NotAllowed'));

  test('one that is named is, once, without following where it points', async () => {
    const seen: string[] = [];
    const server = createServer((request, response) => {
      seen.push(`${request.url} ${String(request.headers['webhook-signature']).slice(0, 3)}`);
      response.writeHead(302, { Location: '/elsewhere' }).end();
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const origin = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
    expect(await reads(`${origin}/order`, origin)).toBe('302');
    expect(await reads(`${origin}/order`)).toBe('NotAllowed');
    expect(await reads(`${origin.replace('127.0.0.1', 'localhost')}/order`, origin)).toBe('NotAllowed');
    expect(seen).toEqual(['/order v1,']);
    server.close();
  });
});
