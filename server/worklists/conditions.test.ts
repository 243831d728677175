import fc from 'fast-check';
import { holds, toSql, type Column, type Condition, type Fields } from '../../core/conditions';
import { startTestListo, type TestListo } from '../testing/harness';

/** A condition is read twice, in memory and by the database: here both say the same of every row. */
let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('conditions', { isEmpty: true });
  await app.listo.db.run(
    'CREATE TABLE examples (id INT PRIMARY KEY, word VARCHAR(60), teamId VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin, size BIGINT, isOn BOOLEAN)',
  );
});
afterAll(() => app.end());

const COLUMNS: Record<string, Column> = {
  word: { sql: 't.word', type: 'text' },
  teamId: { sql: 't.teamId', type: 'text' },
  size: { sql: 't.size', type: 'number' },
  isOn: { sql: 't.isOn', type: 'flag' },
};

const word = fc.constantFrom(null, '', 'a', 'A', 'a ', 'ab', 'Öl', 'öl', 'ol', '100%', '_', '😀', 'ß', 'ss');
const teamId = fc.constantFrom(null, 'onboard', 'network', 'Network');
const size = fc.constantFrom(null, -1, 0, 1, 2);
const isOn = fc.constantFrom(null, true, false);
const row = fc.record({ word, teamId, size, isOn });
const anyValue = fc.oneof(word, teamId, size, isOn);
const anyField = fc.constantFrom('word', 'teamId', 'size', 'isOn');
const listed = fc.array(fc.oneof(word, teamId, size), { maxLength: 4 });

const { condition } = fc.letrec<{ condition: Condition }>((tie) => {
  const parts = fc.array(tie('condition'), { maxLength: 3 });
  return {
    condition: fc.oneof(
      { maxDepth: 3, withCrossShrink: true },
      fc.record({ field: anyField, op: fc.constantFrom('is' as const, 'isNot' as const), value: anyValue }),
      fc.record({ field: anyField, op: fc.constantFrom('in' as const, 'notIn' as const), value: listed }),
      fc.record({
        field: anyField,
        op: fc.constantFrom('lt' as const, 'lte' as const, 'gt' as const, 'gte' as const),
        value: fc.oneof(fc.constantFrom('a', 'ab', 'network'), fc.constantFrom(-1, 0, 1)),
      }),
      fc.record({
        field: anyField,
        op: fc.constant('contains' as const),
        value: fc.constantFrom('a', 'A', 'ÖL', '%', '_', '', '😀', 'net'),
      }),
      fc.record({ field: anyField, op: fc.constantFrom('empty' as const, 'notEmpty' as const) }),
      fc.record({ all: parts }),
      fc.record({ any: parts }),
      fc.record({ not: tie('condition') }),
    ),
  };
});

test('what holds in memory is what the database selects, row for row', async () => {
  const { db } = app.listo;
  await fc.assert(
    fc.asyncProperty(
      fc.array(row, { minLength: 1, maxLength: 12 }),
      fc.array(condition, { minLength: 8, maxLength: 8 }),
      async (rows, conditions) => {
        await db.run('DELETE FROM examples');
        for (const [id, each] of rows.entries())
          await db.transaction((tx) =>
            db.runBound('INSERT INTO examples VALUES (?, ?, ?, ?, ?)', [id, ...Object.values(each)], tx),
          );
        for (const each of conditions) {
          const { sql, values } = toSql(each, COLUMNS);
          const found = await db.select<{ id: number }>(
            `SELECT t.id FROM examples t WHERE ${sql} ORDER BY t.id`,
            values,
          );
          const held = rows.flatMap((fields, id) => (holds(each, fields as Fields) ? [id] : []));
          expect({ each, ids: found.map(({ id }) => id) }).toEqual({ each, ids: held });
        }
      },
    ),
    { numRuns: 60 },
  );
});

test('a field that there is not is refused, not ignored', () => {
  expect(() => toSql({ field: 'nowhere', op: 'is', value: 1 }, COLUMNS)).toThrow(RangeError);
});
