import { getOwn, setOwn } from '../records';
import type { CompiledCalendar } from '../calendar';
import { holds, type Fields } from '../conditions';
import { UnknownStepCalendar } from './errors';
import { orderPlan, type Ordered, type Placed } from './order';
import type { Plan, PlanForecast, Progress, StepForecast, StepState } from './types';

/** How a step stands: `off` has not come up and would be left out by what is known now. */
type Standing = StepState | 'waiting' | 'off';

type Calendars = Record<string, CompiledCalendar>;

type Run = {
  ordered: Ordered;
  standing: Standing[];
  progress: Progress;
  calendars: Calendars;
  startedAt: number;
  now: number;
  earliestStart: Float64Array;
  earliestFinish: Float64Array;
  /** For steps that have not begun: the instant from which nothing holds them back. */
  free: Float64Array;
  latestStart: Float64Array;
  latestFinish: Float64Array;
};

function standingOf({ step }: Placed, progress: Progress, fields: Fields): Standing {
  const state = getOwn(progress, step.id)?.state;
  if (state) return state;
  return step.when && !holds(step.when, fields) ? 'off' : 'waiting';
}

const isToCome = (standing: Standing): boolean => standing === 'waiting' || standing === 'failed';

/** When each step can begin and end. */
function passForward(run: Run): void {
  const { ordered, standing, progress, calendars, startedAt, now } = run;
  const { inOrder } = ordered;
  const { earliestStart, earliestFinish, free } = run;
  let leg = -1;
  /** The latest finish in the legs before this one, and in them together with it. */
  let before = -Infinity;
  let soFar = -Infinity;
  for (const { step, place, leg: own, before: waitsFor } of inOrder) {
    if (own !== leg) {
      leg = own;
      before = soFar;
    }
    const { effort, notBefore = -Infinity } = step;
    const calendar = calendars[step.calendarId]!;
    const { startedAt: begun, finishedAt } = getOwn(progress, step.id) ?? {};
    switch (standing[place]) {
      case 'done':
        earliestStart[place] = begun ?? finishedAt!;
        earliestFinish[place] = finishedAt!;
        break;
      case 'skipped':
        earliestStart[place] = earliestFinish[place] = finishedAt ?? startedAt;
        // It holds back nothing.
        continue;
      case 'active':
        earliestStart[place] = begun!;
        earliestFinish[place] = Math.max(now, effort === 0 ? begun! : calendar.addWorking(begun!, effort));
        break;
      default: {
        const isOff = standing[place] === 'off';
        let from = Math.max(startedAt, now, before, isOff ? -Infinity : notBefore);
        for (const other of waitsFor)
          if (standing[other] !== 'skipped') from = Math.max(from, earliestFinish[other]!);
        free[place] = from;
        const start = isOff || effort === 0 ? from : calendar.nextWorking(from);
        earliestStart[place] = start;
        earliestFinish[place] = isOff || effort === 0 ? from : calendar.addWorking(start, effort);
      }
    }
    soFar = Math.max(soFar, earliestFinish[place]);
  }
}

/** When each step must begin and end so that the plan ends at `finish`. */
function passBackward(run: Run, finish: number): void {
  const { ordered, standing, progress, calendars, latestStart, latestFinish } = run;
  const { inOrder } = ordered;
  /** The earliest of the latest starts of what follows a step; Infinity where nothing does. */
  const following = new Float64Array(inOrder.length);
  let leg = Infinity;
  let later = Infinity;
  let soFar = Infinity;
  for (let i = inOrder.length - 1; i >= 0; i--) {
    const { step, place, leg: own, next } = inOrder[i]!;
    if (own !== leg) {
      leg = own;
      later = soFar;
    }
    let bound = later;
    for (const other of next) {
      if (isToCome(standing[other]!)) bound = Math.min(bound, latestStart[other]!);
      else if (standing[other] === 'off') bound = Math.min(bound, following[other]!);
    }
    following[place] = bound;
    const isActive = standing[place] === 'active';
    if (!isActive && !isToCome(standing[place]!)) {
      latestStart[place] = run.earliestStart[place]!;
      latestFinish[place] = run.earliestFinish[place]!;
      continue;
    }
    const end = Math.min(bound, finish);
    latestFinish[place] = end;
    latestStart[place] = isActive
      ? getOwn(progress, step.id)!.startedAt!
      : step.effort === 0
        ? end
        : calendars[step.calendarId]!.addWorking(end, -step.effort);
    if (!isActive) soFar = Math.min(soFar, latestStart[place]);
  }
}

