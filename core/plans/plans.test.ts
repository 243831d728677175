import fc from 'fast-check';
import { compileCalendar, WEEKDAYS } from '../calendar';
import type { Fields } from '../conditions';
import {
  BadPlan,
  checkPlan,
  findWaysBack,
  forecast,
  nextSteps,
  toPlan,
  UnknownStepCalendar,
  withRoundTheClock,
  type Plan,
  type PlanStep,
  type Progress,
} from './index';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const daily = (from: string, to: string, days: readonly string[] = WEEKDAYS) =>
  Object.fromEntries(days.map((day) => [day, [{ from, to }]]));
const calendars = {
  always: compileCalendar({
    ...{ name: 'Always', timeZone: 'UTC', hoursPerDay: 24, exceptions: [] },
    weekly: daily('00:00', '24:00'),
  }),
  office: compileCalendar({
    ...{ name: 'Office', timeZone: 'UTC', hoursPerDay: 8, exceptions: [] },
    weekly: daily('09:00', '17:00', ['mon', 'tue', 'wed', 'thu', 'fri']),
  }),
};
const monday = Date.parse('2026-11-23T09:00:00Z');

const step = (id: string, hours: number, more: Partial<PlanStep> = {}): PlanStep => ({
  ...{ id, leg: 'one', kind: 'task', effort: hours * HOUR, calendarId: 'always' },
  ...more,
});
const planOf = (...steps: PlanStep[]): Plan => ({ legs: [...new Set(steps.map(({ leg }) => leg))], steps });
const look = (plan: Plan, progress: Progress = {}, now = monday, fields = {}) =>
  forecast(plan, monday, progress, fields, calendars, now);

describe('what is wrong with a plan', () => {
  test('each kind of problem is found and named', () => {
    const plan: Plan = {
      legs: ['one', 'two', 'two', 'three'],
      steps: [
        step('a', 1, { after: ['b', 'b'] }),
        step('b', 1, { after: ['a'] }),
        step('c', 1, { after: ['c'] }),
        step('d', -1, { after: ['nowhere'] }),
        step('e', 1, { leg: 'two', after: ['a'] }),
        step('f', 1, { leg: 'four' }),
        step('f', 1, { leg: 'two' }),
      ],
    };
    const found = checkPlan(plan).map(({ code, steps }) => [code, [...steps].sort().join()]);
    expect(found.sort()).toEqual([
      ['acrossLegs', 'a,e'],
      ['badEffort', 'd'],
      ['cycle', 'a,b'],
      ['cycle', 'c'],
      ['duplicateLeg', ''],
      ['duplicateStep', 'f'],
      ['emptyLeg', ''],
      ['unknownLeg', 'f'],
      ['unknownStep', 'd'],
    ]);
  });

  test('nothing is wrong with an empty plan, nor with an id twice in one `after`', () => {
    expect(checkPlan({ legs: [], steps: [] })).toEqual([]);
    expect(checkPlan(planOf(step('a', 1), step('b', 1, { after: ['a', 'a'] })))).toEqual([]);
  });

  test('a bad plan is refused', () => {
    expect(() => look(planOf(step('a', 1, { after: ['a'] })))).toThrow(BadPlan);
    expect(() => nextSteps(planOf(step('a', -1)), {}, {}, monday)).toThrow(BadPlan);
    expect(() => look(planOf(step('a', 1, { calendarId: 'none' })))).toThrow(UnknownStepCalendar);
  });
});

