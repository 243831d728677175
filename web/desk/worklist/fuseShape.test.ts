import type { Clock } from '../../../contract/clocks';
import { createAxis } from '../../../core/axis';
import { compileCalendar, WEEKDAYS } from '../../../core/calendar';
import { readLive } from '../../../core/targets';
import { shapeFuse } from './fuseShape';

const HOUR = 3_600_000;
const calendar = compileCalendar({
  name: 'office',
  timeZone: 'UTC',
  hoursPerDay: 10,
  exceptions: [],
  weekly: Object.fromEntries(WEEKDAYS.map((day) => [day, [{ from: '08:00', to: '18:00' }]])),
});
const now = Date.UTC(2026, 10, 25, 10);
const axis = createAxis(calendar, now);

function shape(change: Partial<Clock>, at = now) {
  const clock: Clock = {
    targetId: 't',
    work: 'ticket',
    name: 'Resolve',
    kind: 'serviceLevel',
    measures: 'resolution',
    state: 'running',
    countedFrom: now - HOUR,
    elapsed: 0,
    limit: 4 * HOUR,
    dueAt: now + 3 * HOUR,
    breachedAt: null,
    stoppedAt: null,
    calendarId: 'c',
    held: [],
    ...change,
  };
  return shapeFuse(readLive(clock, calendar, at), axis, at);
}

test('burnt until now, left until the tick, the words after it', () => {
  const { burnt, left, tick, over, words } = shape({});
  expect(burnt).toEqual([{ from: axis.position(now - HOUR), to: axis.position(now) }]);
  expect(left).toEqual({ from: axis.position(now), to: axis.position(now + 3 * HOUR) });
  expect(tick).toBe(axis.position(now + 3 * HOUR));
  expect(over).toBeNull();
  expect(words).toEqual({ at: tick, isInside: false });
});

test('what was held is cut out of what burnt', () => {
  const { burnt, held } = shape({ held: [[now - HOUR / 2, now - HOUR / 4]] });
  expect(burnt).toHaveLength(2);
  expect(held).toHaveLength(1);
  expect(burnt[0]!.to).toBe(held[0]!.from);
  expect(held[0]!.to).toBe(burnt[1]!.from);
});

test('past due: burnt until the tick, then over until now', () => {
  const { burnt, left, over } = shape({ dueAt: now - HOUR / 2 });
  expect(burnt.at(-1)!.to).toBe(axis.position(now - HOUR / 2));
  expect(left).toBeNull();
  expect(over).toEqual({ from: axis.position(now - HOUR / 2), to: axis.position(now) });
});

test('due beyond the axis there is no tick, and the words stand inside', () => {
  const { tick, words, left } = shape({ dueAt: now + 90 * HOUR });
  expect(tick).toBeNull();
  expect(left!.to).toBe(1);
  expect(words).toEqual({ at: 1, isInside: true });
});

test('while held nothing is left to run', () => {
  const { left, held } = shape({ state: 'paused', dueAt: null, held: [[now - HOUR / 2, null]] });
  expect(left).toBeNull();
  expect(held[0]!.to).toBe(axis.position(now));
});
