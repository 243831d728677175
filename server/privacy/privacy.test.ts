import { execFile } from 'node:child_process';
import { readdir } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import { fromBuffer, type ZipFile } from 'yauzl';
import type { ErasureCounts } from '../../contract/privacy';
import type { Ticket } from '../../contract/tickets';
import { TOMBSTONE } from '../../core/privacy';
import { checkSeal, sealNow } from '../audit/seals';
import { KIOSK } from '../testing/chat';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** What is known of a person: all of it as one archive, and what is left of it once they are erased. */
let app: TestListo;
let [helder, tomas, rui]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('privacy');
  [helder, tomas, rui] = await Promise.all(['helder', 'tomas', 'rui'].map(app.as));
});
afterAll(() => app.end());

const MARK = 'zqxsecret';
const typeOf = (answer: { body: unknown }): string => (answer.body as { type: string }).type;

async function upload(who: Person, name: string): Promise<string> {
  const form = new FormData();
  form.append('file', new Blob([`${MARK} in a file`], { type: 'text/plain' }), name);
  const { body, status } = await who.call('POST', '/files', form);
  expect(status).toBe(200);
  return (body as { id: string }).id;
}

/** A ticket with the mark in all that its requester can write. */
async function report(who: Person): Promise<{ number: number; fileId: string }> {
  const fileId = await upload(who, `${MARK}.txt`);
  const answers = { ...KIOSK, what: `${MARK} in an answer` };
  const sent = await who.call('POST', '/tickets', {
    ...{ serviceId: 'kiosk', title: `${MARK} in the title`, answers, fileIds: [fileId] },
  });
  expect(sent.status).toBe(200);
  const { number } = sent.body as { number: number };
  const words = { text: `${MARK} in words`, readBy: 'requester', links: [], fileIds: [] };
  await who.call('POST', `/tickets/${number}/messages`, words);
  const { version } = (await rui!.call('GET', `/tickets/${number}`)).body as Ticket;
  await rui!.call('PATCH', `/tickets/${number}`, { version, title: `${MARK} better said` });
  await rui!.call('POST', `/tickets/${number}/messages`, {
    ...words,
    text: 'Rui looks at it.',
    readBy: 'team',
  });
  return { number, fileId };
}

/** The files of an archive, as text. */
function unzip(bytes: Buffer): Promise<Map<string, string>> {
  const files = new Map<string, string>();
  return new Promise((resolve, reject) => {
    fromBuffer(bytes, { lazyEntries: true }, (error, zip?: ZipFile) => {
      if (!zip) {
        reject(error ?? new Error('no archive'));
        return;
      }
      zip.on('error', reject).on('end', () => resolve(files));
      zip.on('entry', (entry: { fileName: string }) => {
        zip.openReadStream(entry as never, (failure, stream) => {
          if (failure) {
            reject(failure);
            return;
          }
          const parts: Buffer[] = [];
          stream.on('data', (part: Buffer) => parts.push(part));
          stream.on('end', () => {
            files.set(entry.fileName, Buffer.concat(parts).toString('utf8'));
            zip.readEntry();
          });
        });
      });
      zip.readEntry();
    });
  });
}
async function archiveOf(personId: string, address: string): Promise<Map<string, string>> {
  const signedIn = await fetch(`${app.url}/api/v1/session/demo`, {
    ...{
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ personId }),
    },
  });
  const Cookie = signedIn.headers.getSetCookie()[0]!.split(';')[0]!;
  const response = await fetch(`${app.url}/api/v1${address}`, { headers: { Cookie } });
  expect([response.status, response.headers.get('Content-Type')]).toEqual([200, 'application/zip']);
  return unzip(Buffer.from(await response.arrayBuffer()));
}
const linesOf = (text: string | undefined): Record<string, unknown>[] =>
  (text ?? '')
    .trim()
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line) as Record<string, unknown>);

test('everything that is known of me, as one archive: tickets, words, files, what I did', async () => {
  const { number, fileId } = await report(tomas!);
  const files = await archiveOf('tomas', '/my/archive');
  expect(JSON.parse(files.get('person.json')!)).toMatchObject({ id: 'tomas' });
  expect(files.get('person.json')).not.toContain('passwordHash');
  expect(linesOf(files.get('tickets.jsonl')).map((ticket) => ticket.number)).toContain(number);
  expect(linesOf(files.get('messages.jsonl')).map(({ text }) => text)).toContain(`${MARK} in words`);
  expect(JSON.stringify([...files])).not.toContain('Rui looks at it.');
  expect(linesOf(files.get('journal.jsonl')).map(({ type }) => type)).toEqual(
    expect.arrayContaining(['sent', 'signedIn']),
  );
  const [name] = [...files.keys()].filter((each) => each.startsWith(`files/${fileId}`));
  expect(files.get(name!)).toContain(MARK);
});

