import fc from 'fast-check';
import { DateTime } from 'luxon';
import {
  compileCalendar,
  DurationNotPositive,
  EmptyWindow,
  HoursPerDayNotPositive,
  MalformedDate,
  MalformedDuration,
  MalformedTime,
  NoWorkingTime,
  parseDuration,
  RepeatedException,
  UnknownTimeZone,
  WEEKDAYS,
  type CalendarSpec,
  type Window,
} from './index';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

function weekOf(windows: Window[], days: readonly string[] = WEEKDAYS): CalendarSpec['weekly'] {
  return Object.fromEntries(days.map((day) => [day, windows]));
}

function specOf(change: Partial<CalendarSpec> = {}): CalendarSpec {
  const office = weekOf([{ from: '08:00', to: '18:00' }], WEEKDAYS.slice(0, 5));
  const exceptions = [{ date: '2026-12-25', windows: [] }];
  return {
    name: 'Office',
    timeZone: 'Europe/Lisbon',
    hoursPerDay: 10,
    weekly: office,
    exceptions,
    ...change,
  };
}

function at(text: string, zone = 'Europe/Lisbon'): number {
  return DateTime.fromISO(text, { zone }).toMillis();
}

describe('working hours of an office', () => {
  const office = compileCalendar(specOf());

  test('a window holds its start and not its end', () => {
    expect(office.isWorking(at('2026-11-16T08:00'))).toBe(true);
    expect(office.isWorking(at('2026-11-16T18:00'))).toBe(false);
    expect(office.isWorking(at('2026-11-15T12:00'))).toBe(false);
  });

  test('adding lands on the end of a window, not on the next start', () => {
    expect(office.addWorking(at('2026-11-16T17:00'), HOUR)).toBe(at('2026-11-16T18:00'));
    expect(office.addWorking(at('2026-11-16T17:00'), HOUR + 1)).toBe(at('2026-11-17T08:00') + 1);
  });

  test('subtracting lands on the start of a window, not on the end before it', () => {
    expect(office.addWorking(at('2026-11-17T09:00'), -HOUR)).toBe(at('2026-11-17T08:00'));
    expect(office.addWorking(at('2026-11-17T09:00'), -2 * HOUR)).toBe(at('2026-11-16T17:00'));
  });

  test('adding nothing stays where it is, in or out of hours', () => {
    expect(office.addWorking(at('2026-11-15T12:00'), 0)).toBe(at('2026-11-15T12:00'));
  });

  test('a closed date is passed over', () => {
    expect(office.addWorking(at('2026-12-24T17:30'), HOUR)).toBe(at('2026-12-28T08:30'));
    expect(office.nextWorking(at('2026-12-24T18:00'))).toBe(at('2026-12-28T08:00'));
  });

  test('swapping the ends changes the sign', () => {
    const [a, b] = [at('2026-11-16T09:00'), at('2026-11-18T09:00')];
    expect(office.workingBetween(a, b)).toBe(20 * HOUR);
    expect(office.workingBetween(b, a)).toBe(-20 * HOUR);
  });

  test('windows are listed cut to the span', () => {
    expect(office.windowsBetween(at('2026-11-16T17:00'), at('2026-11-17T09:00'))).toEqual([
      { from: at('2026-11-16T17:00'), to: at('2026-11-16T18:00') },
      { from: at('2026-11-17T08:00'), to: at('2026-11-17T09:00') },
    ]);
  });
});

