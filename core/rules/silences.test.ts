import { compileCalendar } from '../calendar';
import { silences, timesOf, type Happening, type Rule, type Trigger } from './index';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Monday 2 March 2026, 08:00 UTC. */
const MONDAY = Date.UTC(2026, 2, 2, 8);

const waits = (id: string, given: Partial<Extract<Trigger, { on: 'silence' }>> = {}, order = 1): Rule => ({
  ...{ id, order, isOn: true, teamId: null, provided: { all: [] }, effects: [], isLast: false },
  trigger: {
    ...{ on: 'silence', since: 'answered', unless: ['wroteBack'], after: 'P3D', calendar: null },
    ...given,
  },
});
const at = (entryId: string, kind: Happening['kind'], when: number, byRules: string[] = []): Happening => ({
  ...{ entryId, kind, at: when, changes: [], byRules },
});
const calendars = {
  office: compileCalendar({
    ...{ name: 'office', timeZone: 'UTC', hoursPerDay: 8, exceptions: [] },
    weekly: Object.fromEntries(
      ['mon', 'tue', 'wed', 'thu', 'fri'].map((day) => [day, [{ from: '09:00', to: '17:00' }]]),
    ),
  }),
  never: compileCalendar({ name: 'never', timeZone: 'UTC', hoursPerDay: 8, exceptions: [], weekly: {} }),
};
const dueOf = (
  rules: Rule[],
  history: Happening[],
  now: number,
  fired: { ruleId: string; since: string }[] = [],
) => silences(rules, history, calendars, now, fired);

test('counts from the latest of its kind, in wall time or in working time', () => {
  const history = [
    at('1', 'answered', MONDAY),
    at('2', 'answered', MONDAY + HOUR),
    at('3', 'noted', MONDAY + DAY),
  ];
  expect(dueOf([waits('a')], history, MONDAY + DAY)).toEqual([
    { ruleId: 'a', since: '2', dueAt: MONDAY + HOUR + 3 * DAY },
  ]);
  const working = waits('b', { calendar: 'office', after: 'P1DT1H' });
  expect(dueOf([working], history, MONDAY + DAY)[0]!.dueAt).toBe(Date.UTC(2026, 2, 3, 10));
  // What lies ahead has not happened.
  expect(dueOf([waits('a')], history, MONDAY)).toMatchObject([{ since: '1' }]);
  // At one instant the later entry counts.
  expect(
    dueOf([waits('a')], [at('1', 'answered', MONDAY), at('2', 'answered', MONDAY)], MONDAY),
  ).toMatchObject([{ since: '2' }]);
});

test('a silence is broken until the instant at which it is due, and no earlier one takes its place', () => {
  const said = [at('1', 'answered', MONDAY), at('2', 'answered', MONDAY + HOUR)];
  const due = MONDAY + HOUR + 3 * DAY;
  const reply = (when: number): Happening[] => [...said, at('3', 'wroteBack', when)];
  expect(dueOf([waits('a')], reply(due), due)).toEqual([]);
  expect(dueOf([waits('a')], reply(due + 1), due + 1)).toHaveLength(1);
  expect(dueOf([waits('a')], reply(MONDAY + HOUR), due)).toHaveLength(1);
  expect(dueOf([waits('a')], said, due, [{ ruleId: 'a', since: '2' }])).toEqual([]);
  expect(
    dueOf([waits('a')], said, due, [
      { ruleId: 'a', since: '1' },
      { ruleId: 'b', since: '2' },
    ]),
  ).toHaveLength(1);
});

test('what rules themselves wrote does not go round, and a calendar that is gone leaves the others alone', () => {
  const history = [at('1', 'answered', MONDAY, ['a'])];
  const rules = [
    ...[waits('a'), waits('c', { calendar: 'gone' }), waits('d', { calendar: 'never' })],
    ...[waits('b', { after: 'PT1H' }, 2), waits('z', { after: 'PT1H' }, 1), { ...waits('off'), isOn: false }],
  ];
  expect(dueOf(rules, history, MONDAY).map(({ ruleId }) => ruleId)).toEqual(['z', 'b']);
  const long = [at('1', 'answered', MONDAY, '1 2 3 4 5 6 7 8'.split(' '))];
  expect(dueOf(rules, long, MONDAY)).toEqual([]);
});

