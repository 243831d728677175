import fc from 'fast-check';
import { DateTime } from 'luxon';
import { compileCalendar, WEEKDAYS } from '../calendar';
import {
  PercentNotPositive,
  readClock,
  reckonClock,
  UnknownCalendar,
  type Calendars,
  type HistoryEvent,
  type TargetDefinition,
} from './index';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;

const office = { from: '08:00', to: '18:00' };
const always = { from: '00:00', to: '24:00' };
const calendars: Calendars = {
  O: compileCalendar({
    name: 'Office',
    timeZone: 'Europe/Lisbon',
    hoursPerDay: 10,
    weekly: { mon: [office], tue: [office], wed: [office], thu: [office], fri: [office] },
    exceptions: [{ date: '2026-12-25', windows: [] }],
  }),
  A: compileCalendar({
    name: 'Always',
    timeZone: 'UTC',
    hoursPerDay: 24,
    weekly: Object.fromEntries(WEEKDAYS.map((day) => [day, [always]])),
    exceptions: [],
  }),
};

function at(text: string): number {
  return DateTime.fromISO(text, { zone: 'Europe/Lisbon' }).toMillis();
}

function targetOf(change: Partial<TargetDefinition> = {}): TargetDefinition {
  return {
    id: 't',
    name: 'Target',
    kind: 'serviceLevel',
    startWhen: { all: [] },
    countFrom: 'start',
    excludeEarlierPauses: false,
    pauseWhen: { field: 'state', op: 'is', value: 'held' },
    stopWhen: { field: 'state', op: 'is', value: 'done' },
    cancelWhen: 'never',
    onReopen: 'resume',
    limits: [{ duration: 'PT4H' }],
    calendars: [{ calendarId: 'A' }],
    warnAtPercent: [50, 80],
    ...change,
  };
}

const zero = at('2026-11-16T09:00');

/** A round-the-clock history: hours after the opening, and what changed. */
function story(...events: [number, Record<string, unknown>][]): HistoryEvent[] {
  return events.map(([hours, set]) => ({ at: zero + hours * HOUR, set }));
}

/** Common practice in the trade, without a published source. */
describe('worked examples', () => {
  test('a first answer within 8 h, given after 6 min, is met', () => {
    const target = targetOf({
      limits: [{ duration: 'PT8H' }],
      calendars: [{ calendarId: 'O' }],
      stopWhen: { field: 'answered', op: 'is', value: true },
    });
    const history = [
      { at: zero, set: { answered: false } },
      { at: zero + 6 * MINUTE, set: { answered: true } },
    ];
    expect(readClock(target, calendars, history, zero + HOUR)).toMatchObject({
      state: 'met',
      elapsed: 6 * MINUTE,
      percent: 1.25,
      stoppedAt: zero + 6 * MINUTE,
    });
  });

  test('"one day and eight hours" of a ten-hour day is 18 h and due the next day at 17:00', () => {
    const target = targetOf({ limits: [{ duration: 'P1DT8H' }], calendars: [{ calendarId: 'O' }] });
    const reading = readClock(target, calendars, story([0, { state: 'inWork' }]), zero + HOUR);
    expect(reading).toMatchObject({ limit: 18 * HOUR, dueAt: at('2026-11-17T17:00'), elapsed: HOUR });
  });

  const network = {
    startWhen: { field: 'team', op: 'is', value: 'network' },
    limits: [{ duration: 'PT1H' }],
  } as const;
  const wandering = story([0, { team: 'desk' }], [2, { team: 'stores' }], [5, { team: 'network' }]);

  test('counted from the opening, a ticket that reaches the team after 5 h has breached at once', () => {
    const target = targetOf({ ...network, limits: [...network.limits], countFrom: 'opened' });
    expect(readClock(target, calendars, wandering, zero + 5 * HOUR)).toMatchObject({
      state: 'running',
      elapsed: 5 * HOUR,
      breachedAt: zero + 5 * HOUR,
      dueAt: zero + HOUR,
    });
  });

  test('counted from reaching the team, it has 58 min left two minutes later', () => {
    const target = targetOf({ ...network, limits: [...network.limits] });
    const now = zero + 5 * HOUR + 2 * MINUTE;
    expect(readClock(target, calendars, wandering, now)).toMatchObject({
      state: 'running',
      elapsed: 2 * MINUTE,
      breachedAt: null,
      dueAt: now + 58 * MINUTE,
    });
  });

  test('held for 20 h after 3 of 4 h: nothing due while held, then due one hour after resuming', () => {
    const held = story([0, { state: 'inWork' }], [3, { state: 'held' }]);
    expect(readClock(targetOf(), calendars, held, zero + 10 * HOUR)).toMatchObject({
      state: 'paused',
      dueAt: null,
    });
    const resumed = [...held, ...story([23, { state: 'inWork' }])];
    expect(readClock(targetOf(), calendars, resumed, zero + 23 * HOUR)).toMatchObject({
      state: 'running',
      elapsed: 3 * HOUR,
      pausedFor: 20 * HOUR,
      dueAt: zero + 24 * HOUR,
    });
  });

  test('opened half an hour before closing on Christmas Eve, one hour is due on Monday at 8:30', () => {
    const opened = at('2026-12-24T17:30');
    const target = targetOf({ limits: [{ duration: 'PT1H' }], calendars: [{ calendarId: 'O' }] });
    const reading = readClock(target, calendars, [{ at: opened, set: {} }], opened);
    expect(reading.dueAt).toBe(at('2026-12-28T08:30'));
  });
});

