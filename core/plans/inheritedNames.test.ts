import { compileCalendar, WEEKDAYS } from '../calendar';
import { forecast, nextSteps, type Plan } from './index';

const calendars = {
  always: compileCalendar({
    ...{ name: 'Always', timeZone: 'UTC', hoursPerDay: 24, exceptions: [] },
    weekly: Object.fromEntries(WEEKDAYS.map((day) => [day, [{ from: '00:00', to: '24:00' }]])),
  }),
};
const HOUR = 3_600_000;

/** Ids are free text: those that every object inherits are ids like others. */
describe.each(['constructor', 'valueOf', '__proto__', 'toString'])('a step called %s', (id) => {
  const step = { kind: 'task', effort: HOUR, calendarId: 'always', leg: 'one' } as const;
  const plan: Plan = {
    legs: ['one'],
    steps: [
      { ...step, id },
      { ...step, id: 'after', after: [id] },
    ],
  };

  test('begins when its turn has come', () => {
    expect(nextSteps(plan, {}, {}, 0)).toEqual({ start: [id], skip: [], finished: false });
  });
  test('is forecast, and holds back what waits for it', () => {
    const { steps, finish } = forecast(plan, 0, {}, {}, calendars, 0);
    expect(Object.keys(steps)).toEqual([id, 'after']);
    expect(Object.entries(steps).map(([, { earliestFinish }]) => earliestFinish)).toEqual([HOUR, 2 * HOUR]);
    expect(finish).toBe(2 * HOUR);
  });
  test('lets the next begin once it is done', () => {
    const progress = Object.fromEntries([[id, { state: 'done', startedAt: 0, finishedAt: 5 } as const]]);
    expect(nextSteps(plan, progress, {}, 10).start).toEqual(['after']);
  });
});
