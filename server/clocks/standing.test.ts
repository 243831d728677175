import { standingOf, standingSql, type JudgedClock } from '../../core/targets';
import { startTestListo, type TestListo } from '../testing/harness';

/** How a clock stands is read in memory and by the database: here both say the same of every kind of row. */
let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('standing', { isEmpty: true });
});
afterAll(() => app.end());

test('the database reads the standing of every clock as core does', async () => {
  const states = ['notStarted', 'running', 'paused', 'met', 'missed', 'cancelled'] as const;
  const instants = [null, 9, 10, 11];
  const clocks: JudgedClock[] = states.flatMap((state) =>
    instants.flatMap((dueAt) => instants.map((breachedAt) => ({ state, dueAt, breachedAt }))),
  );
  const { sql, values } = standingSql('c', 10);
  const rows = await app.listo.db.select<{ standing: string | null }>(
    `SELECT ${sql} AS standing FROM JSON_TABLE(:clocks, '$[*]' COLUMNS (place FOR ORDINALITY, state VARCHAR(12) PATH '$.state',
       dueAt BIGINT PATH '$.dueAt', breachedAt BIGINT PATH '$.breachedAt')) c ORDER BY c.place`,
    { ...values, clocks: JSON.stringify(clocks) },
  );
  expect(rows.map(({ standing }) => standing)).toEqual(clocks.map((clock) => standingOf(clock, 10)));
  expect(new Set(rows.map(({ standing }) => standing))).toEqual(new Set(['met', 'missed', 'running', null]));
});