describe('the turns a ticket takes', () => {
  const read = (target: TargetDefinition, history: HistoryEvent[], hours: number) =>
    readClock(target, calendars, history, zero + hours * HOUR);

  test('finished exactly at the due instant is in time, a millisecond later is late', () => {
    const inTime = story([0, {}], [4, { state: 'done' }]);
    expect(read(targetOf(), inTime, 5)).toMatchObject({ state: 'met', dueAt: zero + 4 * HOUR });
    const late = [
      { at: zero, set: {} },
      { at: zero + 4 * HOUR + 1, set: { state: 'done' } },
    ];
    expect(read(targetOf(), late, 5)).toMatchObject({ state: 'missed', breachedAt: zero + 4 * HOUR });
  });

  test('warnings come once each, at the instant they were crossed', () => {
    const { warnings } = read(targetOf({ warnAtPercent: [80, 50, 50] }), story([0, {}]), 10);
    expect(warnings).toEqual([
      { percent: 50, at: zero + 2 * HOUR },
      { percent: 80, at: zero + 3.2 * HOUR },
    ]);
  });

  test('reopening goes on counting and leaves the time in between out', () => {
    const history = story([0, {}], [1, { state: 'done' }], [11, { state: 'inWork' }]);
    expect(read(targetOf(), history, 12)).toMatchObject({
      state: 'running',
      elapsed: 2 * HOUR,
      pausedFor: 10 * HOUR,
      dueAt: zero + 14 * HOUR,
      stoppedAt: null,
    });
    expect(read(targetOf({ onReopen: 'ignore' }), history, 12)).toMatchObject({
      state: 'met',
      elapsed: HOUR,
    });
  });

  test('a lower priority withdraws a breach, a higher one makes it breach at once', () => {
    const byPriority = targetOf({
      limits: [
        { when: { field: 'priority', op: 'is', value: 'P1' }, duration: 'PT1H' },
        { duration: 'PT8H' },
      ],
    });
    const history = story([0, { priority: 'P1' }], [2, { priority: 'P3' }]);
    expect(read(byPriority, history, 1.5)).toMatchObject({ breachedAt: zero + HOUR, dueAt: zero + HOUR });
    expect(read(byPriority, history, 3)).toMatchObject({
      breachedAt: null,
      dueAt: zero + 8 * HOUR,
      warnings: [],
    });
    const raised = story([0, { priority: 'P3' }], [2, { priority: 'P1' }]);
    expect(read(byPriority, raised, 2)).toMatchObject({ breachedAt: zero + 2 * HOUR, dueAt: zero + HOUR });
  });

  test('a held clock whose limit shrinks below what it used breaches there', () => {
    const byPriority = targetOf({
      limits: [
        { when: { field: 'priority', op: 'is', value: 'P1' }, duration: 'PT1H' },
        { duration: 'PT8H' },
      ],
    });
    const history = story([0, { priority: 'P3' }], [2, { state: 'held' }], [3, { priority: 'P1' }]);
    expect(read(byPriority, history, 4)).toMatchObject({
      state: 'paused',
      breachedAt: zero + 3 * HOUR,
      dueAt: zero + 2 * HOUR,
    });
  });

  test('a breached clock keeps its due instant through a hold', () => {
    const history = story([0, {}], [5, { state: 'held' }], [8, { state: 'inWork' }]);
    for (const hours of [6, 9]) expect(read(targetOf(), history, hours).dueAt).toBe(zero + 4 * HOUR);
  });

  test('resetting begins from nothing, once for each time the condition comes to hold', () => {
    const target = targetOf({ resetWhen: { field: 'given', op: 'is', value: true } });
    const history = story([0, {}], [5, { given: true }], [6, { given: true }], [7, { given: false }]);
    expect(read(target, history, 8)).toMatchObject({
      elapsed: 3 * HOUR,
      countedFrom: zero + 5 * HOUR,
      breachedAt: null,
    });
  });

  test('leaving the team that starts it calls the clock off, coming back starts it afresh', () => {
    const target = targetOf({
      startWhen: { field: 'team', op: 'is', value: 'network' },
      cancelWhen: 'startNoLongerHolds',
    });
    const history = story([0, { team: 'network' }], [1, { team: 'desk' }], [3, { team: 'network' }]);
    expect(read(target, history, 2)).toMatchObject({ state: 'cancelled', elapsed: HOUR, dueAt: null });
    expect(read(target, history, 4)).toMatchObject({
      state: 'running',
      startedAt: zero + 3 * HOUR,
      elapsed: HOUR,
    });
  });

  test('from the opening without the earlier holds', () => {
    const target = targetOf({
      startWhen: { field: 'team', op: 'is', value: 'network' },
      countFrom: 'opened',
      excludeEarlierPauses: true,
    });
    const history = story(
      [0, { team: 'desk' }],
      [1, { state: 'held' }],
      [4, { state: 'inWork', team: 'network' }],
    );
    expect(read(target, history, 5)).toMatchObject({
      elapsed: 2 * HOUR,
      pausedFor: 3 * HOUR,
      countedFrom: zero,
    });
  });

  test('the calendar follows the team', () => {
    const target = targetOf({
      limits: [{ duration: 'P1D' }],
      calendars: [
        { when: { field: 'team', op: 'is', value: 'ships' }, calendarId: 'A' },
        { calendarId: 'O' },
      ],
    });
    const history = [
      { at: at('2026-11-16T17:00'), set: { team: 'desk' } },
      { at: at('2026-11-16T20:00'), set: { team: 'ships' } },
    ];
    const reading = readClock(target, calendars, history, at('2026-11-16T21:00'));
    expect(reading).toMatchObject({ elapsed: 2 * HOUR, limit: 24 * HOUR, dueAt: at('2026-11-17T19:00') });
  });

  test('without a limit or a calendar nothing is due and nothing breaches', () => {
    const never = { field: 'team', op: 'is', value: 'none' } as const;
    const noLimit = read(targetOf({ limits: [{ when: never, duration: 'PT1H' }] }), story([0, {}]), 3);
    expect(noLimit).toMatchObject({
      limit: null,
      percent: null,
      dueAt: null,
      breachedAt: null,
      elapsed: 3 * HOUR,
    });
    const noCalendar = read(targetOf({ calendars: [{ when: never, calendarId: 'A' }] }), story([0, {}]), 30);
    expect(noCalendar).toMatchObject({ elapsed: 0, dueAt: null, breachedAt: null });
  });

  test('before the opening and before the start there is nothing to read', () => {
    expect(read(targetOf(), story([1, {}]), 0)).toMatchObject({
      state: 'notStarted',
      limit: null,
      warnings: [],
    });
    const later = targetOf({ startWhen: { field: 'team', op: 'is', value: 'network' } });
    expect(read(later, story([0, { team: 'desk' }]), 1)).toMatchObject({
      state: 'notStarted',
      percent: null,
      startedAt: null,
    });
  });

  test('bad definitions are refused', () => {
    expect(() => read(targetOf({ calendars: [{ calendarId: 'Z' }] }), story([0, {}]), 1)).toThrow(
      UnknownCalendar,
    );
    expect(() => read(targetOf({ warnAtPercent: [0] }), story([0, {}]), 1)).toThrow(PercentNotPositive);
  });
});

