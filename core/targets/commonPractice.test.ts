import { compileCalendar, type CalendarSpec } from '../calendar';
import { readClock } from './readClock';
import { twoPromises } from './twoPromises';
import type { HistoryEvent, TargetDefinition } from './types';

/** Common practice in the trade, no published source. Opened on Monday 2026-11-16 at 9:00 in Lisbon, which is UTC. */
const at = (text: string): number => Date.parse(`2026-11-${text}:00Z`);
const opened: HistoryEvent[] = [
  {
    at: at('16T09:00'),
    set: { work: 'ticket', kind: 'incident', state: 'received', teamId: 'desk', priority: 'P3' },
  },
];
const days = (names: string[], from: string, to: string): CalendarSpec['weekly'] =>
  Object.fromEntries(names.map((day) => [day, [{ from, to }]]));
const week = ['mon', 'tue', 'wed', 'thu', 'fri'];
const calendars = {
  eightToFive: compileCalendar({
    ...{ name: 'Eight to five', timeZone: 'Europe/Lisbon', hoursPerDay: 9, exceptions: [] },
    weekly: days(week, '08:00', '17:00'),
  }),
  roundTheClock: compileCalendar({
    ...{ name: 'Always', timeZone: 'Europe/Lisbon', hoursPerDay: 24, exceptions: [] },
    weekly: days([...week, 'sat', 'sun'], '00:00', '24:00'),
  }),
};
const target = (change: Partial<TargetDefinition>): TargetDefinition => ({
  ...{ id: 't', name: 'Resolve', kind: 'serviceLevel', countFrom: 'start', excludeEarlierPauses: false },
  startWhen: { all: [] },
  stopWhen: { field: 'state', op: 'is', value: 'done' },
  cancelWhen: 'never',
  onReopen: 'resume',
  limits: [],
  calendars: [],
  warnAtPercent: [],
  ...change,
});

test.each([
  ['an hour', 'PT1H', '16T10:00', '16T10:00'],
  ['eight hours', 'PT8H', '16T17:00', '16T17:00'],
  ['a day and eight hours', 'P1DT8H', '17T17:00', '17T17:00'],
  ['a day', 'P1D', '17T09:00', '17T09:00'],
  ['five days', 'P5D', '23T09:00', '21T09:00'],
])(
  '%s: on weekdays eight to five, a day of nine hours, and round the clock',
  (_name, duration, office, always) => {
    const dueOn = (calendarId: string) =>
      readClock(
        target({ limits: [{ duration }], calendars: [{ calendarId }] }),
        calendars,
        opened,
        at('16T09:30'),
      ).dueAt;
    expect(dueOn('eightToFive')).toBe(at(office));
    expect(dueOn('roundTheClock')).toBe(at(always));
  },
);

test('several promises attach to one ticket at once, each with its own limit and hours', () => {
  const now = at('16T12:00');
  const promises = [
    target({ limits: [{ duration: 'PT2H' }], calendars: [{ calendarId: 'roundTheClock' }] }),
    target({ limits: [{ duration: 'P1D' }], calendars: [{ calendarId: 'eightToFive' }] }),
  ];
  const [short, long] = promises.map((definition) => readClock(definition, calendars, opened, now));
  expect([short!.state, short!.breachedAt]).toEqual(['running', at('16T11:00')]);
  expect([long!.state, long!.breachedAt]).toEqual(['running', null]);
});

test('the two promises of a new team run while the ticket is with it, and are called off when it leaves', () => {
  const [answer, resolve] = twoPromises({ teamId: 'desk', teamName: 'Desk', calendarId: 'eightToFive' }).map(
    ({ definition }): TargetDefinition => ({ ...definition, warnAtPercent: [80] }),
  );
  expect(readClock(answer!, calendars, opened, at('16T10:00'))).toMatchObject({
    state: 'running',
    dueAt: at('17T09:00'),
  });
  expect(readClock(resolve!, calendars, opened, at('16T10:00')).dueAt).toBe(at('19T09:00'));
  // A change goes by its window.
  const change = [{ at: at('16T09:00'), set: { ...opened[0]!.set, kind: 'change' } }];
  expect(readClock(answer!, calendars, change, at('16T10:00')).state).toBe('notStarted');
  const gone = [...opened, { at: at('16T10:00'), set: { teamId: 'network' } }];
  expect(readClock(resolve!, calendars, gone, at('16T11:00')).state).toBe('cancelled');
  const answered = [...opened, { at: at('16T09:30'), set: { answered: true } }];
  expect(readClock(answer!, calendars, answered, at('16T11:00')).state).toBe('met');
});
