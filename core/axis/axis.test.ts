import fc from 'fast-check';
import { DateTime } from 'luxon';
import { compileCalendar, WEEKDAYS, type CalendarSpec } from '../calendar';
import { createAxis } from './index';

function calendarOf(
  windows: { from: string; to: string }[],
  days: readonly string[],
  timeZone = 'Europe/Lisbon',
) {
  const weekly: CalendarSpec['weekly'] = Object.fromEntries(days.map((day) => [day, windows]));
  return compileCalendar({ name: 'c', timeZone, hoursPerDay: 8, weekly, exceptions: [] });
}
const office = calendarOf([{ from: '08:00', to: '18:00' }], WEEKDAYS.slice(0, 5));
const lisbon = (text: string): number => DateTime.fromISO(text, { zone: 'Europe/Lisbon' }).toMillis();

test('it runs from two hours back to the end of the next working day, the night folded', () => {
  const axis = createAxis(office, lisbon('2026-11-25T10:24'));
  expect(axis.from).toBe(lisbon('2026-11-25T08:00'));
  expect(axis.to).toBe(lisbon('2026-11-26T18:00'));
  expect(axis.pieces.map(({ isFolded }) => isFolded)).toEqual([false, true, false]);
});

test('on a Friday the weekend is one thin fold', () => {
  const axis = createAxis(office, lisbon('2026-11-27T15:00'));
  expect(axis.to).toBe(lisbon('2026-11-30T18:00'));
  const fold = axis.pieces.find(({ isFolded }) => isFolded)!;
  expect(fold.x1 - fold.x0).toBeLessThan(0.06);
});

test('outside hours the present still has its place', () => {
  const axis = createAxis(office, lisbon('2026-11-25T03:00'));
  expect(axis.to).toBe(lisbon('2026-11-26T18:00'));
  expect(axis.position(lisbon('2026-11-25T03:00'))).toBeGreaterThan(0);
});

test('round the clock nothing is folded', () => {
  const always = calendarOf([{ from: '00:00', to: '24:00' }], WEEKDAYS);
  expect(createAxis(always, lisbon('2026-11-25T10:24')).pieces).toHaveLength(1);
});

test('an hour of work is as wide before a clock change as after it (Lisbon, 2026-10-25)', () => {
  const daily = calendarOf([{ from: '00:00', to: '12:00' }], WEEKDAYS);
  const axis = createAxis(daily, lisbon('2026-10-24T10:00'));
  const width = (from: string, to: string) => axis.position(lisbon(to)) - axis.position(lisbon(from));
  const oneHour = width('2026-10-24T10:00', '2026-10-24T11:00');
  expect(width('2026-10-25T00:00', '2026-10-25T12:00')).toBeCloseTo(13 * oneHour, 6);
});

test('the axis of the Azores, over the gap at midnight of 2026-03-29', () => {
  const azores = calendarOf([{ from: '22:00', to: '06:00' }], WEEKDAYS, 'Atlantic/Azores');
  const at = (text: string): number => DateTime.fromISO(text, { zone: 'Atlantic/Azores' }).toMillis();
  const axis = createAxis(azores, at('2026-03-28T23:00'));
  const hours = axis.pieces.map(({ from, to, isFolded }) => [(to - from) / 3_600_000, isFolded]);
  // An hour before and seven of that night, the day folded, and the eight hours of the next night.
  expect(hours).toEqual([
    [8, false],
    [16, true],
    [8, false],
  ]);
  expect(axis.instantAt(axis.position(at('2026-03-29T01:30')))).toBe(at('2026-03-29T01:30'));
});

test('positions rise with time and lead back to their instants', () => {
  const instants = fc.integer({ min: lisbon('2026-01-01'), max: lisbon('2027-01-01') });
  const hours = fc.integer({ min: -1, max: 80 });
  fc.assert(
    fc.property(instants, hours, hours, (now, a, b) => {
      const axis = createAxis(office, now);
      const [first, second] = [a, b].sort((x, y) => x - y).map((h) => now + h * 3_600_000) as [
        number,
        number,
      ];
      expect(axis.position(first)).toBeLessThanOrEqual(axis.position(second));
      if (first > axis.from && first < axis.to)
        expect(Math.abs(axis.instantAt(axis.position(first)) - first)).toBeLessThan(2);
    }),
  );
});
