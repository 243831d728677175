import type { Import, ImportProblem } from '../../contract/imports';
import iconv from 'iconv-lite';
import { readdir } from 'node:fs/promises';
import path from 'node:path';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [rui, tomas]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('imports');
  [rui, tomas] = await Promise.all(['rui', 'tomas'].map(app.as));
});
afterAll(() => app.end());

const names = { impact: { site: ['a site', 'um local'] }, urgency: {} };
const mapping = {
  title: { column: 0 },
  requester: { column: 1 },
  service: { always: 'kiosk' },
  words: { column: 2 },
  impact: { column: 3 },
};
async function send(by: Person, bytes: Uint8Array): Promise<{ status: number; body: Import }> {
  const form = new FormData();
  form.append('file', new Blob([bytes as BlobPart]), 'old tickets.csv');
  return (await by.call('POST', '/imports', form)) as { status: number; body: Import };
}
const table = [
  'Assunto;Pedido por;Descrição;Impacto',
  'Quiosque 1 não abre;tomas;"Não abre,',
  'desde ontem";um local',
  ';tomas;;',
  'Quiosque 2;Ninguém;;enorme',
  'Quiosque 3;lena;;',
].join('\r\n');

test.each(['utf-8', 'utf-16le', 'windows-1252'])(
  'a table in %s is looked at, checked by line, and only then written',
  async (encoding) => {
    const before = (await app.listo.db.tables.tickets.find({})).length;
    const bytes = iconv.encode(table, encoding, { addBOM: encoding === 'utf-16le' });
    const { body } = await send(rui!, bytes);
    expect(body).toMatchObject({
      ...{ encoding, delimiter: ';', rows: 4, state: 'arrived' },
      headings: ['Assunto', 'Pedido por', 'Descrição', 'Impacto'],
    });
    const checked = await rui!.call('POST', `/imports/${body.id}/check`, { mapping, names });
    expect(checked.body).toMatchObject({ good: 2, bad: 2 });
    expect(
      (checked.body as { problems: ImportProblem[] }).problems.map(({ line, field, code }) => [
        line,
        field,
        code,
      ]),
    ).toEqual([
      [4, 'title', 'missing'],
      [5, 'requester', 'unknownPerson'],
      [5, 'impact', 'wrongValue'],
    ]);
    expect(await app.listo.db.tables.tickets.find({})).toHaveLength(before);
    expect((await tomas!.call('GET', `/imports/${body.id}`)).status).toBe(404);
    expect((await rui!.call('POST', `/imports/${body.id}/start`, { mapping, names })).status).toBe(200);
    expect((await rui!.call('POST', `/imports/${body.id}/start`, { mapping, names })).status).toBe(409);
    const done = await until(
      async () => (await rui!.call('GET', `/imports/${body.id}`)).body as Import,
      ({ state }) => state === 'done',
    );
    expect(done).toMatchObject({ done: 4, written: 2, refused: [] });
    const [ticket] = await app.listo.db.tables.tickets.find(
      { title: 'Quiosque 1 não abre' },
      { order: [['number', 'DESC']] as never },
    );
    expect(ticket).toMatchObject({
      ...{ requesterId: 'tomas', raisedById: 'rui', via: 'table', impact: 'site', state: 'received' },
      answers: { what: 'Não abre,\ndesde ontem' },
    });
    const entries = await app.listo.db.tables.journal.find({ ticketNumber: ticket!.number });
    expect(entries.map(({ type }) => type)).toContain('sent');
  },
);

test('quotes that do not fit are named by their line; an empty file and strangers are refused', async () => {
  const bad = await send(rui!, Buffer.from('title,requester\r\nA,tomas\r\n"B,tomas\r\n'));
  expect(bad).toMatchObject({ status: 422, body: { type: '/problems/tableNotRead' } });
  expect(await send(rui!, Buffer.from('  '))).toMatchObject({ body: { type: '/problems/fileEmpty' } });
  expect((await send(tomas!, Buffer.from(table))).status).toBe(403);
});