describe('whose turn it is', () => {
  const plan = planOf(
    step('agree', 1),
    step('laptop', 1, { leg: 'two' }),
    step('phone', 1, { leg: 'two', when: { field: 'phone', op: 'is', value: true } }),
    step('set up', 1, { leg: 'two', after: ['phone', 'laptop'] }),
    step('welcome', 1, { leg: 'three', notBefore: monday + DAY }),
  );
  const done = { state: 'done', finishedAt: monday } as const;

  test.each<[string, Progress, Fields, string[], string[]]>([
    ['the first leg', {}, {}, ['agree'], []],
    ['nothing while it runs', { agree: { state: 'active', startedAt: monday } }, {}, [], []],
    ['the second, without what does not hold', { agree: done }, {}, ['laptop'], ['phone']],
    ['the second, with what holds', { agree: done }, { phone: true }, ['laptop', 'phone'], []],
    ['what waits for a step left out', { agree: done, laptop: done }, {}, ['set up'], ['phone']],
    ['nothing after a failed one', { agree: { state: 'failed' } }, {}, [], []],
    ['nothing before its time', { agree: done, laptop: done, phone: done, 'set up': done }, {}, [], []],
  ])('%s', (_name, progress, fields, start, skip) => {
    expect(nextSteps(plan, progress, fields, monday)).toEqual({ start, skip, finished: false });
  });

  test('what was left out counts at once, through legs, up to the end', () => {
    const never = { field: 'x', op: 'is', value: 1 } as const;
    const empty = planOf(step('a', 1, { when: never }), step('b', 1, { leg: 'two', when: never }));
    expect(nextSteps(empty, {}, {}, monday)).toEqual({ start: [], skip: ['a', 'b'], finished: true });
  });
});

/** Networks whose tables are printed in textbooks; the figures here are from memory, checked by hand. */
describe('critical path networks', () => {
  type Row = [id: string, weeks: number, after: string, slack: number];
  /** Hillier and Lieberman, Introduction to Operations Research: Reliable Construction Co., 44 weeks. */
  const construction: Row[] = [
    ['A', 2, '', 0],
    ['B', 4, 'A', 0],
    ['C', 10, 'B', 0],
    ['D', 6, 'C', 4],
    ['E', 4, 'C', 0],
    ['F', 5, 'E', 0],
    ['G', 7, 'D', 4],
    ['H', 9, 'E G', 4],
    ['I', 7, 'C', 2],
    ['J', 8, 'F I', 0],
    ['K', 4, 'J', 1],
    ['L', 5, 'J', 0],
    ['M', 2, 'H', 4],
    ['N', 6, 'K L', 0],
  ];
  /** Heizer and Render, Operations Management: Milwaukee Paper Manufacturing, 15 weeks. */
  const paper: Row[] = [
    ['A', 2, '', 0],
    ['B', 3, '', 1],
    ['C', 2, 'A', 0],
    ['D', 4, 'A B', 1],
    ['E', 4, 'C', 0],
    ['F', 3, 'C', 6],
    ['G', 5, 'D E', 0],
    ['H', 2, 'F G', 0],
  ];
  test.each([
    ['construction', construction, 44, 'A B C E F J L N'],
    ['paper', paper, 15, 'A C E G H'],
  ])('%s comes out as printed', (_name, rows, weeks, path) => {
    const plan = planOf(
      ...rows.map(([id, hours, after]) => step(id, hours, { after: after.split(' ').filter(Boolean) })),
    );
    const { steps, finish, driving } = look(plan);
    expect((finish - monday) / HOUR).toBe(weeks);
    expect(driving.join(' ')).toBe(path);
    for (const [id, , , slack] of rows) expect([id, steps[id]!.slack / HOUR]).toEqual([id, slack]);
  });
});

