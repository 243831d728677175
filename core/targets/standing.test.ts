import fc from 'fast-check';
import { isGoing, isPastDue, standingOf, type JudgedClock } from './index';

const clock = (
  state: JudgedClock['state'],
  dueAt: number | null,
  breachedAt: number | null = null,
): JudgedClock => ({
  state,
  dueAt,
  breachedAt,
});

test.each<[JudgedClock, now: number, standing: ReturnType<typeof standingOf>]>([
  [clock('running', 10), 10, 'running'],
  [clock('running', 10), 11, 'missed'],
  [clock('running', null), 11, 'running'],
  // Its reading is older than the breach, or younger.
  [clock('running', 10, 10), 11, 'missed'],
  [clock('paused', null), 11, 'running'],
  [clock('paused', 10, 10), 11, 'missed'],
  // Past due under a calendar that is no longer in force.
  [clock('running', null, 10), 11, 'missed'],
  [clock('met', 10), 99, 'met'],
  [clock('missed', 10, 10), 99, 'missed'],
  [clock('cancelled', 10, 10), 99, null],
  [clock('notStarted', null), 99, null],
])('%j at %i stands %s', (given, now, standing) => {
  expect(standingOf(given, now)).toBe(standing);
});

test('what is past due is going and has missed its target, and stays so until its due instant moves', () => {
  const anyClock = fc.record<JudgedClock>({
    state: fc.constantFrom('notStarted', 'running', 'paused', 'met', 'missed', 'cancelled'),
    dueAt: fc.option(fc.integer({ min: 0, max: 9 })),
    breachedAt: fc.option(fc.integer({ min: 0, max: 9 })),
  });
  fc.assert(
    fc.property(anyClock, fc.nat(12), fc.nat(12), (given, now, later) => {
      if (!isPastDue(given, now)) return;
      expect(isGoing(given)).toBe(true);
      expect(standingOf(given, now)).toBe('missed');
      expect(isPastDue(given, now + later)).toBe(true);
    }),
  );
});