describe('windows of other shapes', () => {
  test('a shift over midnight belongs to the date it starts on', () => {
    const night = compileCalendar(
      specOf({ weekly: { fri: [{ from: '22:00', to: '06:00' }] }, exceptions: [] }),
    );
    expect(night.isWorking(at('2026-11-21T05:59'))).toBe(true);
    expect(night.workingBetween(at('2026-11-20T00:00'), at('2026-11-22T00:00'))).toBe(8 * HOUR);
  });

  test('an exception replaces only what starts on its date', () => {
    const nights = weekOf([{ from: '22:00', to: '06:00' }]);
    const exceptions = [{ date: '2026-11-20', windows: [] }];
    const calendar = compileCalendar(specOf({ weekly: nights, exceptions }));
    expect(calendar.isWorking(at('2026-11-20T05:00'))).toBe(true);
    expect(calendar.isWorking(at('2026-11-20T23:00'))).toBe(false);
  });

  test('touching and overlapping windows merge', () => {
    const parts = [
      { from: '08:00', to: '12:00' },
      { from: '12:00', to: '13:00' },
      { from: '11:00', to: '14:00' },
    ];
    const calendar = compileCalendar(specOf({ weekly: { mon: parts }, exceptions: [] }));
    expect(calendar.windowsBetween(at('2026-11-16T00:00'), at('2026-11-17T00:00'))).toHaveLength(1);
    expect(calendar.workingBetween(at('2026-11-16T00:00'), at('2026-11-17T00:00'))).toBe(6 * HOUR);
  });

  test('round the clock is plain elapsed time', () => {
    const always = compileCalendar(
      specOf({ weekly: weekOf([{ from: '00:00', to: '24:00' }]), exceptions: [] }),
    );
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 4e12 }), fc.integer({ min: -9e9, max: 9e9 }), (t, ms) => {
        expect(always.addWorking(t, ms)).toBe(t + ms);
        expect(always.workingBetween(t, t + ms)).toBe(ms);
      }),
      { numRuns: 50 },
    );
  });
});

/** Transitions from the IANA time zone database, as the runtime's Intl ships it. */
describe('clock changes', () => {
  const dayShift = { exceptions: [], hoursPerDay: 24 };

  test('spring forward in Lisbon, 2026-03-29 01:00: the day is an hour shorter', () => {
    const calendar = compileCalendar(
      specOf({ ...dayShift, weekly: weekOf([{ from: '00:00', to: '24:00' }]) }),
    );
    expect(calendar.workingBetween(at('2026-03-29T00:00'), at('2026-03-30T00:00'))).toBe(23 * HOUR);
  });

  test('fall back in Lisbon, 2026-10-25 02:00: a bound that occurs twice means the first', () => {
    const calendar = compileCalendar(
      specOf({ ...dayShift, weekly: { sun: [{ from: '01:30', to: '03:00' }] } }),
    );
    expect(calendar.nextWorking(at('2026-10-25T00:00'))).toBe(Date.UTC(2026, 9, 25, 0, 30));
    expect(calendar.workingBetween(at('2026-10-25T00:00'), at('2026-10-26T00:00'))).toBe(2.5 * HOUR);
  });

  test('a bound in the gap moves later by the gap (Atlantic/Azores, 2026-03-29 00:00)', () => {
    const spec = specOf({
      ...dayShift,
      timeZone: 'Atlantic/Azores',
      weekly: { sun: [{ from: '00:30', to: '03:00' }] },
    });
    const calendar = compileCalendar(spec);
    expect(calendar.nextWorking(Date.UTC(2026, 2, 29))).toBe(Date.UTC(2026, 2, 29, 1, 30));
  });

  test('a date that was skipped has no windows (Pacific/Apia, 2011-12-30)', () => {
    const noon = weekOf([{ from: '11:00', to: '12:00' }]);
    const calendar = compileCalendar(specOf({ ...dayShift, timeZone: 'Pacific/Apia', weekly: noon }));
    const [from, to] = [at('2011-12-29T00:00', 'Pacific/Apia'), at('2012-01-01T00:00', 'Pacific/Apia')];
    expect(calendar.workingBetween(from, to)).toBe(2 * HOUR);
  });

  test('a half-hour change (Australia/Lord_Howe, 2026-04-05)', () => {
    const whole = weekOf([{ from: '00:00', to: '24:00' }]);
    const calendar = compileCalendar(specOf({ ...dayShift, timeZone: 'Australia/Lord_Howe', weekly: whole }));
    const zone = 'Australia/Lord_Howe';
    expect(calendar.workingBetween(at('2026-04-05T00:00', zone), at('2026-04-06T00:00', zone))).toBe(
      24.5 * HOUR,
    );
  });
});

