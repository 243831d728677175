import { decideStep, type Vote } from '../core/approvals';
import { compileCalendar, WEEKDAYS } from '../core/calendar';
import { checkPlan, forecast, type Plan, type Progress } from '../core/plans';
import { median, perSecond, report } from './report';

const HOUR = 3_600_000;
const LEGS = 10;
const IN_A_LEG = 20;
const ROUND_MS = 200;
const ROUNDS = 15;

function rateOf(ms: number, once: () => void): number {
  const rates: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const start = performance.now();
    let count = 0;
    for (; performance.now() - start < ms; count++) once();
    rates.push((count * 1000) / (performance.now() - start));
  }
  return median(rates);
}

/** A plan of 200 steps over two calendars, a third of it done: checked, forecast, and a vote of 200 decided. */
export function benchPlans(): Promise<void> {
  const of = (timeZone: string, from: string, to: string) =>
    compileCalendar({
      ...{ name: timeZone, timeZone, hoursPerDay: 10, exceptions: [] },
      weekly: Object.fromEntries(WEEKDAYS.map((day) => [day, [{ from, to }]])),
    });
  const calendars = {
    lisbon: of('Europe/Lisbon', '08:00', '18:00'),
    azores: of('Atlantic/Azores', '09:00', '17:00'),
  };
  const makePlan = (): Plan => ({
    legs: Array.from({ length: LEGS }, (_, leg) => `leg ${leg}`),
    steps: Array.from({ length: LEGS * IN_A_LEG }, (_, i) => ({
      id: `step ${i}`,
      leg: `leg ${Math.floor(i / IN_A_LEG)}`,
      kind: 'task',
      after: i % IN_A_LEG < 3 ? [] : [`step ${i - 1}`, `step ${i - 3}`],
      effort: (1 + (i % 7)) * HOUR,
      calendarId: i % 3 === 0 ? 'azores' : 'lisbon',
      ...(i % 5 === 0 && { when: { field: 'wanted', op: 'in', value: ['yes', 'perhaps'] } }),
    })),
  });
  const plan = makePlan();
  const start = Date.parse('2026-11-16T09:00:00Z');
  const progress: Progress = Object.fromEntries(
    plan.steps
      .slice(0, 60)
      .map(({ id }, i) => [id, { state: 'done', startedAt: start + i, finishedAt: start + HOUR + i }]),
  );
  const fields = { wanted: 'yes' };
  let now = start + 30 * HOUR;
  const forecasts = rateOf(ROUND_MS, () => forecast(plan, start, progress, fields, calendars, (now += 1)));
  report('forecasts of a plan of 200 steps', perSecond(forecasts), 'the median of 15 rounds');
  const fresh = makePlan();
  report('checks of a plan of 200 steps', perSecond(rateOf(ROUND_MS, () => checkPlan(fresh))), '');
  const voters = Array.from({ length: 200 }, (_, i) => `voter ${i}`);
  const votes = voters.map((voter, i): Vote => ({
    voter,
    by: voter,
    decision: i % 3 ? 'approve' : 'decline',
    at: start + i,
  }));
  const decide = () => decideStep({ kind: 'percent', percent: 60 }, 'outOfReach', voters, votes);
  report('decisions by 200 voters', perSecond(rateOf(ROUND_MS, decide)), '');
  return Promise.resolve();
}