const timed = (every: string, zone = 'America/New_York'): { trigger: Trigger } => ({
  trigger: { on: 'time', every, zone },
});
const iso = (instants: number[]): string[] =>
  instants.map((each) => new Date(each).toISOString().slice(0, 16));

// The examples of RFC 5545, 3.8.5.3, in New York time as they stand there.
test('every twenty minutes from 9:00 to 16:40, written in both ways of the standard', () => {
  const from = Date.UTC(1997, 8, 2);
  const byDay = 'RRULE:FREQ=DAILY;BYHOUR=9,10,11,12,13,14,15,16;BYMINUTE=0,20,40';
  const byMinute = 'RRULE:FREQ=MINUTELY;INTERVAL=20;BYHOUR=9,10,11,12,13,14,15,16';
  const [first, second] = [byDay, byMinute].map((every) =>
    timesOf(timed(`DTSTART;TZID=America/New_York:19970902T090000\n${every}`), from, from + 2 * DAY),
  );
  expect(first).toEqual(second);
  expect(first).toHaveLength(48);
  expect(iso([first![0]!, first![23]!, first![24]!])).toEqual([
    ...['1997-09-02T13:00', '1997-09-02T20:40', '1997-09-03T13:00'],
  ]);
});

test('every three hours until an instant; every third Friday; until a day', () => {
  const start = 'DTSTART:19970902T090000\n';
  const from = Date.UTC(1997, 8, 1);
  expect(
    iso(timesOf(timed(`${start}RRULE:FREQ=HOURLY;INTERVAL=3;UNTIL=19970902T210000Z`), from, from + 9 * DAY)),
  ).toEqual(['1997-09-02T13:00', '1997-09-02T16:00', '1997-09-02T19:00']);
  const friday = timesOf(
    timed('FREQ=MONTHLY;BYDAY=3FR;BYHOUR=8'),
    Date.UTC(1997, 8, 1),
    Date.UTC(1997, 11, 1),
  );
  expect(iso(friday)).toEqual(['1997-09-19T12:00', '1997-10-17T12:00', '1997-11-21T13:00']);
  const daily = timesOf(timed(`${start}RRULE:FREQ=DAILY;UNTIL=19970905T000000Z`), from, from + 9 * DAY);
  expect(iso(daily)).toEqual(['1997-09-02T13:00', '1997-09-03T13:00', '1997-09-04T13:00']);
});

test('a time that does not exist is read with the offset before, one that comes twice means the first', () => {
  const half = timed('FREQ=DAILY;BYHOUR=1;BYMINUTE=30', 'Europe/Lisbon');
  expect(iso(timesOf(half, Date.UTC(2026, 2, 29), Date.UTC(2026, 2, 30)))).toEqual(['2026-03-29T01:30']);
  expect(iso(timesOf(half, Date.UTC(2026, 9, 25), Date.UTC(2026, 9, 26)))).toEqual(['2026-10-25T00:30']);
  // The hours that are there, each once.
  const hourly = timed('FREQ=HOURLY', 'Europe/Lisbon');
  expect(timesOf(hourly, Date.UTC(2026, 2, 29), Date.UTC(2026, 2, 29, 4))).toHaveLength(4);
});

test('a stretch takes its beginning and not its end; what is no time has none; what is no rule is said', () => {
  const noon = timed('FREQ=DAILY;BYHOUR=12', 'UTC');
  const at12 = Date.UTC(2026, 2, 2, 12);
  expect(timesOf(noon, at12, at12 + DAY)).toEqual([at12]);
  expect(timesOf(noon, at12, at12)).toEqual([]);
  expect(timesOf(waits('a'), 0, DAY)).toEqual([]);
  for (const every of [
    '',
    'FREQ=SECONDLY',
    'FREQ=DAILY;BYHOUR=24',
    'FREQ=DAILY;BYSECOND=5',
    'FREQ=DAILY;X=1',
  ])
    expect(() => timesOf(timed(every), 0, DAY)).toThrow(RangeError);
});
