import { checkReminder, dueInstant, judgeDue } from './due';

const at = (text: string): number => Date.parse(text);

// Common practice in the trade, no published source: a bare date is due at its end.
test('due 31 October and done 31 October is in time, done after midnight is late', () => {
  const due = dueInstant({ date: '2026-10-31' }, 'Europe/Lisbon');
  expect(due).toBe(at('2026-11-01T00:00Z'));
  expect(judgeDue(due, at('2026-10-31T23:59:59Z'), at('2026-11-02T00:00Z'))).toBe('inTime');
  expect(judgeDue(due, at('2026-11-01T00:00:00.001Z'), at('2026-11-02T00:00Z'))).toBe('late');
});

test('the date ends in the zone of whoever holds the work', () => {
  expect(dueInstant({ date: '2026-10-31' }, 'Atlantic/Azores')).toBe(at('2026-11-01T01:00Z'));
  expect(dueInstant({ date: '2026-10-31' }, 'Asia/Kolkata')).toBe(at('2026-10-31T18:30Z'));
});

// Clock change of 2026-10-25 01:00 UTC: the date has 25 hours in Lisbon.
test('the end of the day on which clocks go back', () => {
  expect(dueInstant({ date: '2026-10-24' }, 'Europe/Lisbon')).toBe(at('2026-10-24T23:00Z'));
  expect(dueInstant({ date: '2026-10-25' }, 'Europe/Lisbon')).toBe(at('2026-10-26T00:00Z'));
});

test('exactly at the due instant is in time; unfinished it is to come, then past', () => {
  expect(judgeDue(100, 100, 500)).toBe('inTime');
  expect(judgeDue(100, 101, 500)).toBe('late');
  expect(judgeDue(100, null, 100)).toBe('toCome');
  expect(judgeDue(100, null, 101)).toBe('past');
});

test('an instant is due as it stands', () => {
  expect(dueInstant({ at: 42 }, 'Europe/Lisbon')).toBe(42);
});

test.each<[string, number, number | null, ReturnType<typeof checkReminder>]>([
  ['before it is due', 20, 30, null],
  ['at the instant itself', 30, 30, 'afterDue'],
  ['after it', 40, 30, 'afterDue'],
  ['now', 10, 30, 'notPossible'],
  ['past', 5, 30, 'notPossible'],
  ['of nothing that is due', 20, null, 'needsDue'],
])('a reminder %s', (_, remindAt, dueAt, expected) => {
  expect(checkReminder(remindAt, dueAt, 10)).toBe(expected);
});