describe('over calendars and what has happened', () => {
  test('work waits for its calendar, and slack is counted in it', () => {
    const plan = planOf(
      step('gear', 20, { calendarId: 'office' }),
      step('papers', 4, { calendarId: 'office' }),
      step('rights', 1, { leg: 'two' }),
    );
    const { steps, finish, driving } = look(plan);
    // 20 hours of eight a day from Monday nine: Wednesday 13:00, then an hour round the clock.
    expect(new Date(finish).toISOString()).toBe('2026-11-25T14:00:00.000Z');
    expect(steps.papers!.slack).toBe(16 * HOUR);
    expect(driving).toEqual(['gear', 'rights']);
  });

  test('a step that runs over pushes what follows; one that failed is to be done again', () => {
    const plan = planOf(step('a', 2), step('b', 3, { after: ['a'] }));
    const running: Progress = { a: { state: 'active', startedAt: monday } };
    expect(look(plan, running, monday + HOUR).finish).toBe(monday + 5 * HOUR);
    expect(look(plan, running, monday + 4 * HOUR).finish).toBe(monday + 7 * HOUR);
    const failed: Progress = { a: { state: 'failed', startedAt: monday } };
    expect(look(plan, failed, monday + 4 * HOUR).finish).toBe(monday + 9 * HOUR);
  });

  test('what is done stands where it was, and what will be left out takes no time but keeps the order', () => {
    const plan = planOf(
      step('a', 2),
      step('b', 5, { after: ['a'], when: { field: 'x', op: 'is', value: 1 }, notBefore: monday + 9 * DAY }),
      step('c', 1, { after: ['b'] }),
    );
    const done: Progress = { a: { state: 'done', startedAt: monday, finishedAt: monday + HOUR } };
    expect(look(plan, done, monday + HOUR).finish).toBe(monday + 2 * HOUR);
    const { finish, driving, steps } = look(plan);
    expect(finish).toBe(monday + 3 * HOUR);
    expect(driving).toEqual(['a', 'c']);
    expect(steps.b).toMatchObject({ slack: 0, critical: false });
    expect(look(plan, {}, monday, { x: 1 }).finish).toBe(monday + 9 * DAY + 6 * HOUR);
  });

  test('nothing left to do: the finish is the last that was done, and nothing decides it', () => {
    const over: Progress = { a: { state: 'done', finishedAt: monday + HOUR } };
    expect(look(planOf(step('a', 2)), over, monday + DAY)).toMatchObject({
      finish: monday + HOUR,
      driving: [],
    });
    expect(look({ legs: [], steps: [] })).toEqual({ steps: {}, finish: monday, driving: [] });
  });
});

test('a late plan says which step, by how much shorter, brings it back', () => {
  const plan = planOf(step('a', 4), step('b', 6, { after: ['a'] }), step('c', 2));
  const running: Progress = { a: { state: 'active', startedAt: monday } };
  const late = monday + 6 * HOUR;
  const ways = findWaysBack(plan, monday, running, {}, calendars, late, monday + 10 * HOUR);
  // a has overrun and cannot get shorter; b would have to lose two of its six hours. c is not in the way.
  expect(ways).toEqual([{ step: 'b', shorterBy: 2 * HOUR }]);
  expect(findWaysBack(plan, monday, running, {}, calendars, monday, monday + 10 * HOUR)).toEqual([]);
  expect(findWaysBack(plan, monday, running, {}, calendars, late, monday)).toEqual([]);
});

test("a service's plan stands on its teams' calendars and on the dates of the form", () => {
  const name = { en: 'x', pt: 'x' };
  const plan = toPlan(
    {
      legs: [{ id: 'one', name }],
      steps: [
        {
          id: 'agree',
          leg: 'one',
          name,
          kind: 'approval',
          refs: [],
          needs: { kind: 'any' },
          declineBy: 'any',
          effort: 'P1D',
        },
        { id: 'badge', leg: 'one', name, kind: 'task', teamId: 'gate', effort: 'PT2H', after: ['agree'] },
        {
          ...{ id: 'rights', leg: 'one', name, kind: 'automatic', action: { do: 'wait' } },
          notBefore: { field: 'day', daysBefore: 2 },
        },
      ],
    },
    {
      calendars: withRoundTheClock(calendars),
      calendarOf: (teamId) => (teamId === 'gate' ? 'always' : 'office'),
      ownTeamId: 'desk',
      fields: { day: '2026-12-01' },
    },
  );
  expect(plan.steps).toMatchObject([
    { id: 'agree', calendarId: 'office', effort: 8 * HOUR },
    { id: 'badge', calendarId: 'always', effort: 2 * HOUR, after: ['agree'] },
    { id: 'rights', effort: 0, notBefore: Date.parse('2026-11-29T00:00:00Z') },
  ]);
});

