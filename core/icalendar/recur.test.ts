import { listDays, parseRule, toDay } from './recur';

const day = (text: string): number => toDay(...(text.split('-').map(Number) as [number, number, number]));
const dateOf = (n: number): string => new Date(n * 86_400_000).toISOString().slice(0, 10);
const list = (start: string, rule: string, to = '1999-12-31', from = '1990-01-01'): string[] =>
  listDays(parseRule(rule), day(start), { from: day(from), to: day(to) }, { days: 1_000_000 }).map(dateOf);

/** RFC 5545, 3.8.5.3 "Recurrence Rule": its examples by whole days, and the days that it lists for them. */
test.each<[string, string, string, string]>([
  ['daily until Christmas', '1997-09-02', 'FREQ=DAILY;UNTIL=19971224T000000Z', '114 days'],
  ['every other day', '1997-09-02', 'FREQ=DAILY;INTERVAL=2;COUNT=4', '09-02 09-04 09-06 09-08'],
  ['every 10 days, 5 times', '1997-09-02', 'FREQ=DAILY;INTERVAL=10;COUNT=5', '09-02 09-12 09-22 10-02 10-12'],
  ['every January', '1998-01-01', 'FREQ=DAILY;UNTIL=20000131T140000Z;BYMONTH=1', '62 days'],
  [
    'every other week on Tue and Thu',
    '1997-09-02',
    'FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH',
    '09-02 09-04 09-16 09-18 09-30 10-02 10-14 10-16',
  ],
  [
    'second to last Monday',
    '1997-09-22',
    'FREQ=MONTHLY;COUNT=6;BYDAY=-2MO',
    '09-22 10-20 11-17 12-22 01-19 02-16',
  ],
  [
    'third to last day',
    '1997-09-28',
    'FREQ=MONTHLY;BYMONTHDAY=-3;COUNT=6',
    '09-28 10-29 11-28 12-29 01-29 02-26',
  ],
  [
    'the 2nd and the 15th',
    '1997-09-02',
    'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=2,15',
    '09-02 09-15 10-02 10-15 11-02 11-15 12-02 12-15 01-02 01-15',
  ],
  [
    'first and last day',
    '1997-09-30',
    'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1',
    '09-30 10-01 10-31 11-01 11-30 12-01 12-31 01-01 01-31 02-01',
  ],
  [
    'every 18 months',
    '1997-09-10',
    'FREQ=MONTHLY;INTERVAL=18;COUNT=10;BYMONTHDAY=10,11,12,13,14,15',
    '09-10 09-11 09-12 09-13 09-14 09-15 03-10 03-11 03-12 03-13',
  ],
  [
    'days 1, 100 and 200 every third year',
    '1997-01-01',
    'FREQ=YEARLY;INTERVAL=3;COUNT=4;BYYEARDAY=1,100,200',
    '01-01 04-10 07-19 01-01',
  ],
  ['the 20th Monday of the year', '1997-05-19', 'FREQ=YEARLY;BYDAY=20MO', '05-19 05-18 05-17'],
  ['Monday of week 20', '1997-05-12', 'FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO', '05-12 05-11 05-17'],
  [
    'every Thursday in March',
    '1997-03-13',
    'FREQ=YEARLY;BYMONTH=3;BYDAY=TH;UNTIL=19980331',
    '03-13 03-20 03-27 03-05 03-12 03-19 03-26',
  ],
  ['Friday the 13th', '1998-02-13', 'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13', '02-13 03-13 11-13 08-13'],
  [
    'the third of Tue, Wed, Thu',
    '1997-09-04',
    'FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3',
    '09-04 10-07 11-06',
  ],
  [
    'the second to last weekday',
    '1997-09-29',
    'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2;COUNT=7',
    '09-29 10-30 11-27 12-30 01-29 02-26 03-30',
  ],
  [
    'weeks that begin on Monday',
    '1997-08-05',
    'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO',
    '08-05 08-10 08-19 08-24',
  ],
  [
    'weeks that begin on Sunday',
    '1997-08-05',
    'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU',
    '08-05 08-17 08-19 08-31',
  ],
  [
    'dates that do not exist are left out',
    '2007-01-15',
    'FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5',
    '01-15 01-30 02-15 03-15 03-30',
  ],
])('%s', (_, start, rule, wanted) => {
  const days = list(
    start,
    rule,
    start > '2000' ? '2009-12-31' : wanted.startsWith('01-01 04-10') ? '2000-12-31' : '1999-12-31',
  );
  if (wanted.endsWith(' days')) expect(days).toHaveLength(parseInt(wanted));
  else expect(days.map((each) => each.slice(5)).join(' ')).toBe(wanted);
});

test('30 February never comes, 29 February in leap years alone', () => {
  expect(list('2024-01-01', 'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30', '2040-12-31')).toEqual(['2024-01-01']);
  expect(list('2024-02-29', 'FREQ=YEARLY', '2033-01-01')).toEqual(['2024-02-29', '2028-02-29', '2032-02-29']);
});

test('what is asked for is the same, wherever one begins to look', () => {
  for (const rule of [
    'FREQ=DAILY;INTERVAL=3',
    'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,FR',
    'FREQ=MONTHLY;INTERVAL=5',
    'FREQ=YEARLY;INTERVAL=2;BYMONTH=2,7',
  ]) {
    const all = list('1900-01-31', rule, '2030-12-31', '1900-01-01');
    const late = list('1900-01-31', rule, '2030-12-31', '2024-03-05');
    expect(late).toEqual(all.filter((each) => each >= '2024-03-05'));
  }
});

/** Rules made to keep a reader busy: work is counted in days looked at, and what would take more is refused. */
test('work is bounded', () => {
  const within = { from: day('2020-01-01'), to: day('2030-12-31') };
  const spend = (rule: string, start: string): number => {
    const budget = { days: 100_000 };
    listDays(parseRule(rule), day(start), within, budget);
    return 100_000 - budget.days;
  };
  expect(spend('FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30', '1900-01-01')).toBeLessThan(5_000);
  expect(spend('FREQ=YEARLY;BYWEEKNO=53;BYYEARDAY=5', '1900-01-01')).toBeLessThan(8_000);
  expect(() => spend('FREQ=DAILY;COUNT=99999;BYMONTHDAY=31;BYMONTH=2', '0001-01-01')).toThrow('budget');
});

test.each([
  'FREQ=SECONDLY',
  'FREQ=MINUTELY;BYYEARDAY=1',
  'FREQ=HOURLY',
  'FREQ=DAILY;INTERVAL=0',
  'FREQ=DAILY;BYHOUR=3',
  'FREQ=DAILY;COUNT=9999999',
  'FREQ=DAILY;UNTIL=soon',
  'FREQ=YEARLY;BYMONTH=13',
  'FREQ=YEARLY;BYMONTHDAY=0',
  'BYDAY=MO',
  '',
])('refused: %s', (rule) => expect(() => parseRule(rule)).toThrow(RangeError));