test('of others only those who keep people have it, without what is in confidence', async () => {
  expect((await rui!.call('GET', '/workshop/people/tomas/archive')).status).toBe(403);
  const lena = await app.as('lena');
  const letter = {
    serviceId: 'letter',
    title: 'zqxconfidence',
    answers: { about: 'salary', language: 'en' },
  };
  expect((await lena.call('POST', '/tickets', letter)).status).toBe(200);
  const byHelder = await archiveOf('helder', '/workshop/people/lena/archive');
  expect(JSON.stringify([...byHelder])).not.toContain('zqxconfidence');
  expect(JSON.stringify([...(await archiveOf('lena', '/my/archive'))])).toContain('zqxconfidence');
});

test('who is still here is not erased, nor anyone by a name that is typed wrong', async () => {
  const erase = (body: object) => helder!.call('POST', '/workshop/people/aro/erasure', body);
  expect(typeOf(await erase({ name: 'Aro', reason: 'asked for it' }))).toBe('/problems/stillHere');
  await app.listo.db.tables.people.update({ id: 'aro' }, { leftAt: app.clock.now() });
  const wrong = await erase({ name: 'Somebody', reason: 'asked for it' });
  expect((wrong.body as { fields: object[] }).fields).toEqual([{ field: 'name', code: 'notTheName' }]);
  expect((await rui!.call('POST', '/workshop/people/aro/erasure', { name: 'x', reason: 'y' })).status).toBe(
    403,
  );
});

test('erased, nothing says any more what they wrote, nowhere; their tickets are still there and still read', async () => {
  const ines = await app.as('ines');
  const { number, fileId } = await report(ines);
  await until(
    () =>
      app.listo.db.select<{ count: number }>('SELECT COUNT(*) AS count FROM journal WHERE position IS NULL'),
    ([row]) => row!.count === 0,
  );
  await app.listo.db.transaction((tx) => sealNow(app.listo, tx));
  const [seal] = await app.listo.db.tables.seals.find({}, { order: [['id', 'DESC']], limit: 1 });
  expect(await checkSeal(app.listo, seal!.id)).toEqual({ holds: true, isLinked: true });
  const person = (await app.listo.db.tables.people.findOne({ id: 'ines' }))!;
  await app.listo.db.tables.people.update({ id: 'ines' }, { leftAt: app.clock.now() });
  const before = (await helder!.call('GET', '/workshop/people/ines/erasure')).body as ErasureCounts;
  expect(before).toMatchObject({ tickets: 1, messages: 1, files: 1 });
  const tomasToo = await report(tomas!);
  const erased = await helder!.call('POST', '/workshop/people/ines/erasure', {
    ...{ name: person.name, reason: 'She asked for it.' },
  });
  expect(erased.status).toBe(200);

  // Nothing of hers in any table; what others wrote is as it was.
  const tables = await app.listo.db.select<{ name: string }>(
    "SELECT TABLE_NAME AS name FROM information_schema.tables WHERE TABLE_SCHEMA = DATABASE() AND TABLE_TYPE = 'BASE TABLE'",
  );
  const found: string[] = [];
  for (const { name } of tables) {
    const rows = await app.listo.db.select<Record<string, unknown>>(`SELECT * FROM \`${name}\``);
    const hers = rows.filter((row) => {
      const text = JSON.stringify(row);
      return (
        text.includes(person.email) ||
        text.includes(person.name) ||
        (text.includes(MARK) && text.includes(String(number)))
      );
    });
    if (hers.length > 0 && !name.startsWith('room'))
      found.push(`${name}: ${JSON.stringify(hers[0]).slice(0, 300)}`);
  }
  expect(found).toEqual([]);
  const kept = (await rui!.call('GET', `/tickets/${number}`)).body as Ticket;
  expect(kept).toMatchObject({ title: TOMBSTONE, requester: { name: TOMBSTONE } });
  expect(kept.entries.map(({ message }) => message?.text)).toContain('Rui looks at it.');
  const others = (await rui!.call('GET', `/tickets/${tomasToo.number}`)).body as Ticket;
  expect(JSON.stringify(others)).toContain(MARK);
  expect((await rui!.call('GET', `/files/${fileId}`)).status).toBe(404);
  expect(await readdir(path.join(app.dataDir, 'files', 'kept'))).not.toContain(fileId);
  const grep = await promisify(execFile)('grep', ['-rl', fileId, path.join(app.dataDir, 'files')]).catch(
    () => ({ stdout: '' }),
  );
  expect(grep.stdout).toBe('');

  // She cannot come in; that it was done is on record, and the seal over what was erased still holds.
  expect((await ines.call('GET', '/worklists')).status).toBe(401);
  expect(await checkSeal(app.listo, seal!.id)).toEqual({ holds: true, isLinked: true });
  expect(await app.listo.db.tables.journal.findOne({ type: 'personErased', aboutId: 'ines' })).toMatchObject({
    ...{ actorId: 'helder', data: { why: 'She asked for it.' } },
  });
  const again = await helder!.call('POST', '/workshop/people/ines/erasure', { name: TOMBSTONE, reason: 'x' });
  expect(typeOf(again)).toBe('/problems/alreadyErased');
});

test('by no other door is an entry of the journal ever written again', async () => {
  const write = app.listo.db.run("UPDATE journal SET data = '{}' WHERE position IS NOT NULL LIMIT 1");
  await expect(write).rejects.toThrow();
});
