import { QueryTypes } from 'sequelize';
import { migrate } from '../database/migrate';
import { openDatabase } from '../openDatabase';
import { createDatabase } from '../testing/createDatabase';

/** What was kept before things had kinds is a thing afterwards: the same id, name and owner, and found on its tickets. */
test('assets become things of kinds of their own; entries about people are found by them', async () => {
  const url = await createDatabase(process.env.LISTO_TEST_DATABASE_URL!, 'test_estateMigration');
  const db = openDatabase(url);
  try {
    await migrate(db.sequelize, '0032-tables-of-people');
    const run = (sql: string): Promise<unknown> => db.sequelize.query(sql);
    await run(`INSERT INTO assets (id, kind, name, ownerId, siteId, department) VALUES
      ('device-tomas', 'tablet', 'Tablet T-0418', 'tomas', 'alder', NULL), ('vessel-tern', 'vessel', 'MV Tern', NULL, NULL, 'Deck')`);
    await run(`INSERT INTO journal (at, via, type, work, audience, changes, data) VALUES
      (1, 'desk', 'personMade', 'ticket', 'team', '{}', '{"personId": "tomas", "teamIds": []}'),
      (2, 'desk', 'teamChanged', 'ticket', 'team', '{}', '{"teamId": "desk"}')`);
    // What is not said of them is as the database has it.
    await run(`INSERT IGNORE INTO tickets (number, answers, createdAt) VALUES
      (7, '{"which": "replacement", "many": ["a"], "thing": {"id": "device-tomas", "name": "Tablet"}, "again": {"id": "device-tomas"}}', 5),
      (8, '{"who": {"id": "ana", "name": "Ana"}, "what": "device-tomas"}', 6)`);
    await migrate(db.sequelize);
    expect(await db.tables.ticketThings.find({})).toEqual([
      { ticketNumber: 7, thingId: 'device-tomas', how: 'about', isAnswer: true, at: 5 },
    ]);
    expect(await db.tables.things.findOne({ id: 'device-tomas' })).toMatchObject({
      ...{ kindId: 'tablet', name: 'Tablet T-0418', ownerId: 'tomas', holderId: 'tomas', siteId: 'alder' },
      ...{ state: 'inUse', tag: '', tagMark: null, fields: {}, version: 1, isWatched: false },
    });
    expect(await db.tables.things.findOne({ id: 'vessel-tern' })).toMatchObject({
      holderId: null,
      department: 'Deck',
    });
    const kinds = await db.tables.thingKinds.find({}, { order: ['id'] });
    expect(kinds.map(({ id, name, seenBy }) => [id, name.en, seenBy])).toEqual([
      ['tablet', 'Tablet', 'everyone'],
      ['vessel', 'Vessel', 'everyone'],
    ]);
    const about = await db.sequelize.query<{ aboutId: string | null }>(
      'SELECT aboutId FROM journal ORDER BY id',
      {
        type: QueryTypes.SELECT,
      },
    );
    expect(about.map(({ aboutId }) => aboutId)).toEqual(['tomas', null]);
  } finally {
    await db.close();
  }
});
