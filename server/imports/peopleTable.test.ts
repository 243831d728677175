import ExcelJS from 'exceljs';
import iconv from 'iconv-lite';
import { writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Import, ImportProblem } from '../../contract/imports';
import type { PersonRow } from '../people/model';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** People of an organisation that moves in, from a table. */
let app: TestListo;
let [helder, bia, tomas]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('peopleTable');
  [helder, bia, tomas] = await Promise.all(['helder', 'bia', 'tomas'].map(app.as));
});
afterAll(() => app.end());

const mapping = Object.fromEntries(
  ['name', 'email', 'site', 'manager', 'team', 'goesFirst', 'job'].map((field, column) => [
    field,
    { column },
  ]),
);
async function send(bytes: Uint8Array, by = helder!, name = 'people.csv') {
  const form = new FormData();
  form.append('file', new Blob([bytes as BlobPart]), name);
  return (await by.call('POST', '/imports?kind=people', form)) as { status: number; body: Import };
}
type Checked = { good: number; bad: number; problems: ImportProblem[] };
const check = async (id: string): Promise<Checked> =>
  (await helder!.call('POST', `/imports/${id}/check`, { mapping })).body;
async function write(id: string, more: object = {}): Promise<Import> {
  expect((await helder!.call('POST', `/imports/${id}/start`, { mapping, ...more })).status).toBe(200);
  return until(
    async () => (await helder!.call('GET', `/imports/${id}`)).body as Import,
    ({ state }) => state === 'done',
  );
}
const find = async (email: string): Promise<PersonRow> =>
  (await app.listo.db.tables.people.findOne({ email }))!;
const tableOf = (...rows: string[][]): string =>
  [['Nome', 'E-mail', 'Local', 'Chefia', 'Equipa', 'VIP', 'Função'], ...rows]
    .map((row) => row.join(';'))
    .join('\n');

test.each(['utf-8', 'utf-16le', 'windows-1252'])(
  'people come from a table in %s, with managers who stand further down, into their team',
  async (encoding) => {
    const at = encoding.replace(/\W/g, '');
    const table = tableOf(
      [
        `João ${at}`,
        `joao@${at}.example`,
        'Port Alder',
        `chefe@${at}.example`,
        'Finance services',
        'sim',
        'Caixa',
      ],
      [`Inês ${at}`, `chefe@${at}.example`, 'Port Alder', '', '', '', 'Diretora'],
      [`Rui ${at}`, 'no address', 'Atlantis', 'Nobody At All', '', '', ''],
    );
    const { body } = await send(iconv.encode(table, encoding, { addBOM: encoding === 'utf-16le' }));
    expect(body).toMatchObject({ kind: 'people', encoding, rows: 3 });
    const checked = await check(body.id);
    expect([checked.good, checked.bad]).toEqual([2, 1]);
    expect(checked.problems.map(({ line, field, code }) => [line, field, code])).toEqual([
      [4, 'email', 'malformed'],
      [4, 'site', 'unknownSite'],
      [4, 'manager', 'unknownPerson'],
    ]);
    expect(await app.listo.db.tables.people.findOne({ email: `joao@${at}.example` })).toBeNull();
    expect(await write(body.id)).toMatchObject({ written: 2, refused: [] });
    const [joao, ines] = [await find(`joao@${at}.example`), await find(`chefe@${at}.example`)];
    expect(joao).toMatchObject({ name: `João ${at}`, title: 'Caixa', goesFirst: true, managerId: ines.id });
    const teams = await app.listo.db.tables.members.find({ personId: joao.id });
    expect(teams.map(({ role }) => role)).toEqual(['agent']);
  },
);

test('a workbook is read like any table', async () => {
  const workbook = new ExcelJS.Workbook();
  const sheet = workbook.addWorksheet('People');
  sheet.addRow(['Name', 'Mail', 'Site', 'Manager', 'Team', 'VIP', 'Title']);
  sheet.addRow(['Ana, of the "Stores"', 'ana@book.example', 'Port Alder', '', '', '', 'Clerk']);
  const { body } = await send(new Uint8Array(await workbook.xlsx.writeBuffer()), helder, 'people.xlsx');
  expect(body).toMatchObject({
    rows: 1,
    headings: ['Name', 'Mail', 'Site', 'Manager', 'Team', 'VIP', 'Title'],
  });
  await write(body.id);
  expect(await find('ana@book.example')).toMatchObject({ name: 'Ana, of the "Stores"', title: 'Clerk' });
});

