import type { Board, BoardCard } from '../../contract/measures';
import { chartOf, type Chart } from '../../core/measures';
import { startTestListo, type Person, type TestListo } from '../testing/harness';

/** Boards: given ones, one's own, and those that are shared. */
let app: TestListo;
let [elin, marta, sofia, sten, helder]: Person[] = [];

beforeAll(async () => {
  app = await startTestListo('boards');
  [elin, marta, sofia, sten, helder] = await Promise.all(
    ['elin', 'marta', 'sofia', 'sten', 'helder'].map(app.as),
  );
});
afterAll(() => app.end());

const chart = (given: Partial<Chart> = {}, id = 'one'): Chart => ({
  ...chartOf('tickets', 'bars', { by: 'teamId', ...given }),
  id,
});
const body = (given: object = {}) => ({
  ...{ name: 'Ours', teamIds: [], isForAll: false, stretch: { last: 4, unit: 'week' }, charts: [chart()] },
  ...given,
});
const make = (given: object = {}, by = elin!) => by.call('POST', '/measures/boards', body(given));
async function made(given: object = {}, by = elin!): Promise<string> {
  const { status, body: answer } = await make(given, by);
  if (status !== 200) throw new Error(JSON.stringify(answer));
  return (answer as { id: string }).id;
}
const read = (id: string, by = elin!) => by.call('GET', `/measures/boards/${id}`);
const list = async (by = elin!): Promise<BoardCard[]> => (await by.call('GET', '/measures/boards')).body;
type Problem = { type: string; fields?: { field: string; code: string }[] };
const slug = ({ status, body: answer }: { status: number; body: never }): unknown => [
  status,
  (answer as Problem).type.split('/').at(-1),
];
const faults = (answer: { body: never }): unknown =>
  (answer.body as Problem).fields!.map(({ field, code }) => `${field} ${code}`);

test('given boards are there for everyone who reads figures, and nobody changes them', async () => {
  const given = (await list()).filter(({ isGiven }) => isGiven);
  expect(given.map(({ id }) => id)).toContain('given-today');
  expect((await read('given-today')).body).toMatchObject({ isGiven: true, mayChange: false, problems: {} });
  const { status } = await helder!.call('PUT', '/measures/boards/given-today', { ...body(), version: 0 });
  expect(status).toBe(404);
});

test('a board is kept, changed, and removed by who made it', async () => {
  const id = await made();
  expect((await read(id)).body).toMatchObject({
    name: 'Ours',
    version: 1,
    mayChange: true,
    charts: [chart()],
  });
  const wider = body({ name: 'Wider', charts: [chart({ width: 12 })], version: 1 });
  expect((await elin!.call('PUT', `/measures/boards/${id}`, wider)).body).toEqual({ version: 2 });
  expect(slug(await elin!.call('PUT', `/measures/boards/${id}`, wider))).toEqual([409, 'stale']);
  expect(((await read(id)).body as Board).charts[0]!.width).toBe(12);
  expect((await elin!.call('DELETE', `/measures/boards/${id}`)).status).toBe(200);
  expect((await read(id)).status).toBe(404);
});

test('a board is seen by its owner, the teams that it is shared with, or all', async () => {
  const own = await made();
  const ofTeam = await made({ name: 'Of the desk', teamIds: ['desk'] });
  const forAll = await made({ name: 'For all', isForAll: true });
  const seen = async (by: Person) => (await list(by)).flatMap(({ id, isGiven }) => (isGiven ? [] : [id]));
  expect(new Set(await seen(elin!))).toEqual(new Set([own, ofTeam, forAll]));
  expect(new Set(await seen(marta!))).toEqual(new Set([ofTeam, forAll]));
  expect(await seen(sten!)).toEqual([forAll]);
  expect((await read(ofTeam, sten)).status).toBe(404);
  expect((await read(forAll, sten)).body).toMatchObject({ mayChange: false, owner: { id: 'elin' } });
  expect((await sten!.call('DELETE', `/measures/boards/${forAll}`)).status).toBe(403);
  expect((await sten!.call('DELETE', `/measures/boards/${ofTeam}`)).status).toBe(404);
  expect((await helder!.call('DELETE', `/measures/boards/${forAll}`)).status).toBe(200);
});

describe('what is about a team that works in confidence', () => {
  const charts = [chart({ where: { any: [{ field: 'teamId', op: 'in', value: ['people'] }] } })];
  test.each<[string, object, number]>([
    ['all', { isForAll: true }, 422],
    ['another team', { teamIds: ['people', 'desk'] }, 422],
    ['its own team', { teamIds: ['people'] }, 200],
    ['nobody', {}, 200],
  ])('shared with %s', async (_, sharing, status) => {
    const answer = await make({ charts, ...sharing }, sofia);
    expect(answer.status).toBe(status);
    if (status === 422) expect(slug(answer)).toEqual([422, 'confidentialShared']);
  });

  test('also where it is asked for in a share', async () => {
    const share = chart({ what: { share: { field: 'teamId', op: 'is', value: 'people' } } });
    expect(slug(await make({ charts: [share], isForAll: true }, sofia))).toEqual([422, 'confidentialShared']);
  });

  test('and where a board that was shared is changed', async () => {
    const id = await made({ isForAll: true }, sofia);
    const answer = await sofia!.call(
      'PUT',
      `/measures/boards/${id}`,
      body({ charts, isForAll: true, version: 1 }),
    );
    expect(slug(answer)).toEqual([422, 'confidentialShared']);
    expect((await read(id)).body).toMatchObject({ version: 1 });
  });
});

describe('bad input', () => {
  test.each<[string, object, string[]]>([
    ['a chart of what there is not', { charts: [chart({ by: 'sky' })] }, ['charts.0.by unknownField']],
    ['two charts of one id', { charts: [chart(), chart()] }, ['charts twice']],
    ['a team that there is not', { teamIds: ['nowhere'] }, ['teamIds notAChoice']],
    ['no name', { name: '' }, ['name missing']],
    [
      'too many charts',
      { charts: Array.from({ length: 41 }, (_, i) => chart({}, `c${i}`)) },
      ['charts tooLong'],
    ],
  ])('%s is refused at its field', async (_, given, expected) => {
    const answer = await make(given);
    expect(answer.status).toBe(422);
    expect(faults(answer)).toEqual(expected);
  });

  test('a board whose field is gone stays, and says which chart cannot be drawn', async () => {
    const id = await made();
    const charts = JSON.stringify([chart({ by: 'sky' }, 'old'), chart()]);
    await app.listo.db.run('UPDATE boards SET charts = :charts WHERE id = :id', { charts, id });
    expect((await read(id)).body).toMatchObject({
      charts: [{ id: 'old' }, { id: 'one' }],
      problems: { old: [{ code: 'unknownField', field: 'by' }] },
    });
  });

  test('a board twice under one key is one', async () => {
    const key = { 'Idempotency-Key': 'board-key-1' };
    const twice = async () =>
      (await elin!.call('POST', '/measures/boards', body({ name: 'Once' }), key)).body;
    expect(await twice()).toEqual(await twice());
    expect((await list()).filter(({ name }) => name === 'Once')).toHaveLength(1);
  });
});
