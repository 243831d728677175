import { Op } from 'sequelize';
import { startTestListo, type TestListo } from '../testing/harness';

let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('table', { isEmpty: true });
  await app.listo.db.tables.sites.insertAll(
    ['c', 'a', 'b'].map((id, i) => ({ id, name: `Site ${i}`, timeZone: 'UTC', calendarId: 'office' })),
  );
});
afterAll(() => app.end());

const idsOf = (rows: { id: string }[]): string[] => rows.map(({ id }) => id);

test('what is asked plainly answers as what Sequelize writes does', async () => {
  const { sites } = app.listo.db.tables;
  // A condition of its own kind goes by Sequelize; one that only says what columns are does not.
  const bySequelize = await sites.find({ id: { [Op.in]: ['a', 'c'] } } as never, { order: [['id', 'DESC']] });
  expect(idsOf(bySequelize)).toEqual(['c', 'a']);
  expect(await sites.find({ id: ['a', 'c'] }, { order: [['id', 'DESC']] })).toEqual(bySequelize);
  expect(await sites.find({ id: 'b', timeZone: 'UTC' })).toHaveLength(1);
});

test('nothing of a list finds nothing; order, limit and columns hold', async () => {
  const { sites } = app.listo.db.tables;
  expect(await sites.find({ id: [] })).toEqual([]);
  expect(idsOf(await sites.find({ timeZone: 'UTC' }, { order: ['id'], limit: 2 }))).toEqual(['a', 'b']);
  expect(await sites.find({ id: 'b' }, { attributes: ['name'] })).toEqual([{ name: 'Site 2' }]);
  expect(await sites.find({ id: ["a' OR '1' = '1"] })).toEqual([]);
});
