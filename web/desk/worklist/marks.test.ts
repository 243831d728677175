import { createAxis } from '../../../core/axis';
import { compileCalendar, WEEKDAYS } from '../../../core/calendar';
import { clusterDues, type Due } from './marks';

const HOUR = 3_600_000;
const office = compileCalendar({
  name: 'office',
  timeZone: 'Atlantic/Azores',
  hoursPerDay: 10,
  exceptions: [],
  weekly: Object.fromEntries(WEEKDAYS.map((day) => [day, [{ from: '08:00', to: '18:00' }]])),
});
const now = Date.parse('2026-11-25T11:00:00Z');
const axis = createAxis(office, now);
const due = (at: number, tone: Due['tone'] = 'plenty', number = 1): Due => ({
  at,
  tone,
  number,
  title: 'Kiosk',
});

test('what falls due together is one mark, in the worst of its tones, the earliest first', () => {
  const marks = clusterDues([due(now + HOUR + 60_000, 'short', 2), due(now + HOUR, 'plenty', 1)], axis);
  expect(marks).toHaveLength(1);
  expect(marks[0]!.tone).toBe('short');
  expect(marks[0]!.dues.map(({ number }) => number)).toEqual([1, 2]);
});

test('what lies apart stays apart, and what is beyond the axis is not on it', () => {
  const marks = clusterDues(
    [due(now + HOUR), due(now + 4 * HOUR), due(now + 100 * HOUR), due(now - 9 * HOUR)],
    axis,
  );
  expect(marks).toHaveLength(2);
  expect(marks[0]!.x).toBeLessThan(marks[1]!.x);
});

test('the end of a night is drawn where the next day begins', () => {
  // 18:00 in the Azores is 19:00 UTC; the next morning opens at 09:00 UTC.
  const [evening, morning] = [Date.parse('2026-11-25T19:00:00Z'), Date.parse('2026-11-26T09:00:00Z')];
  const marks = clusterDues([due(evening), due(morning)], axis);
  expect(marks.map(({ x }) => x)).toEqual([axis.position(evening), axis.position(morning)]);
  expect(marks[1]!.x - marks[0]!.x).toBeLessThan(0.06);
});
