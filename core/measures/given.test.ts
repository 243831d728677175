import { checkChart, getGivenBoard, GIVEN_BOARDS, listTeamsAsked } from './index';

describe('given boards', () => {
  test.each(GIVEN_BOARDS.map((board) => [board.id, board] as const))(
    '%s asks only for what there is',
    (_, board) => {
      for (const chart of board.charts) expect([chart.id, checkChart(chart)]).toEqual([chart.id, []]);
    },
  );

  test('have ids of their own, and so have their charts', () => {
    const ids = GIVEN_BOARDS.map(({ id }) => id);
    const charts = GIVEN_BOARDS.flatMap(({ charts: own }) => own.map(({ id }) => id));
    expect(new Set(ids).size).toBe(ids.length);
    expect(new Set(charts).size).toBe(charts.length);
    expect(getGivenBoard('given-today')?.id).toBe('given-today');
    expect(getGivenBoard('constructor')).toBeNull();
  });

  test('fill their rows: no chart is left with a hole beside it', () => {
    for (const { id, charts } of GIVEN_BOARDS) {
      let column = 0;
      for (const { width } of charts) column = column + width > 12 ? width : (column + width) % 12;
      expect([id, column === 0 || column >= 6]).toEqual([id, true]);
    }
  });
});

describe('the teams that a condition asks for', () => {
  test.each([
    [{ field: 'teamId', op: 'is', value: 'people' } as const, ['people']],
    [
      { not: { any: [{ field: 'teamId', op: 'in', value: ['people', null, 'desk'] }] } } as const,
      ['people', 'desk'],
    ],
    [{ all: [{ field: 'serviceId', op: 'is', value: 'people' }] } as const, []],
    [{ field: 'teamId', op: 'empty' } as const, []],
  ])('%j: %j', (condition, teams) => {
    expect(listTeamsAsked('tickets', condition as never)).toEqual(teams);
  });

  test('also by another field that holds a team', () => {
    expect(listTeamsAsked('steps', { field: 'stepTeamId', op: 'is', value: 'people' })).toEqual(['people']);
    expect(listTeamsAsked('tickets', { field: 'stepTeamId', op: 'is', value: 'people' })).toEqual([]);
  });
});
