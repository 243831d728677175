import type { CompiledCalendar } from '../calendar';
import type { Fields } from '../conditions';
import { forecast } from './forecast';
import type { Plan, Progress } from './types';

/** One way to keep a promise: a step that would have to be shorter by so much working time of its own calendar. */
export type WayBack = { step: string; shorterBy: number };

const MINUTE = 60_000;

/**
 * What would bring a late plan back to its promise, by one step alone: for each of those that decide the date, by how
 * much shorter it would have to be (in full minutes). Empty where no single step can.
 */
export function findWaysBack(
  plan: Plan,
  startedAt: number,
  progress: Progress,
  fields: Fields,
  calendars: Record<string, CompiledCalendar>,
  now: number,
  promisedAt: number,
): WayBack[] {
  const finishOf = (id: string, shorterBy: number): number => {
    const steps = plan.steps.map((step) =>
      step.id === id ? { ...step, effort: step.effort - shorterBy } : step,
    );
    return forecast({ ...plan, steps }, startedAt, progress, fields, calendars, now).finish;
  };
  const { driving, finish } = forecast(plan, startedAt, progress, fields, calendars, now);
  if (finish <= promisedAt) return [];
  return driving.flatMap((id) => {
    const { effort } = plan.steps.find((step) => step.id === id)!;
    if (finishOf(id, effort) > promisedAt) return [];
    let [low, high] = [0, Math.ceil(effort / MINUTE)];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (finishOf(id, Math.min(effort, middle * MINUTE)) <= promisedAt) high = middle;
      else low = middle + 1;
    }
    return [{ step: id, shorterBy: Math.min(effort, low * MINUTE) }];
  });
}
