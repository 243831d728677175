import { compileCalendar } from '../calendar';
import { readClock, type HistoryEvent, type TargetDefinition } from '../targets';
import { standingOf } from '../targets';
import { changesSides, movesFor, reassign, tally, whereTimeWent } from './index';

const desk = compileCalendar({
  ...{ name: 'Desk', timeZone: 'Europe/Lisbon', hoursPerDay: 10, exceptions: [] },
  weekly: Object.fromEntries(
    ['mon', 'tue', 'wed', 'thu', 'fri'].map((day) => [day, [{ from: '08:00', to: '18:00' }]]),
  ),
});
const calendars = { desk };
const answer: TargetDefinition = {
  ...{ id: 'answer', name: 'First answer', kind: 'serviceLevel', startWhen: { all: [] }, countFrom: 'start' },
  ...{
    excludeEarlierPauses: false,
    cancelWhen: { field: 'state', op: 'is', value: 'withdrawn' },
    onReopen: 'ignore',
  },
  stopWhen: { field: 'answered', op: 'is', value: true },
  limits: [{ when: { field: 'priority', op: 'is', value: 'P1' }, duration: 'PT1H' }, { duration: 'PT4H' }],
  calendars: [{ calendarId: 'desk' }],
  warnAtPercent: [],
};

/**
 * A month worked out by hand: day and hour of opening, priority, and when it was answered ('-': not yet, 'w': withdrawn
 * two hours later). P1 has one working hour, others four; the desk works 08 to 18 on weekdays. 2026-11-02 is a Monday.
 */
const MONTH: [day: number, opened: string, priority: string, answered: string, standing: string | null][] = [
  [2, '08:00', 'P1', '2 08:59', 'met'],
  [2, '08:00', 'P1', '2 09:00', 'met'],
  [2, '08:00', 'P1', '2 09:01', 'missed'],
  [2, '09:30', 'P3', '2 13:30', 'met'],
  [2, '09:30', 'P3', '2 13:31', 'missed'],
  [2, '17:00', 'P3', '3 11:00', 'met'], // 1 h on Monday, 3 h on Tuesday
  [2, '17:00', 'P3', '3 11:01', 'missed'],
  [2, '17:30', 'P1', '3 08:30', 'met'],
  [2, '17:30', 'P1', '3 08:31', 'missed'],
  [2, '20:00', 'P1', '3 08:45', 'met'], // out of hours: from 08:00
  [3, '10:00', 'P2', '3 10:06', 'met'],
  [3, '10:00', 'P2', '3 14:00', 'met'],
  [3, '10:00', 'P2', '3 18:30', 'missed'],
  [3, '10:00', 'P2', 'w', null],
  [4, '07:00', 'P1', '4 08:10', 'met'],
  [4, '12:00', 'P4', '4 15:59', 'met'],
  [5, '16:00', 'P4', '6 10:00', 'met'], // 2 h and 2 h
  [5, '16:00', 'P4', '6 10:30', 'missed'],
  [6, '16:00', 'P4', '9 10:00', 'met'], // over the weekend
  [6, '16:00', 'P4', '9 10:05', 'missed'],
  [6, '17:59', 'P1', '9 08:59', 'met'],
  [6, '17:59', 'P1', '9 09:00', 'missed'],
  [7, '10:00', 'P1', '9 09:00', 'met'], // Saturday
  [7, '10:00', 'P3', '7 11:00', 'met'], // answered at the weekend: no time used
  [9, '08:00', 'P3', 'w', null],
  [10, '11:00', 'P2', '10 11:30', 'met'],
  [10, '11:00', 'P2', '11 11:00', 'missed'],
  [11, '09:00', 'P3', '11 09:20', 'met'],
  [12, '09:00', 'P3', '12 12:00', 'met'],
  [13, '15:00', 'P3', '16 09:00', 'met'], // 3 h and 1 h
  [13, '15:00', 'P3', '16 09:30', 'missed'],
  [16, '08:30', 'P1', '16 08:40', 'met'],
  [17, '08:30', 'P1', '17 10:00', 'missed'],
  [18, '13:00', 'P4', '18 13:05', 'met'],
  [19, '13:00', 'P4', '19 17:00', 'met'],
  [20, '13:00', 'P4', '23 08:00', 'missed'],
  [24, '08:00', 'P2', '24 08:10', 'met'],
  [25, '17:30', 'P3', '-', 'running'], // half an hour used when the month is read
  [25, '11:00', 'P3', '-', 'missed'], // past due while it waits
  [25, '17:00', 'P1', '-', 'running'], // exactly at its limit
];
const READ_AT = Date.parse('2026-11-25T18:00:00Z');
const instant = (day: number | string, hour: string): number =>
  Date.parse(`2026-11-${String(day).padStart(2, '0')}T${hour}:00Z`);

