import type { Clock } from '../../contract/clocks';
import { compileCalendar, WEEKDAYS } from '../../core/calendar';
import { getTightest, readLive } from './clocks';

const MINUTE = 60_000;
const always = compileCalendar({
  name: 'a',
  timeZone: 'UTC',
  hoursPerDay: 24,
  exceptions: [],
  weekly: Object.fromEntries(WEEKDAYS.map((day) => [day, [{ from: '00:00', to: '24:00' }]])),
});
const clock: Clock = {
  targetId: 't',
  work: 'ticket',
  name: 'Resolve',
  kind: 'serviceLevel',
  measures: 'resolution',
  state: 'running',
  countedFrom: 0,
  elapsed: 0,
  limit: 60 * MINUTE,
  dueAt: 60 * MINUTE,
  breachedAt: null,
  stoppedAt: null,
  calendarId: 'a',
  held: [],
};

test('90 seconds into an hour: one minute used, 59 left', () => {
  expect(readLive(clock, always, 90_000)).toMatchObject({
    usedMinutes: 1,
    leftMinutes: 59,
    limitMinutes: 60,
    tone: 'plenty',
  });
});

test('short from three quarters on, past due from the instant after', () => {
  expect(readLive(clock, always, 46 * MINUTE).tone).toBe('short');
  expect(readLive(clock, always, 60 * MINUTE).tone).toBe('short');
  expect(readLive(clock, always, 60 * MINUTE + 1).tone).toBe('past');
});

test('a held clock keeps what was left when it was held', () => {
  const held: Clock = { ...clock, state: 'paused', elapsed: 20 * MINUTE, dueAt: null };
  expect(readLive(held, always, 500 * MINUTE)).toMatchObject({ leftMinutes: 40, tone: 'plenty' });
});

test('the tightest is the running clock due first, a held one only without any', () => {
  const first = { ...clock, targetId: 'f', dueAt: 5 };
  const held = { ...clock, state: 'paused' as const, dueAt: null };
  expect(getTightest([clock, first, held])).toBe(first);
  expect(getTightest([held])).toBe(held);
  expect(getTightest([{ ...clock, state: 'met' }])).toBeNull();
});
