import { checkSpent, judgeEstimate, MOST_MINUTES, readTimer } from './index';

const MINUTE = 60_000;
const NINE = Date.UTC(2026, 10, 25, 9);

test.each([
  [0, 1, false],
  [30 * MINUTE, 30, false],
  [30 * MINUTE + 1, 31, false],
  [10 * 60 * MINUTE, 600, false],
  [63 * 60 * MINUTE, 3780, true],
  [-5, 1, false],
])('a timer that ran %d ms says %d min, left on: %p', (ran, minutes, isLeftOn) => {
  expect(readTimer(NINE, NINE + ran)).toEqual({ minutes, isLeftOn });
});

test('time that cannot have been is refused', () => {
  const now = NINE + 60 * MINUTE;
  expect(checkSpent({ minutes: 60, startedAt: NINE }, now)).toEqual([]);
  expect(checkSpent({ minutes: 0, startedAt: NINE }, now)).toMatchObject([{ code: 'tooSmall' }]);
  expect(checkSpent({ minutes: MOST_MINUTES + 1, startedAt: NINE - 9e8 }, now)).toMatchObject([
    { code: 'tooLarge' },
  ]);
  expect(checkSpent({ minutes: 90, startedAt: NINE }, now)).toMatchObject([{ field: 'startedAt' }]);
});

test('spent against estimated', () => {
  expect(judgeEstimate(null, 30)).toBeNull();
  expect(judgeEstimate(60, 30)).toEqual({ share: 0.5, isOver: false });
  expect(judgeEstimate(60, 61)).toMatchObject({ isOver: true });
});