function historyOf([day, opened, priority, answered]: (typeof MONTH)[number]): HistoryEvent[] {
  const at = instant(day, opened);
  const opening = { at, set: { state: 'received', priority, answered: false } };
  if (answered === '-') return [opening];
  if (answered === 'w') return [opening, { at: at + 7_200_000, set: { state: 'withdrawn' } }];
  const [answeredDay, hour] = answered.split(' ');
  return [opening, { at: instant(answeredDay!, hour!), set: { answered: true } }];
}

test('a month of forty tickets, worked out by hand', () => {
  expect(MONTH).toHaveLength(40);
  const standings = MONTH.map((row) =>
    standingOf(readClock(answer, calendars, historyOf(row), READ_AT), READ_AT),
  );
  expect(standings).toEqual(MONTH.map(([, , , , standing]) => standing));
  // Counted on paper: 23 in time, 13 late, 2 under way, 2 withdrawn.
  expect(tally(standings)).toEqual({ met: 23, missed: 13, running: 2, share: (100 * 23) / 36 });
});

test('where the time went adds up to what was counted', () => {
  const resolve: TargetDefinition = {
    ...answer,
    stopWhen: { field: 'state', op: 'is', value: 'done' },
    pauseWhen: { field: 'state', op: 'is', value: 'held' },
    limits: [{ duration: 'PT8H' }],
  };
  const history: HistoryEvent[] = [
    { at: instant(2, '09:00'), set: { state: 'received', assigneeId: null, priority: 'P3' } },
    { at: instant(2, '10:00'), set: { state: 'inWork', assigneeId: 'rui' } },
    { at: instant(2, '12:00'), set: { state: 'held', heldFor: 'requester' } },
    { at: instant(2, '15:00'), set: { state: 'inWork', heldFor: null } },
    { at: instant(2, '16:00'), set: { assigneeId: null } },
    { at: instant(3, '09:00'), set: { state: 'done' } },
  ];
  const hour = 3_600_000;
  const went = whereTimeWent(resolve, calendars, history, instant(4, '12:00'));
  expect(went).toEqual({
    own: 3 * hour,
    waited: 4 * hour,
    held: { requester: 3 * hour },
    outside: 14 * hour,
  });
  expect(went.own + went.waited).toBe(readClock(resolve, calendars, history, instant(4, '12:00')).elapsed);
});

test('sides are changed only to or from missed', () => {
  expect(changesSides('met', 'missed')).toBe(true);
  expect(changesSides('missed', 'running')).toBe(true);
  expect(changesSides(null, 'missed')).toBe(true);
  expect(changesSides('running', 'met')).toBe(false);
  expect(changesSides('missed', 'missed')).toBe(false);
});

test('another team in the place of one: for a service first, else for all; its groups fall away', () => {
  const reassignments = [
    { serviceId: 'kiosk', fromTeamId: 'onboard', toTeamId: 'network' },
    { serviceId: null, fromTeamId: 'onboard', toTeamId: 'desk' },
  ];
  expect(movesFor(reassignments, 'kiosk')).toEqual(new Map([['onboard', 'network']]));
  expect(movesFor(reassignments, 'laptop')).toEqual(new Map([['onboard', 'desk']]));
  expect(movesFor([], 'laptop').size).toBe(0);
  const history: HistoryEvent[] = [
    { at: 1, set: { state: 'received', teamId: 'onboard', groupId: 'gates' } },
    { at: 2, set: { assigneeId: 'rui' } },
    { at: 3, set: { teamId: 'network', groupId: null } },
  ];
  expect(reassign(history, movesFor(reassignments, 'laptop'))).toEqual([
    { at: 1, set: { state: 'received', teamId: 'desk', groupId: null } },
    { at: 2, set: { assigneeId: 'rui' } },
    { at: 3, set: { teamId: 'network', groupId: null } },
  ]);
});
