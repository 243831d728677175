import { createReadStream } from 'node:fs';
import { readdir } from 'node:fs/promises';
import { request } from 'node:http';
import path from 'node:path';
import { startTestListo, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let tomas: Person;
beforeAll(async () => {
  app = await startTestListo('input');
  tomas = await app.as('tomas');
});
afterAll(() => app.end());

const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' };
const kiosk = { serviceId: 'kiosk', title: 'Kiosk 3 frozen', answers };
const create = (body: object, headers?: Record<string, string>) =>
  tomas.call('POST', '/tickets', body, headers);
const countTickets = async () => (await app.listo.db.select('SELECT number FROM tickets')).length;

describe('what does not fit is said by the field', () => {
  test.each([
    [{ title: 'x'.repeat(1_000_000) }, 'title', 'tooLong'],
    [{ title: 'a\u0000b' }, 'title', 'badCharacter'],
    [{ title: 'a\uD800b' }, 'title', 'badCharacter'],
    [{ title: '   ' }, 'title', 'missing'],
    [{ answers: { ...answers, what: '' } }, 'answers.what', 'missing'],
    [{ answers: { ...answers, what: 'a\u0000b' } }, 'answers.what', 'badCharacter'],
    [{ answers: { ...answers, urgency: 'soon' } }, 'answers.urgency', 'notAChoice'],
    [{ fileIds: ['nowhere'] }, 'fileIds', 'notAChoice'],
  ])('%#', async (change, field, code) => {
    const { status, body } = await create({ ...kiosk, ...change });
    expect(status).toBe(422);
    expect((body as { fields: object[] }).fields).toContainEqual(expect.objectContaining({ field, code }));
  });

  test('more than can be taken at once, and what is not JSON', async () => {
    expect((await create({ ...kiosk, title: 'x'.repeat(3_000_000) })).status).toBe(413);
    const response = await fetch(`${app.url}/api/v1/session`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: '{"',
    });
    expect(response.status).toBe(400);
    expect(response.headers.get('Content-Type')).toContain('application/problem+json');
  });
});

test.each([
  '<script>alert(1)</script>',
  'right \u202Eto left',
  'ferry 🛳 and ⛴',
  "Robert'); DROP TABLE tickets;--",
])('is stored and given back exactly: %j', async (title) => {
  const { body } = await create({ ...kiosk, title });
  const { number } = body as { number: number };
  expect((await tomas.call('GET', `/tickets/${number}`)).body).toMatchObject({ title });
});

test('the same POST twice, also at once, is one ticket', async () => {
  const before = await countTickets();
  const headers = { 'Idempotency-Key': 'one-click-only' };
  const all = await Promise.all(Array.from({ length: 5 }, () => create(kiosk, headers)));
  const later = await create(kiosk, headers);
  expect(new Set([...all, later].map(({ body }) => (body as { number: number }).number)).size).toBe(1);
  expect(await countTickets()).toBe(before + 1);
});