test('what only looks like a workbook is refused', async () => {
  const broken = await send(Buffer.from('PK\u0003\u0004 and nothing more'), helder, 'people.xlsx');
  expect(broken.status).toBe(422);
});

test('who is here already is changed, not made twice, and keeps what the table does not say', async () => {
  const before = await find('tomas@solvarra.example');
  const table = tableOf(
    [before.name, before.email.toUpperCase(), 'Port Alder', '', '', '', 'Head of the gates'],
    ['One', 'one@twice.example', 'Port Alder', '', '', '', ''],
    ['Another', 'one@twice.example', 'Port Alder', '', '', '', ''],
  );
  const { body } = await send(Buffer.from(table));
  const checked = await check(body.id);
  expect(checked.problems.map(({ code }) => code)).toEqual(['repeated', 'repeated']);
  await write(body.id);
  const after = await find(before.email);
  expect(after).toMatchObject({ id: before.id, title: 'Head of the gates', phone: before.phone });
  expect(after.managerId).toBe(before.managerId);
  expect(after.version).toBe(before.version + 1);
  // Sent again, nothing changes any more.
  const again = await send(Buffer.from(table));
  await write(again.body.id);
  expect((await find(before.email)).version).toBe(after.version);
});

test('managers in a ring: those that close it are refused, with their line', async () => {
  const table = tableOf(
    ['Uno Ring', 'uno@ring.example', 'Port Alder', 'dos@ring.example', '', '', ''],
    ['Dos Ring', 'dos@ring.example', 'Port Alder', 'uno@ring.example', '', '', ''],
  );
  const { body } = await send(Buffer.from(table));
  const done = await write(body.id);
  expect(done.written).toBe(2);
  expect(done.refused.map(({ line, field, code }) => [line, field, code])).toEqual([
    [3, 'manager', 'lineComesRound'],
  ]);
});

test('those who are new are sent a link, where that is wanted', async () => {
  const { body } = await send(
    Buffer.from(tableOf(['New One', 'new@link.example', 'Port Alder', '', '', '', ''])),
  );
  await write(body.id, { isInvited: true });
  const { id } = await find('new@link.example');
  expect(await app.listo.db.tables.invitations.find({ personId: id })).toHaveLength(1);
});

test('who has left is not brought back by a table', async () => {
  await app.listo.db.tables.people.update({ email: 'new@link.example' }, { leftAt: 1 });
  const { body } = await send(
    Buffer.from(tableOf(['New One', 'new@link.example', 'Port Alder', '', '', '', ''])),
  );
  expect((await check(body.id)).problems.map(({ code }) => code)).toEqual(['hasLeft']);
});

test('gone through once more after its writer died, a table writes nobody twice', async () => {
  const table = Buffer.from(tableOf(['Once Only', 'once@only.example', 'Port Alder', '', '', '', '']));
  const { body } = await send(table);
  const { imports, journal } = app.listo.db.tables;
  await write(body.id);
  const person = await find('once@only.example');
  // As a process leaves it that dies after the row was written and before it was noted.
  await writeFile(path.join(app.dataDir, 'files', 'kept', body.id), table);
  await imports.update({ id: body.id }, { state: 'running', done: 0, written: 0, leaseUntil: 0 });
  app.listo.wake();
  await until(
    () => imports.findOne({ id: body.id }),
    (row) => row?.state === 'done',
  );
  const made = (await journal.find({ type: 'personMade' })).filter(
    ({ data }) => (data as { personId?: string }).personId === person.id,
  );
  expect(made).toHaveLength(1);
  expect((await find('once@only.example')).version).toBe(person.version);
});

test('only those who keep people send a table of them; agents send tickets', async () => {
  expect((await send(Buffer.from(tableOf(['A', 'a@b.example', 'x', '', '', '', ''])), bia)).status).toBe(403);
  expect((await send(Buffer.from(tableOf(['A', 'a@b.example', 'x', '', '', '', ''])), tomas)).status).toBe(
    403,
  );
  const mine = (await helder!.call('GET', '/imports?kind=people')).body as { id: string }[];
  expect(mine.length).toBeGreaterThan(0);
  expect((await helder!.call('GET', '/imports')).body).toEqual([]);
});
