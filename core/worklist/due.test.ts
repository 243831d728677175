import fc from 'fast-check';
import { holds, type Condition } from '../conditions';
import { GIVEN_LISTS, resolveCondition, type ListReader } from './index';

const NOW = 1_000;
const reader: ListReader = {
  viewerId: 'bia',
  teamIds: ['desk'],
  groupIds: [],
  now: NOW,
  dayStart: 0,
  dayEnd: 2_000,
};
type Work = { state: string; dueAt: number | null; teamId: string };
const says = (condition: Condition, work: Work): boolean => holds(resolveCondition(condition, reader), work);
const isLate: Condition = { field: 'isLate', op: 'is', value: true };
const isDueToday: Condition = { field: 'isDueToday', op: 'is', value: true };
const work = (state: string, dueAt: number | null): Work => ({ state, dueAt, teamId: 'desk' });

test.each<[string, number | null, isLate: boolean, isDueToday: boolean]>([
  ['inWork', NOW - 1, true, false],
  ['received', NOW - 1, true, false],
  // Work that ends exactly at its due instant is in time.
  ['inWork', NOW, false, true],
  ['inWork', 1_999, false, true],
  // The first instant of the next day.
  ['inWork', 2_000, false, false],
  ['inWork', null, false, false],
  // It waits for others, though a target was missed before it was held.
  ['held', NOW - 1, false, false],
  ['held', 1_500, false, false],
])('%s, due at %p: late %p, due today %p', (state, dueAt, late, today) => {
  const row = work(state, dueAt);
  expect([says(isLate, row), says(isDueToday, row)]).toEqual([late, today]);
  expect(says({ ...isLate, value: false } as Condition, row)).toBe(!late);
  expect(says({ field: 'isLate', op: 'isNot', value: true }, row)).toBe(!late);
  expect(says({ field: 'isLate', op: 'in', value: ['x'] }, row)).toBe(false);
});

test('the list of what is late or due today is made of those two, and nothing is both', () => {
  const row = fc.record({
    state: fc.constantFrom('received', 'inWork', 'held', 'done', 'closed', 'withdrawn'),
    dueAt: fc.option(fc.integer({ min: 0, max: 3_000 })),
    teamId: fc.constant('desk'),
  });
  fc.assert(
    fc.property(row, (each) => {
      const [late, today] = [says(isLate, each), says(isDueToday, each)];
      expect(late && today).toBe(false);
      expect(says(GIVEN_LISTS.dueToday.condition, each)).toBe(late || today);
    }),
  );
});