/** A minute of real time is worked when luxon, by the same IANA data, shows it inside a window of its date. */
describe('against a brute-force minute scan through luxon', () => {
  const zones = ['Europe/Lisbon', 'Atlantic/Azores', 'Asia/Kolkata', 'America/St_Johns', 'Pacific/Chatham'];
  const weekly: CalendarSpec['weekly'] = {
    ...weekOf(
      [
        { from: '07:30', to: '12:00' },
        { from: '12:30', to: '17:15' },
      ],
      ['mon', 'tue', 'wed', 'thu', 'fri'],
    ),
    sat: [{ from: '22:00', to: '06:00' }],
    sun: [{ from: '20:45', to: '24:00' }],
  };

  function isWorkedMinute(spec: CalendarSpec, t: number): boolean {
    const local = DateTime.fromMillis(t, { zone: spec.timeZone });
    const minutes = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
    const now = local.hour * 60 + local.minute;
    const windowsOn = (day: DateTime): Window[] => {
      const exception = spec.exceptions.find(({ date }) => date === day.toISODate());
      return exception ? exception.windows : (spec.weekly[WEEKDAYS[day.weekday - 1]!] ?? []);
    };
    const today = windowsOn(local).some(({ from, to }) => {
      const end = minutes(to) > minutes(from) ? minutes(to) : Infinity;
      return now >= minutes(from) && now < end;
    });
    const yesterday = windowsOn(local.minus({ days: 1 })).some(
      ({ from, to }) => minutes(to) < minutes(from) && now < minutes(to),
    );
    return today || yesterday;
  }

  test.each(zones)('%s, over both clock changes of 2026', (timeZone) => {
    const spec = specOf({
      timeZone,
      weekly,
      exceptions: [{ date: '2026-03-31', windows: [{ from: '09:00', to: '10:00' }] }],
    });
    const calendar = compileCalendar(spec);
    for (const start of [
      '2026-03-07',
      '2026-03-28',
      '2026-04-04',
      '2026-09-26',
      '2026-10-24',
      '2026-10-31',
    ]) {
      const from = at(start, timeZone);
      let worked = 0;
      for (let t = from; t < from + 2 * DAY; t += 60_000) {
        const isWorked = isWorkedMinute(spec, t);
        if (calendar.isWorking(t) !== isWorked)
          throw new Error(`${new Date(t).toISOString()}: wanted ${isWorked}, got ${!isWorked}`);
        if (isWorked) worked += 60_000;
      }
      expect(calendar.workingBetween(from, from + 2 * DAY)).toBe(worked);
    }
  });
});

describe('laws', () => {
  const calendar = compileCalendar(specOf());
  const instant = fc.integer({ min: at('2024-01-01'), max: at('2028-12-31') });
  const duration = fc.integer({ min: 1, max: 400 * HOUR });

  test('what is added is what lies between, and it is the least such instant', () => {
    fc.assert(
      fc.property(instant, duration, (t, ms) => {
        const u = calendar.addWorking(t, ms);
        expect(calendar.workingBetween(t, u)).toBe(ms);
        expect(calendar.workingBetween(t, u - 1)).toBe(ms - 1);
      }),
    );
  });

  test('what is taken off is what lies between, and it is the greatest such instant', () => {
    fc.assert(
      fc.property(instant, duration, (t, ms) => {
        const u = calendar.addWorking(t, -ms);
        expect(calendar.workingBetween(u, t)).toBe(ms);
        expect(calendar.workingBetween(u + 1, t)).toBe(ms - 1);
      }),
    );
  });

  test('working time is additive', () => {
    fc.assert(
      fc.property(instant, instant, instant, (a, b, c) => {
        expect(calendar.workingBetween(a, b) + calendar.workingBetween(b, c)).toBe(
          calendar.workingBetween(a, c),
        );
      }),
    );
  });

  test('the answer does not depend on what was asked before', () => {
    fc.assert(
      fc.property(instant, duration, (t, ms) => {
        expect(compileCalendar(specOf()).addWorking(t, ms)).toBe(calendar.addWorking(t, ms));
      }),
      { numRuns: 20 },
    );
  });
});

