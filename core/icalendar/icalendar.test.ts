import { compileCalendar, type CalendarSpec } from '../calendar';
import { fromICalendar } from './fromICalendar';
import { ICalendarError } from './lines';
import { toICalendar } from './toICalendar';

const office: CalendarSpec = {
  name: 'Office',
  timeZone: 'America/New_York',
  hoursPerDay: 9,
  weekly: Object.fromEntries(
    ['mon', 'tue', 'wed', 'thu', 'fri'].map((day) => [day, [{ from: '08:00', to: '17:00' }]]),
  ),
  exceptions: [],
};
const file = (...lines: string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//test', ...lines, 'END:VCALENDAR', ''].join('\r\n');
const event = (...lines: string[]): string =>
  file('BEGIN:VEVENT', 'UID:1@example.com', 'DTSTAMP:19970714T170000Z', ...lines, 'END:VEVENT');
const read = (text: string, from = '1996-01-01', to = '1999-12-31', spec = office) =>
  fromICalendar(text, spec, { from, to });

// RFC 5545, 3.6.1 "Event Component", 3.8.5.3 "Recurrence Rule" and 4 "iCalendar Object Examples".
describe('the examples of RFC 5545', () => {
  test('3.6.1: an annual review in UTC takes its hours out of the working day', () => {
    const { exceptions } = read(
      event(
        'DTSTART:19970903T163000Z',
        'DTEND:19970903T190000Z',
        'SUMMARY:Annual Employee Review',
        'CLASS:PRIVATE',
        'CATEGORIES:BUSINESS,HUMAN RESOURCES',
      ),
    );
    expect(exceptions).toEqual([
      {
        date: '1997-09-03',
        name: 'Annual Employee Review',
        windows: [
          { from: '08:00', to: '12:30' },
          { from: '15:00', to: '17:00' },
        ],
      },
    ]);
  });

  test('3.6.1: a class that leaves people free closes nothing', () => {
    const { exceptions, passedOver } = read(
      event(
        'DTSTART:19970401T163000Z',
        'DTEND:19970402T010000Z',
        'SUMMARY:Laurel is in sensitivity awareness class.',
        'TRANSP:TRANSPARENT',
      ),
    );
    expect([exceptions, passedOver]).toEqual([[], 1]);
  });

  test('3.6.1: an anniversary comes every year', () => {
    const { exceptions } = read(
      event(
        'DTSTART;VALUE=DATE:19971102',
        'SUMMARY:Our Blissful Anniversary',
        'TRANSP:TRANSPARENT',
        'CATEGORIES:ANNIVERSARY,PERSONAL,SPECIAL OCCASION',
        'RRULE:FREQ=YEARLY',
      ),
    );
    expect(exceptions.map(({ date }) => date)).toEqual(['1997-11-02', '1998-11-02', '1999-11-02']);
    expect(exceptions[0]!.windows).toEqual([]);
  });

  test('3.6.1: a festival of eleven days; its end is not part of it', () => {
    const { exceptions } = read(
      event(
        'DTSTART;VALUE=DATE:20070628',
        'DTEND;VALUE=DATE:20070709',
        'SUMMARY:Festival International de Jazz de Montreal',
        'TRANSP:TRANSPARENT',
      ),
      '2007-01-01',
      '2007-12-31',
    );
    expect(exceptions).toHaveLength(11);
    expect([exceptions[0]!.date, exceptions.at(-1)!.date]).toEqual(['2007-06-28', '2007-07-08']);
  });

  test('4: a conference of three days, with a folded description', () => {
    const { exceptions } = read(
      event(
        'DTSTART:19960918T143000Z',
        'DTEND:19960920T220000Z',
        'STATUS:CONFIRMED',
        'CATEGORIES:CONFERENCE',
        'SUMMARY:Networld+Interop Conference',
        'DESCRIPTION:Networld+Interop Conference\\n',
        '  and Exhibit\\nAtlanta World Congress Center\\n',
        ' Atlanta\\, Georgia',
      ),
    );
    expect(exceptions.map(({ date, windows }) => [date, windows])).toEqual([
      ['1996-09-18', [{ from: '08:00', to: '10:30' }]],
      ['1996-09-19', []],
      ['1996-09-20', []],
    ]);
  });

  test('4: a meeting in New York, read by an office in the Azores', () => {
    const { exceptions } = read(
      event(
        'DTSTART;TZID=America/New_York:19980312T083000',
        'DTEND;TZID=America/New_York:19980312T093000',
        'SUMMARY:XYZ Project Review',
      ),
      '1998-01-01',
      '1998-12-31',
      { ...office, timeZone: 'Atlantic/Azores' },
    );
    expect(exceptions[0]!.windows).toEqual([
      { from: '08:00', to: '12:30' },
      { from: '13:30', to: '17:00' },
    ]);
  });

  test.each([
    ['daily for 10 occurrences', '19970902', 'FREQ=DAILY;COUNT=10', '1997-09-02 … 1997-09-11', 10],
    [
      'monthly on the first Friday for 10 occurrences',
      '19970905',
      'FREQ=MONTHLY;COUNT=10;BYDAY=1FR',
      '1997-09-05 … 1998-06-05',
      10,
    ],
    [
      'yearly in June and July for 10 occurrences',
      '19970610',
      'FREQ=YEARLY;COUNT=10;BYMONTH=6,7',
      '1997-06-10 … 2001-07-10',
      10,
    ],
    [
      'US Presidential Election day',
      '19961105',
      'FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8;COUNT=3',
      '1996-11-05 … 2004-11-02',
      3,
    ],
  ])('3.8.5.3: %s', (_name, start, rule, ends, count) => {
    const { exceptions } = read(
      event(`DTSTART;VALUE=DATE:${start}`, `RRULE:${rule}`),
      '1996-01-01',
      '2005-12-31',
    );
    expect(`${exceptions[0]!.date} … ${exceptions.at(-1)!.date}`).toBe(ends);
    expect(exceptions).toHaveLength(count);
  });

  test('3.8.5.3: every Friday the 13th, the first day left out', () => {
    const { exceptions } = read(
      event(
        'DTSTART;TZID=America/New_York:19970902T090000',
        'DURATION:PT1H',
        'EXDATE;TZID=America/New_York:19970902T090000',
        'RRULE:FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13',
      ),
      '1997-01-01',
      '2000-12-31',
    );
    expect(exceptions.map(({ date }) => date)).toEqual([
      '1998-02-13',
      '1998-03-13',
      '1998-11-13',
      '1999-08-13',
      '2000-10-13',
    ]);
  });
});

describe('a file that is wrong says which line, and brings nothing', () => {
  const good = ['BEGIN:VEVENT', 'UID:1', 'DTSTART;VALUE=DATE:19970101', 'END:VEVENT'];
  test.each([
    ['empty', '', 1, 'notACalendar'],
    ['a picture', '\u0089PNG\r\n', 1, 'notACalendar'],
    ['a line without a colon', file(...good, 'BEGIN:VEVENT', 'what is this', 'END:VEVENT'), 9, 'notALine'],
    [
      'a date that does not exist',
      file('BEGIN:VEVENT', 'UID:1', 'DTSTART;VALUE=DATE:19970230', 'END:VEVENT'),
      6,
      'badDate',
    ],
    [
      'a folded line counts as several',
      file('BEGIN:VEVENT', 'SUMMARY:a', ' b', ' c', 'DTSTART:tomorrow', 'END:VEVENT'),
      8,
      'badDate',
    ],
    [
      'a rule without a frequency',
      file('BEGIN:VEVENT', 'DTSTART:19970101T000000', 'RRULE:COUNT=3', 'END:VEVENT'),
      6,
      'badRule',
    ],
    [
      'something that happens each second',
      file('BEGIN:VEVENT', 'DTSTART;VALUE=DATE:19970519', 'RRULE:FREQ=SECONDLY;BYMONTH=2', 'END:VEVENT'),
      6,
      'badRule',
    ],
    ['an event that is never closed', 'BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:1\r\n', 2, 'notClosed'],
    ['closed by another name', file('BEGIN:VEVENT', 'END:VTODO'), 5, 'closesAnother'],
    ['an event without a start', file('BEGIN:VEVENT', 'UID:1', 'END:VEVENT'), 4, 'noStart'],
    [
      'a zone that nobody knows',
      file('BEGIN:VEVENT', 'DTSTART;TZID=Nowhere/Land:19970101T100000', 'END:VEVENT'),
      4,
      'unknownZone',
    ],
  ])('%s', (_name, text, line, fault) => {
    try {
      read(text);
      throw new Error('wanted a refusal');
    } catch (error) {
      expect(error).toBeInstanceOf(ICalendarError);
      expect(error).toMatchObject({ line, fault });
    }
  });

  test('a million lines of nothing are refused, not run', () => {
    expect(() => read('A\n'.repeat(1_000_000))).toThrow(ICalendarError);
  });
});

test('an event in the night takes its hours out of the shift that began the day before', () => {
  const nights = { ...office, weekly: { mon: [{ from: '20:00', to: '06:00' }] } };
  const { exceptions } = read(
    event('DTSTART:19970902T020000', 'DTEND:19970902T040000'),
    '1997-01-01',
    '1997-12-31',
    nights,
  );
  expect(exceptions).toEqual([
    {
      date: '1997-09-01',
      windows: [{ from: '20:00', to: '02:00' }],
    },
    { date: '1997-09-02', windows: [{ from: '04:00', to: '06:00' }] },
  ]);
});

test('written out and read back, a calendar has the same working time', () => {
  const spec: CalendarSpec = {
    name: 'Dock; nights, "east"',
    timeZone: 'Asia/Kolkata',
    hoursPerDay: 10,
    weekly: {
      mon: [
        { from: '08:00', to: '12:00' },
        { from: '13:00', to: '17:30' },
      ],
      fri: [{ from: '20:00', to: '06:00' }],
      sun: [{ from: '00:00', to: '24:00' }],
    },
    exceptions: [
      { date: '2026-11-23', name: 'Company day', windows: [{ from: '10:00', to: '12:00' }] },
      { date: '2026-11-27', name: 'No shift', windows: [] },
      { date: '2026-12-01', windows: [{ from: '22:00', to: '02:00' }] },
    ],
  };
  const text = toICalendar(spec, Date.parse('2026-11-20T10:00:00Z'));
  expect(text).toContain('BEGIN:VTIMEZONE');
  expect(text.split('\r\n').every((line) => line.length <= 75)).toBe(true);
  const { weekly, exceptions } = fromICalendar(
    text,
    { ...spec, weekly: {}, exceptions: [] },
    { from: '2026-01-01', to: '2027-12-31' },
  );
  const back = compileCalendar({ ...spec, weekly: weekly!, exceptions });
  const [a, b] = [Date.parse('2026-11-01T00:00Z'), Date.parse('2027-02-01T00:00Z')];
  expect(back.windowsBetween(a, b)).toEqual(compileCalendar(spec).windowsBetween(a, b));
  expect(exceptions.find(({ date }) => date === '2026-11-27')?.name).toBe('No shift');
});

/** Files of a few lines that would have kept a reader busy for minutes. */
describe('however a file is made, reading it takes little', () => {
  test('an event of two centuries closes the years asked for', () => {
    const text = event('DTSTART;VALUE=DATE:19000101', 'DTEND;VALUE=DATE:21000101', 'SUMMARY:Closed');
    expect(read(text, '1996-01-01', '1996-12-31').exceptions).toHaveLength(368);
  });
  test('a rule in the year 9926 closes nothing now', () => {
    const text = event('DTSTART;VALUE=DATE:99260101', 'RRULE:FREQ=DAILY');
    expect(read(text)).toMatchObject({ exceptions: [], passedOver: 1 });
  });
  test('many long events are refused by the line', () => {
    const one = [
      'BEGIN:VEVENT',
      'DTSTART;VALUE=DATE:19000101',
      'DTEND;VALUE=DATE:21000101',
      'RRULE:FREQ=DAILY',
      'END:VEVENT',
    ];
    expect(() => read(file(...Array.from({ length: 2_000 }, () => one).flat()))).toThrow(ICalendarError);
  });
  test('30 February never comes', () => {
    const text = event('DTSTART;VALUE=DATE:19960229', 'RRULE:FREQ=YEARLY', 'SUMMARY:Leap');
    expect(read(text, '1996-01-01', '2004-12-31').exceptions.map(({ date }) => date)).toEqual([
      ...['1996-02-29', '2000-02-29', '2004-02-29'],
    ]);
  });
});