describe('files', () => {
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  const send = (content: Uint8Array<ArrayBuffer>, name: string) => {
    const form = new FormData();
    form.append('file', new Blob([content]), name);
    return tomas.call('POST', '/files', form);
  };
  const lying = async () => [
    ...(await readdir(path.join(app.dataDir, 'files/arriving'))),
    ...(await readdir(path.join(app.dataDir, 'files/kept'))),
  ];

  test('a picture goes with a ticket and can be read by those who read it, and by nobody else', async () => {
    const { body } = await send(new Uint8Array(png), 'ecrã.png');
    const { id } = body as { id: string };
    expect(body).toMatchObject({ name: 'ecrã.png', type: 'image/png', size: png.length });
    const other = await app.as('joel');
    expect((await other.call('GET', `/files/${id}`)).status).toBe(404);
    const { body: created } = await create({ ...kiosk, fileIds: [id] });
    expect(
      (await tomas.call('GET', `/tickets/${(created as { number: number }).number}`)).body,
    ).toMatchObject({ files: [{ id }] });
    expect((await tomas.call('GET', `/files/${id}`)).headers.get('Content-Type')).toBe('image/png');
    expect((await other.call('GET', `/files/${id}`)).status).toBe(404);
    expect((await (await app.as('rui')).call('GET', `/files/${id}`)).status).toBe(200);
    expect((await other.call('DELETE', `/files/${id}`)).status).toBe(404);
  });

  test.each([
    ['of zero bytes', new Uint8Array(0), 'a.png', 422, 'fileEmpty'],
    [
      'a program under another name',
      new Uint8Array([0x4d, 0x5a, 0x90, 0, 3, 0, 0, 0, ...Array<number>(200).fill(0)]),
      'a.png',
      415,
      'fileTypeNotAllowed',
    ],
    [
      'a script as a picture',
      new TextEncoder().encode('#!/bin/sh\nrm -rf /\n'),
      'a.png',
      415,
      'fileTypeNotAllowed',
    ],
    [
      'a page',
      new TextEncoder().encode('<html><script>alert(1)</script>'),
      'a.html',
      415,
      'fileTypeNotAllowed',
    ],
    ['larger than 25 MB', new Uint8Array(25 * 1024 * 1024 + 1), 'a.txt', 413, 'fileTooLarge'],
  ])('%s is refused and leaves nothing', async (_, content, name, status, problem) => {
    const before = await lying();
    expect(await send(content as Uint8Array<ArrayBuffer>, name)).toMatchObject({
      status,
      body: { type: `/problems/${problem}` },
    });
    expect(await lying()).toEqual(before);
  });

  test('an upload that breaks off leaves nothing', async () => {
    const before = await lying();
    const signedIn = await fetch(`${app.url}/api/v1/session/demo`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: '{"personId":"tomas"}',
    });
    const cookie = signedIn.headers.getSetCookie()[0]!.split(';')[0]!;
    const headers = {
      Cookie: cookie,
      'Content-Type': 'multipart/form-data; boundary=x',
      'Content-Length': '5000000',
    };
    await new Promise<void>((resolve) => {
      const upload = request(`${app.url}/api/v1/files`, { method: 'POST', headers });
      upload.on('error', () => resolve()).on('close', () => resolve());
      upload.write('--x\r\nContent-Disposition: form-data; name="file"; filename="a.txt"\r\n\r\nhalf');
      createReadStream('/dev/zero', { end: 200_000 })
        .on('data', (chunk) => upload.write(chunk))
        .on('end', () => upload.destroy());
    });
    const end = performance.now() + 5_000;
    let left = await lying();
    while (left.length > before.length && performance.now() < end) left = await lying();
    expect(left).toEqual(before);
    expect(await app.listo.db.select("SELECT id FROM files WHERE name = 'a.txt'")).toEqual([]);
  });
});

describe('sessions', () => {
  const post = (body: object, headers: Record<string, string> = {}) =>
    fetch(`${app.url}/api/v1/session`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', ...headers },
      body: JSON.stringify(body),
    });

  test('without one nothing is answered, with an unknown one neither', async () => {
    for (const Cookie of ['', 'listo-session=made-up'])
      expect((await fetch(`${app.url}/api/v1/my/tickets`, { headers: { Cookie } })).status).toBe(401);
  });

  test('posts from another site are refused', async () => {
    expect((await post({ email: 'a', password: 'b' }, { Origin: 'https://elsewhere.example' })).status).toBe(
      403,
    );
    expect((await create(kiosk, { 'Sec-Fetch-Site': 'cross-site' })).status).toBe(403);
  });

  test('the cookie is for HTTP only and same-site; a session can be seen and ended', async () => {
    const joel = await app.as('yves');
    const other = await app.as('yves');
    const { body } = await joel.call('GET', '/sessions');
    const sessions = body as { id: string; isThis: boolean }[];
    expect(sessions).toHaveLength(2);
    await joel.call('DELETE', `/sessions/${sessions.find(({ isThis }) => !isThis)!.id}`);
    expect((await other.call('GET', '/my/tickets')).status).toBe(401);
    expect((await joel.call('GET', '/my/tickets')).status).toBe(200);
    const response = await fetch(`${app.url}/api/v1/session/demo`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: '{"personId":"joel"}',
    });
    expect(response.headers.getSetCookie()[0]).toMatch(/HttpOnly.*SameSite=Lax|SameSite=Lax.*HttpOnly/);
  });

  test('failed sign-ins make that address wait, not the person', async () => {
    const { checkPassword, hashPassword } = await import('../sessions/sessions');
    const { listo } = app;
    await listo.db.tables.people.update(
      { id: 'mina' },
      { passwordHash: await hashPassword('right and long enough') },
    );
    const attempt = (password: string, address: string) =>
      checkPassword(listo, { email: 'mina@solvarra.example', password }, address);
    for (let i = 0; i < 8; i++)
      await expect(attempt('wrong', '10.0.0.1')).rejects.toMatchObject({ problem: 'wrongNameOrPassword' });
    await expect(attempt('right and long enough', '10.0.0.1')).rejects.toMatchObject({
      problem: 'tooManyTries',
    });
    await expect(attempt('right and long enough', '10.0.0.2')).resolves.toBe('mina');
    app.clock.pass(16 * 60_000);
    await expect(attempt('right and long enough', '10.0.0.1')).resolves.toBe('mina');
  });
});

test('an unknown address is a problem, not a page', async () => {
  expect(await tomas.call('GET', '/nowhere')).toMatchObject({
    status: 404,
    body: { type: '/problems/notFound' },
  });
});