describe('refusals', () => {
  const weekly = (from: string, to: string) => specOf({ weekly: { mon: [{ from, to }] } });
  test.each([
    [specOf({ timeZone: 'Mars/Olympus' }), UnknownTimeZone],
    [specOf({ hoursPerDay: 0 }), HoursPerDayNotPositive],
    [weekly('8:00', '18:00'), MalformedTime],
    [weekly('24:00', '18:00'), MalformedTime],
    [weekly('08:00', '24:01'), MalformedTime],
    [weekly('08:00', '08:00'), EmptyWindow],
    [specOf({ exceptions: [{ date: '2026-02-29', windows: [] }] }), MalformedDate],
    [
      specOf({
        exceptions: [
          { date: '2026-12-25', windows: [] },
          { date: '2026-12-25', windows: [] },
        ],
      }),
      RepeatedException,
    ],
  ])('%#', (spec, error) => expect(() => compileCalendar(spec)).toThrow(error));

  test('no working time within 3,653 days', () => {
    const never = compileCalendar(
      specOf({ weekly: {}, exceptions: [{ date: '2026-01-05', windows: [{ from: '08:00', to: '09:00' }] }] }),
    );
    expect(() => never.nextWorking(at('2026-02-01'))).toThrow(NoWorkingTime);
    expect(() => never.addWorking(at('2026-02-01'), 1)).toThrow(NoWorkingTime);
    expect(() => never.addWorking(at('2026-01-01'), 2 * HOUR)).toThrow(NoWorkingTime);
    expect(never.addWorking(at('2026-02-01'), -HOUR)).toBe(at('2026-01-05T08:00'));
    expect(never.nextWorking(at('2016-01-10'))).toBe(at('2026-01-05T08:00'));
    expect(() => never.nextWorking(at('2015-12-30'))).toThrow(NoWorkingTime);
  });
});

describe('durations (ISO 8601-1:2019, 5.5.2; the subset without weeks, months and years)', () => {
  test.each([
    ['PT90M', 1.5 * HOUR],
    ['PT8H', 8 * HOUR],
    ['P1DT8H', 18 * HOUR],
    ['P2D', 20 * HOUR],
    ['PT36H', 36 * HOUR],
    ['P1DT12H', 22 * HOUR],
    ['P3DT12H30M5S', 42.5 * HOUR + 5000],
  ])('%s', (text, ms) => expect(parseDuration(text, { hoursPerDay: 10 })).toBe(ms));

  test('a day of a third of an hour rounds to a whole millisecond', () => {
    expect(parseDuration('P1D', { hoursPerDay: 1 / 3.7 })).toBe(972_973);
  });

  test.each(['P1W', 'P1M', 'P1Y', 'P', 'PT', 'P1DT', 'pt8h', 'PT1.5H', 'PT8H ', '-PT8H', '8H', 'PT1M1H', ''])(
    'refuses %j',
    (text) => expect(() => parseDuration(text, { hoursPerDay: 8 })).toThrow(MalformedDuration),
  );

  test.each(['PT0S', 'P0D', 'P0DT0H'])('refuses %s as no time at all', (text) =>
    expect(() => parseDuration(text, { hoursPerDay: 8 })).toThrow(DurationNotPositive),
  );
});