describe('laws', () => {
  const change = fc.record(
    {
      state: fc.constantFrom('inWork', 'held', 'done'),
      priority: fc.constantFrom('P1', 'P3'),
      team: fc.constantFrom('desk', 'ships'),
    },
    { requiredKeys: [] },
  );
  const histories = fc
    .array(fc.tuple(fc.integer({ min: 0, max: 200 }), change), { minLength: 1, maxLength: 8 })
    .map((events) =>
      story(...events.sort((a, b) => a[0] - b[0]).map(([h, set]): [number, typeof set] => [h / 2, set])),
    );
  const target = targetOf({
    limits: [{ when: { field: 'priority', op: 'is', value: 'P1' }, duration: 'PT2H' }, { duration: 'P1D' }],
    calendars: [{ when: { field: 'team', op: 'is', value: 'ships' }, calendarId: 'A' }, { calendarId: 'O' }],
    resetWhen: {
      all: [
        { field: 'team', op: 'is', value: 'desk' },
        { field: 'priority', op: 'is', value: 'P3' },
      ],
    },
  });
  const hours = fc.integer({ min: 0, max: 240 });

  test('a clock reads the same whether or not what comes later is known', () => {
    fc.assert(
      fc.property(histories, hours, (history, h) => {
        const now = zero + h * HOUR;
        const known = history.filter(({ at: instant }) => instant <= now);
        expect(readClock(target, calendars, history, now)).toEqual(readClock(target, calendars, known, now));
      }),
    );
  });

  test('an event that changes nothing changes no clock', () => {
    fc.assert(
      fc.property(histories, hours, hours, (history, h, idle) => {
        const more = [...history, { at: zero + idle * HOUR, set: {} }].sort((a, b) => a.at - b.at);
        fc.pre(more[0] === history[0]);
        const now = zero + h * HOUR;
        const { dueAt: _, ...plain } = readClock(target, calendars, history, now);
        expect(readClock(target, calendars, more, now)).toMatchObject(plain);
      }),
    );
  });

  test('an event that says again what already held changes no clock', () => {
    fc.assert(
      fc.property(histories, hours, (history, h) => {
        let known: Record<string, unknown> = {};
        const whole = history.map(({ at: instant, set }) => {
          known = { state: null, priority: null, team: null, ...known, ...set };
          return { at: instant, set: known };
        });
        const now = zero + h * HOUR;
        expect(readClock(target, calendars, whole, now)).toEqual(readClock(target, calendars, history, now));
      }),
    );
  });

  test('the reckoning adds up to what was counted, without gaps', () => {
    fc.assert(
      fc.property(histories, hours, (history, h) => {
        const { reading, rows } = reckonClock(target, calendars, history, zero + h * HOUR);
        const known = rows.filter(({ kind }) => kind !== 'toCome');
        const counted = known.filter(({ kind }) => kind === 'counted' || kind === 'pastDue');
        expect(counted.reduce((sum, { worked }) => sum + worked, 0)).toBe(reading.elapsed);
        for (const { kind, from, to } of counted)
          if (reading.dueAt !== null)
            expect(kind === 'pastDue' ? from >= reading.dueAt : to <= reading.dueAt).toBe(true);
        const isStill = reading.state === 'running' && reading.dueAt! > zero + h * HOUR;
        if (isStill) expect(rows.at(-1)).toMatchObject({ to: reading.dueAt, total: reading.limit });
        const held = rows.filter(({ kind }) => kind === 'held').reduce((sum, { worked }) => sum + worked, 0);
        expect(held).toBeLessThanOrEqual(reading.pausedFor);
        rows.slice(1).forEach((row, i) => expect(row.from).toBe(rows[i]!.to));
      }),
    );
  });
});
