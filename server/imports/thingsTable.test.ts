import type { Import, ImportProblem } from '../../contract/imports';
import type { ThingRow } from '../estate/model';
import { readNetwork, standingOf } from '../estate/network';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';
import { kindRow, thingRow } from '../testing/things';

/** Things of an inventory, from a table. */
let app: TestListo;
let [helder, bia, rui, tomas]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('thingsTable');
  [helder, bia, rui, tomas] = await Promise.all(['helder', 'bia', 'rui', 'tomas'].map(app.as));
  await app.listo.db.tables.thingKinds.insertAll([
    kindRow({ id: 'laptop', name: { en: 'Laptop', pt: 'Portátil' }, keptBy: ['desk'] }),
    kindRow({ id: 'line', name: { en: 'Line', pt: 'Linha' } }),
  ]);
});
afterAll(() => app.end());

const FIELDS = ['kind', 'name', 'tag', 'serial', 'holder', 'site', 'cost', 'boughtOn', 'needs'];
const mapping = Object.fromEntries(FIELDS.map((field, column) => [field, { column }]));
async function send(rows: string[], by = helder!): Promise<{ status: number; body: Import }> {
  const form = new FormData();
  form.append('file', new Blob([[FIELDS.join(';'), ...rows].join('\n')]), 'things.csv');
  return (await by.call('POST', '/imports?kind=things', form)) as { status: number; body: Import };
}
const check = async (id: string, by = helder!): Promise<{ good: number; problems: ImportProblem[] }> =>
  (await by.call('POST', `/imports/${id}/check`, { mapping })).body;
async function write(rows: string[], by = helder!): Promise<Import> {
  const { id } = (await send(rows, by)).body;
  expect((await by.call('POST', `/imports/${id}/start`, { mapping })).status).toBe(200);
  return until(
    async () => (await by.call('GET', `/imports/${id}`)).body as Import,
    ({ state }) => state === 'done',
  );
}
const find = async (name: string): Promise<ThingRow> => (await app.listo.db.tables.things.findOne({ name }))!;
const wrong = ({ problems }: { problems: ImportProblem[] }): string[] =>
  problems.map(({ line, field, code }) => `${line} ${field} ${code}`);

test('an inventory becomes things with who has them and what they need, wherever that stands in it', async () => {
  const done = await write([
    'Portátil;Laptop 1;L-1;SN1;tomas@solvarra.example;Port Alder;1.249,00;31/1/2026;Line 9',
    'Line;Line 9;;;;Port Alder;;;',
    'Laptop;Laptop 2;L-2;SN2;;;;;"L-1; nothing like it"',
  ]);
  expect(done).toMatchObject({ written: 3 });
  expect(done.refused).toMatchObject([
    { line: 4, field: 'needs', code: 'unknownThing', value: 'nothing like it' },
  ]);
  const one = await find('Laptop 1');
  expect(one).toMatchObject({
    ...{ holderId: 'tomas', siteId: 'alder', cost: 124_900, boughtOn: '2026-01-31', state: 'inUse' },
  });
  expect(await find('Laptop 2')).toMatchObject({ state: 'inStore', holderId: null });
  const line = await find('Line 9');
  await app.listo.db.tables.things.update({ id: line.id }, { state: 'inRepair' });
  expect(standingOf(await readNetwork(app.listo), one.id)).toBe('down');
});

test('what is here already is changed where the table says so, and handed to whom it names; the same table twice changes nothing', async () => {
  await app.listo.db.tables.things.insert(
    thingRow({
      id: 'old',
      name: 'Old name',
      serial: 'sn 77',
      model: 'Tern 13',
      kindId: 'laptop',
      state: 'inStore',
    }),
  );
  const rows = ['Laptop;New name;L-77;SN77;ana@solvarra.example;;;;'];
  await write(rows);
  const thing = await find('New name');
  expect(thing).toMatchObject({ id: 'old', tag: 'L-77', model: 'Tern 13', holderId: 'ana', state: 'inUse' });
  await write(rows);
  expect((await find('New name')).version).toBe(thing.version);
  expect(await app.listo.db.tables.things.find({ serialMark: 'SN77' })).toHaveLength(1);
});

test('what does not fit is told by line before anything is written; one number on many lines names none', async () => {
  const before = (await app.listo.db.tables.things.find({})).length;
  const { body } = await send([
    'Kettle;K;;;;;;;',
    'Laptop;A;;SAME;;;;;',
    'Laptop;B;;same;;;;;',
    'Laptop;C;;;nobody@x.example;Nowhere;lots;2026-02-30;',
    'Laptop;D;;;;;;;',
  ]);
  const checked = await check(body.id);
  expect(checked.good).toBe(1);
  expect(wrong(checked)).toEqual([
    ...['2 kind unknownKind', '3 serial repeated', '4 serial repeated'],
    ...['5 holder unknownPerson', '5 site unknownSite', '5 cost notAnAmount', '5 boughtOn notADate'],
  ]);
  expect(await app.listo.db.tables.things.find({})).toHaveLength(before);
});

test('each row is judged by who keeps its kind; employees bring in nothing', async () => {
  expect((await send(['Laptop;E;;;;;;;'], tomas!)).status).toBe(403);
  const done = await write(['Laptop;By Rui;;;;;;;', 'Line;Line of Rui;;;;;;;'], rui!);
  expect(done).toMatchObject({ written: 1, refused: [{ line: 2, code: 'forbidden' }] });
  expect(await find('By Rui')).toBeNull();
  expect((await write(['Laptop;By Bia;;;;;;;'], bia!)).written).toBe(1);
});