describe('laws', () => {
  const plans = fc
    .array(
      fc.record({
        hours: fc.integer({ min: 0, max: 9 }),
        leg: fc.integer({ min: 0, max: 2 }),
        after: fc.array(fc.nat({ max: 8 }), { maxLength: 3 }),
        calendarId: fc.constantFrom('always', 'office'),
        isWanted: fc.boolean(),
      }),
      { minLength: 1, maxLength: 9 },
    )
    .map((drafts) =>
      planOf(
        ...drafts.map(({ hours, leg, after, calendarId, isWanted }, i) =>
          step(`s${i}`, hours, {
            ...{ leg: `leg ${leg}`, calendarId },
            after: after.filter((k) => k < i && drafts[k]!.leg === leg).map((k) => `s${k}`),
            ...(!isWanted && { when: { field: 'wanted', op: 'is', value: true } as const }),
          }),
        ),
      ),
    )
    .map((plan) => ({ ...plan, legs: [...plan.legs].sort() }));

  test('the longest way through decides, where the clock never stops', () => {
    fc.assert(
      fc.property(plans, (drawn) => {
        const plan = { ...drawn, steps: drawn.steps.map((each) => ({ ...each, calendarId: 'always' })) };
        const effortOf = (each: PlanStep) => (each.when ? 0 : each.effort);
        const endOf = (each: PlanStep): number => {
          const before = plan.steps.filter(
            ({ id, leg }) => plan.legs.indexOf(leg) < plan.legs.indexOf(each.leg) || each.after!.includes(id),
          );
          return Math.max(0, ...before.map(endOf)) + effortOf(each);
        };
        expect(look(plan).finish - monday).toBe(Math.max(...plan.steps.map(endOf)));
      }),
    );
  });

  test('taken as forecast, every step begins when it comes up, and the plan ends at the forecast', () => {
    fc.assert(
      fc.property(plans, (plan) => {
        const { finish } = look(plan);
        const progress: Progress = {};
        let now = monday;
        let last = monday;
        for (let turn = 0; turn < 60; turn++) {
          const { start, skip, finished } = nextSteps(plan, progress, {}, now);
          for (const id of skip) progress[id] = { state: 'skipped', finishedAt: now };
          if (finished) break;
          for (const id of start) {
            const { effort, calendarId } = plan.steps.find((each) => each.id === id)!;
            const calendar = calendars[calendarId as 'always'];
            const startedAt = effort === 0 ? now : calendar.nextWorking(now);
            const finishedAt = effort === 0 ? now : calendar.addWorking(startedAt, effort);
            progress[id] = { state: 'active', startedAt, finishedAt };
          }
          const running = Object.values(progress).filter(({ state }) => state === 'active');
          if (running.length === 0) continue;
          now = Math.min(...running.map(({ finishedAt }) => finishedAt!));
          for (const each of running) if (each.finishedAt! <= now) each.state = 'done';
          last = Math.max(last, now);
        }
        const isAnyDone = Object.values(progress).some(({ state }) => state === 'done');
        if (isAnyDone) expect(last).toBe(finish);
      }),
    );
  });

  test('a step may take its slack longer and no more, where the clock never stops', () => {
    fc.assert(
      fc.property(plans, fc.nat(), (drawn, pick) => {
        const plan = { ...drawn, steps: drawn.steps.map((each) => ({ ...each, calendarId: 'always' })) };
        const chosen = plan.steps[pick % plan.steps.length]!;
        fc.pre(!chosen.when);
        const { finish, steps } = look(plan);
        const { slack } = steps[chosen.id]!;
        const longer = (by: number): number => {
          const stretched = plan.steps.map((each) =>
            each === chosen ? { ...each, effort: each.effort + by } : each,
          );
          return look({ ...plan, steps: stretched }).finish;
        };
        expect(longer(slack)).toBe(finish);
        expect(longer(slack + HOUR)).toBe(finish + HOUR);
      }),
    );
  });
});