test('what breaks off goes on after the next start, each row once', async () => {
  const rows = Array.from({ length: 240 }, (_, i) => `Broken off ${i},tomas`);
  const { body } = await send(rui!, Buffer.from(['title,requester', ...rows].join('\n')));
  const reading = {
    mapping: { title: { column: 0 }, requester: { column: 1 }, service: { always: 'kiosk' } },
    names,
  };
  await rui!.call('POST', `/imports/${body.id}/start`, reading);
  await until(
    async () => (await rui!.call('GET', `/imports/${body.id}`)).body as Import,
    ({ done }) => done >= 80,
  );
  // As if the process had died: what it noted last is behind what it wrote.
  expect((await rui!.call('POST', `/imports/${body.id}/stop`)).status).toBe(200);
  await until(
    async () => app.listo.db.tables.imports.findOne({ id: body.id }),
    (row) => row?.leaseUntil === 0,
  );
  const stopped = (await app.listo.db.tables.imports.findOne({ id: body.id }))!;
  await app.listo.db.tables.imports.update(
    { id: body.id },
    { done: stopped.done - 80, written: stopped.written - 80 },
  );
  const mine = (await rui!.call('GET', '/imports')).body as Import[];
  expect(mine[0]).toMatchObject({ id: body.id, state: 'stopped', rows: 240 });
  expect((await rui!.call('POST', `/imports/${body.id}/go-on`)).status).toBe(200);
  expect((await rui!.call('POST', `/imports/${body.id}/go-on`)).status).toBe(409);
  await until(
    async () => (await rui!.call('GET', `/imports/${body.id}`)).body as Import,
    ({ state, done }) => state === 'done' && done === 240,
    20_000,
  );
  const written = await app.listo.db.select<{ title: string }>(
    "SELECT title FROM tickets WHERE title LIKE 'Broken off %'",
  );
  expect(written).toHaveLength(240);
  expect(new Set(written.map(({ title }) => title)).size).toBe(240);
});

test('of what a table brings nobody is told, and it is no surge; who has to approve is asked', async () => {
  const { db } = app.listo;
  const rows = [...Array.from({ length: 30 }, (_, i) => `Brought over ${i},kiosk`), 'A radio over,radio'];
  const { body } = await send(rui!, Buffer.from(['title,service', ...rows].join('\n')));
  const reading = {
    mapping: { title: { column: 0 }, service: { column: 1 }, requester: { always: 'lena' } },
    names,
  };
  expect((await rui!.call('POST', `/imports/${body.id}/start`, reading)).status).toBe(200);
  const told = () =>
    db.select<{ event: string }>(
      "SELECT n.event FROM notifications n JOIN tickets t ON t.number = n.ticketNumber WHERE t.title LIKE '% over%' AND t.via = 'table'",
    );
  await until(told, (found) => found.length > 0);
  // The radio is the last row; the others are told of before it.
  expect((await told()).map(({ event }) => event)).toEqual(['asked']);
  const mails = await db.select<{ template: string }>(
    "SELECT m.template FROM mail_out m JOIN tickets t ON t.number = m.ticketNumber WHERE t.via = 'table'",
  );
  expect(mails.map(({ template }) => template)).toEqual(['ask']);
  expect((await rui!.call('GET', '/surges')).body).toMatchObject({ surges: [] });
});

test('a table goes with its file: at once when all is written, after a month when nobody went on with it', async () => {
  const kept = (): Promise<string[]> => readdir(path.join(app.dataDir, 'files', 'kept'));
  const { body: left } = await send(rui!, Buffer.from(table));
  const { body: written } = await send(rui!, Buffer.from(table));
  await rui!.call('POST', `/imports/${written.id}/start`, { mapping, names });
  await until(kept, (ids) => !ids.includes(written.id));
  expect((await rui!.call('POST', `/imports/${written.id}/check`, { mapping, names })).status).toBe(409);
  expect(await kept()).toContain(left.id);
  app.clock.pass(31 * 86_400_000);
  // A session does not last so long.
  const back = await app.as('rui');
  await send(back, Buffer.from(table));
  expect(await kept()).not.toContain(left.id);
  expect((await back.call('GET', `/imports/${left.id}`)).status).toBe(404);
});