/** Adds a step that ends at an instant, if it is unfinished; one that will be left out is seen through. */
function addHolders(run: Run, each: Placed, instant: number, holders: Placed[]): void {
  if (run.earliestFinish[each.place] !== instant) return;
  const state = run.standing[each.place]!;
  if (state === 'active' || isToCome(state)) holders.push(each);
  else if (state === 'off')
    for (const other of each.before) addHolders(run, run.ordered.placed[other]!, instant, holders);
}

/** The unfinished steps before one that end just when it can begin. */
function findHolders(run: Run, { place, leg, before }: Placed, byFinish: Map<number, Placed[]>): Placed[] {
  const instant = run.free[place]!;
  const holders: Placed[] = [];
  for (const other of before) addHolders(run, run.ordered.placed[other]!, instant, holders);
  for (const each of byFinish.get(instant) ?? []) if (each.leg < leg) addHolders(run, each, instant, holders);
  return holders;
}

function firstOf(steps: Placed[]): Placed | undefined {
  let first: Placed | undefined;
  for (const each of steps) if (!first || each.place < first.place) first = each;
  return first;
}

function findDriving(run: Run, finish: number): string[] {
  const { ordered, standing, earliestFinish } = run;
  const driving: string[] = [];
  const byFinish = new Map<number, Placed[]>();
  for (const each of ordered.placed) {
    const sameFinish = byFinish.get(earliestFinish[each.place]!);
    if (sameFinish) sameFinish.push(each);
    else byFinish.set(earliestFinish[each.place]!, [each]);
  }
  let current = firstOf(
    ordered.placed.filter(
      ({ place }) =>
        earliestFinish[place] === finish && (standing[place] === 'active' || isToCome(standing[place]!)),
    ),
  );
  while (current) {
    driving.unshift(current.step.id);
    if (standing[current.place] === 'active') break;
    current = firstOf(findHolders(run, current, byFinish));
  }
  return driving;
}

/**
 * When a plan will be finished, over every step's own calendar, and which steps decide that: the critical path method
 * with calendars and with what has happened so far.
 * @throws BadPlan, UnknownStepCalendar, or the calendar's NoWorkingTime
 */
export function forecast(
  plan: Plan,
  startedAt: number,
  progress: Progress,
  fields: Fields,
  calendars: Calendars,
  now: number,
): PlanForecast {
  const ordered = orderPlan(plan);
  for (const { id, calendarId } of plan.steps)
    if (!Object.hasOwn(calendars, calendarId)) throw new UnknownStepCalendar(calendarId, id);
  const instants = (): Float64Array => new Float64Array(plan.steps.length);
  const run: Run = {
    ...{ ordered, progress, calendars, startedAt, now },
    standing: ordered.placed.map((each) => standingOf(each, progress, fields)),
    ...{ earliestStart: instants(), earliestFinish: instants(), free: instants() },
    ...{ latestStart: instants(), latestFinish: instants() },
  };
  passForward(run);
  let finish = plan.steps.length === 0 ? startedAt : -Infinity;
  for (const instant of run.earliestFinish) finish = Math.max(finish, instant);
  passBackward(run, finish);
  const steps: Record<string, StepForecast> = {};
  for (const { step, place } of ordered.placed) {
    const standing = run.standing[place]!;
    const earliestFinish = run.earliestFinish[place]!;
    const latestFinish = run.latestFinish[place]!;
    const isOpen = standing === 'active' || isToCome(standing);
    const slack = isOpen ? calendars[step.calendarId]!.workingBetween(earliestFinish, latestFinish) : 0;
    setOwn(steps, step.id, {
      earliestStart: run.earliestStart[place]!,
      earliestFinish,
      latestStart: run.latestStart[place]!,
      latestFinish,
      slack,
      critical: isOpen && slack === 0,
    });
  }
  return { steps, finish, driving: findDriving(run, finish) };
}
