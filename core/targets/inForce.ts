import { NoWorkingTime, parseDuration, type CompiledCalendar } from '../calendar';
import type { Fields } from '../conditions';
import type { Choice, CompiledTarget } from './compiled';
import { PercentNotPositive, UnknownCalendar } from './errors';
import type { Calendars, TargetDefinition } from './types';

/** What a stretch is measured by: the first calendar and the first limit whose conditions hold in it. */
export type InForce = { calendarId: string | null; calendar: CompiledCalendar | null; limit: number | null };

const ROUND_THE_CLOCK_DAY = 24;
/** What has been parsed, by the hours of a day and the text. */
const parsed = new Map<number, Map<string, number>>();

function durationOf(text: string, hoursPerDay: number): number {
  let ofDay = parsed.get(hoursPerDay);
  if (!ofDay) parsed.set(hoursPerDay, (ofDay = new Map<string, number>()));
  let ms = ofDay.get(text);
  if (ms === undefined) ofDay.set(text, (ms = parseDuration(text, { hoursPerDay })));
  return ms;
}

function firstMatch<T>(choices: Choice<T>[], fields: Fields): T | null {
  for (const { test, value } of choices) if (!test || test(fields)) return value;
  return null;
}

/** The calendar and the limit (ms of working time) that some fields call for; null where none fits. */
export function getInForce(target: CompiledTarget, calendars: Calendars, fields: Fields): InForce {
  const calendarId = firstMatch(target.calendars, fields);
  const calendar = calendarId === null ? null : calendars[calendarId]!;
  const duration = firstMatch(target.limits, fields);
  const limit =
    duration === null ? null : durationOf(duration, calendar?.spec.hoursPerDay ?? ROUND_THE_CLOCK_DAY);
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
