import { checkCalendar } from './check';
import type { CalendarSpec } from './types';

const now = Date.parse('2026-11-25T10:00Z');
const sound: CalendarSpec = {
  name: 'Office',
  timeZone: 'Europe/Lisbon',
  hoursPerDay: 8,
  weekly: { mon: [{ from: '09:00', to: '17:00' }] },
  exceptions: [{ date: '2026-12-25', windows: [] }],
};

test.each<[string, Partial<CalendarSpec>, object[]]>([
  ['a sound one', {}, []],
  [
    'overlapping windows merge, so they are no fault',
    {
      weekly: {
        mon: [
          { from: '09:00', to: '13:00' },
          { from: '12:00', to: '17:00' },
        ],
      },
    },
    [],
  ],
  ['an unknown zone', { timeZone: 'Europe/Nowhere' }, [{ field: 'timeZone', code: 'unknownZone' }]],
  ['a day without length', { hoursPerDay: 0 }, [{ field: 'hoursPerDay', code: 'notPositive' }]],
  ['a day of 25 hours', { hoursPerDay: 25 }, [{ field: 'hoursPerDay', code: 'moreThanADay' }]],
  [
    'a window without length',
    { weekly: { tue: [{ from: '09:00', to: '09:00' }] } },
    [{ field: 'weekly.tue', code: 'emptyWindow' }],
  ],
  [
    'a time that is none',
    { weekly: { wed: [{ from: '9', to: '17:00' }] } },
    [{ field: 'weekly.wed', code: 'malformedTime' }],
  ],
  [
    'a date that does not exist',
    { exceptions: [{ date: '2026-02-30', windows: [] }] },
    [{ field: 'exceptions.0', code: 'malformedDate' }],
  ],
  [
    'two exceptions on one date',
    {
      exceptions: [
        { date: '2026-12-25', windows: [] },
        { date: '2026-12-25', windows: [] },
      ],
    },
    [{ field: 'exceptions.1', code: 'repeatedDate' }],
  ],
  ['no working time at all', { weekly: {} }, [{ field: 'weekly', code: 'noWorkingTime' }]],
  [
    'working time only in the past',
    { weekly: {}, exceptions: [{ date: '2020-01-01', windows: [{ from: '09:00', to: '17:00' }] }] },
    [{ field: 'weekly', code: 'noWorkingTime' }],
  ],
  [
    'several at once',
    { timeZone: 'X', hoursPerDay: -1 },
    [
      { field: 'timeZone', code: 'unknownZone' },
      { field: 'hoursPerDay', code: 'notPositive' },
    ],
  ],
])('%s', (_name, change, problems) => {
  expect(checkCalendar({ ...sound, ...change }, now)).toEqual(problems);
});
