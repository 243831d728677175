import { compileCalendar, WEEKDAYS } from '../calendar';
import { readLive, tightestClock, tightestDue, type KeptClock } from './index';

const MINUTE = 60_000;
const always = compileCalendar({
  name: 'a',
  timeZone: 'UTC',
  hoursPerDay: 24,
  exceptions: [],
  weekly: Object.fromEntries(WEEKDAYS.map((day) => [day, [{ from: '00:00', to: '24:00' }]])),
});
type Named = KeptClock & { name: string; measures: string };
const clock: Named = {
  ...{ name: 'end', measures: 'resolution', state: 'running', elapsed: 0 },
  ...{ limit: 60 * MINUTE, dueAt: 60 * MINUTE, breachedAt: null },
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
  const held: Named = { ...clock, state: 'paused', elapsed: 20 * MINUTE, dueAt: null };
  expect(readLive(held, always, 500 * MINUTE)).toMatchObject({ leftMinutes: 40, tone: 'plenty' });
});

test('as long as its calendar is not known, a running clock says nothing of the time left; a passed due instant is known', () => {
  expect(readLive(clock, undefined, 46 * MINUTE)).toMatchObject({
    left: null,
    leftMinutes: null,
    tone: 'plenty',
  });
  expect(readLive(clock, undefined, 61 * MINUTE)).toMatchObject({ left: null, tone: 'past' });
  const held: Named = { ...clock, state: 'paused', elapsed: 20 * MINUTE, dueAt: null };
  expect(readLive(held, undefined, 0).leftMinutes).toBe(40);
});

test('what ended is near nothing, unless it missed its target', () => {
  expect(readLive({ ...clock, state: 'met', elapsed: 59 * MINUTE }, always, 0).tone).toBe('plenty');
  expect(readLive({ ...clock, state: 'missed', elapsed: 61 * MINUTE }, always, 0).tone).toBe('past');
  expect(readLive({ ...clock, state: 'cancelled', elapsed: 61 * MINUTE }, always, 0).tone).toBe('plenty');
});

test('the tightest is what is due first, a held one without a due instant only without any', () => {
  const first: Named = { ...clock, name: 'first', dueAt: 5 };
  const held: Named = { ...clock, state: 'paused', dueAt: null };
  const heldPastDue: Named = { ...held, name: 'held past due', dueAt: 3, breachedAt: 3 };
  expect(tightestClock([clock, first, held])).toBe(first);
  expect(tightestClock([first, heldPastDue])).toBe(heldPastDue);
  expect(tightestClock([held])).toBe(held);
  expect(tightestClock([{ ...held, measures: 'firstAnswer' }])).toBeNull();
  expect(tightestClock([{ ...clock, state: 'met' }])).toBeNull();
  expect(tightestDue([clock, first, { ...clock, state: 'met', dueAt: 1 }])).toBe(5);
  expect(tightestDue([held])).toBeNull();
});
