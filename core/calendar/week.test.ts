import * as fc from 'fast-check';
import { compileCalendar } from './compile';
import type { CalendarSpec } from './types';
import { fromSpans, paintWeek, toSpans, WEEK_MINUTES } from './week';

const at = (day: number, hour: number): number => day * 1440 + hour * 60;

test('painting a morning and an afternoon gives two windows, filling the gap gives one', () => {
  const morning = paintWeek({}, { from: at(0, 8), to: at(0, 12) }, true);
  const day = paintWeek(morning, { from: at(0, 13), to: at(0, 18) }, true);
  expect(day).toEqual({
    mon: [
      { from: '08:00', to: '12:00' },
      { from: '13:00', to: '18:00' },
    ],
  });
  expect(paintWeek(day, { from: at(0, 12), to: at(0, 13) }, true)).toEqual({
    mon: [{ from: '08:00', to: '18:00' }],
  });
});

test('a night shift stays one window of the day on which it begins, also from Sunday into Monday', () => {
  expect(paintWeek({}, { from: at(4, 20), to: at(5, 6) }, true)).toEqual({
    fri: [{ from: '20:00', to: '06:00' }],
  });
  const sunday = { sun: [{ from: '22:00', to: '04:00' }] };
  expect(toSpans(sunday)).toEqual([
    { from: 0, to: at(0, 4) },
    { from: at(6, 22), to: WEEK_MINUTES },
  ]);
  expect(fromSpans(toSpans(sunday))).toEqual(sunday);
});

test('bounds that were not painted over keep their minute', () => {
  const odd = { tue: [{ from: '08:07', to: '17:53' }] };
  expect(paintWeek(odd, { from: at(1, 12), to: at(1, 13) }, false)).toEqual({
    tue: [
      { from: '08:07', to: '12:00' },
      { from: '13:00', to: '17:53' },
    ],
  });
});

test('all week round the clock is seven whole days', () => {
  const week = fromSpans([{ from: 0, to: WEEK_MINUTES }]);
  expect(Object.values(week)).toEqual(Array.from({ length: 7 }, () => [{ from: '00:00', to: '24:00' }]));
});

const span = fc
  .tuple(fc.integer({ min: 0, max: WEEK_MINUTES - 1 }), fc.integer({ min: 1, max: 3000 }))
  .map(([from, length]) => ({ from, to: Math.min(WEEK_MINUTES, from + length) }));

test('painted is working, wiped is not, and the rest is as before', () => {
  fc.assert(
    fc.property(fc.array(span, { maxLength: 8 }), span, fc.boolean(), (spans, stretch, isWorking) => {
      const before = fromSpans(spans);
      const after = toSpans(paintWeek(before, stretch, isWorking));
      const works = (list: { from: number; to: number }[], t: number): boolean =>
        list.some(({ from, to }) => t >= from && t < to);
      for (let t = 0; t < WEEK_MINUTES; t += 13) {
        const isIn = t >= stretch.from && t < stretch.to;
        expect(works(after, t)).toBe(isIn ? isWorking : works(toSpans(before), t));
      }
    }),
    { numRuns: 30 },
  );
});

test('the windows mean the same working time as the spans they came from', () => {
  const monday = Date.parse('2026-11-23T00:00Z');
  fc.assert(
    fc.property(fc.array(span, { minLength: 1, maxLength: 6 }), (spans) => {
      const spec: CalendarSpec = {
        name: 'Any',
        timeZone: 'UTC',
        hoursPerDay: 8,
        weekly: fromSpans(spans),
        exceptions: [],
      };
      const calendar = compileCalendar(spec);
      for (let t = 0; t < WEEK_MINUTES; t += 17)
        expect(calendar.isWorking(monday + t * 60_000)).toBe(
          spans.some(({ from, to }) => t >= from && t < to),
        );
    }),
    { numRuns: 25 },
  );
});
