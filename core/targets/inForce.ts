import { NoWorkingTime, parseDuration, type CompiledCalendar } from '../calendar';
import { holds, type Condition, type Fields } from '../conditions';
import { PercentNotPositive, UnknownCalendar } from './errors';
import type { Calendars, TargetDefinition } from './types';

/** What a stretch is measured by: the first calendar and the first limit whose conditions hold in it. */
export type InForce = { calendarId: string | null; calendar: CompiledCalendar | null; limit: number | null };

const ROUND_THE_CLOCK_DAY = 24;
const parsed = new Map<string, number>();

function durationOf(text: string, hoursPerDay: number): number {
  const key = `${hoursPerDay} ${text}`;
  let ms = parsed.get(key);
  if (ms === undefined) parsed.set(key, (ms = parseDuration(text, { hoursPerDay })));
  return ms;
}

function firstMatch<T extends { when?: Condition }>(choices: T[], fields: Fields): T | undefined {
  return choices.find(({ when }) => !when || holds(when, fields));
}

export function getInForce(definition: TargetDefinition, calendars: Calendars, fields: Fields): InForce {
  const calendarId = firstMatch(definition.calendars, fields)?.calendarId ?? null;
  const calendar = calendarId === null ? null : calendars[calendarId]!;
  const duration = firstMatch(definition.limits, fields)?.duration;
  const limit =
    duration === undefined ? null : durationOf(duration, calendar?.spec.hoursPerDay ?? ROUND_THE_CLOCK_DAY);
  return { calendarId, calendar, limit };
}

/** @throws UnknownCalendar, PercentNotPositive */
export function validateTarget(definition: TargetDefinition, calendars: Calendars): void {
  for (const { calendarId } of definition.calendars)
    if (!Object.hasOwn(calendars, calendarId)) throw new UnknownCalendar(calendarId, definition.name);
  for (const percent of definition.warnAtPercent)
    if (!(percent > 0)) throw new PercentNotPositive(percent, definition.name);
}

/** `addWorking`, or null where no calendar is in force or it finds no working time: nothing is due there. */
export function dueIn({ calendar }: InForce, t: number, ms: number): number | null {
  if (!calendar) return null;
  try {
    return calendar.addWorking(t, ms);
  } catch (error) {
    if (error instanceof NoWorkingTime) return null;
    throw error;
  }
}
