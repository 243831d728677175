import { NoWorkingTime, parseDuration, type WorkingCalendar } from '../calendar';
import type { CalendarSpec } from '../calendar';
import { inOrder, mayHear } from './order';
import type { Happening, Rule, Trigger } from './types';

/** Calendars by id. */
export type RuleCalendars = Record<string, WorkingCalendar & { spec: CalendarSpec }>;
/** A silence that a rule waits for, or that is due: since which entry, and when. */
export type DueSilence = { ruleId: string; since: string; dueAt: number };
type SilenceTrigger = Extract<Trigger, { on: 'silence' }>;

/** A day of wall time. */
const WALL = { hoursPerDay: 24 };

/** When a silence is due that began then; null where its calendar is gone or never works again. */
export function dueAtOf(
  { after, calendar: calendarId }: SilenceTrigger,
  since: number,
  calendars: RuleCalendars,
): number | null {
  if (calendarId === null) return since + parseDuration(after, WALL);
  const calendar = Object.hasOwn(calendars, calendarId) ? calendars[calendarId]! : null;
  if (!calendar) return null;
  try {
    return calendar.addWorking(since, parseDuration(after, calendar.spec));
  } catch (error) {
    if (error instanceof NoWorkingTime) return null;
    throw error;
  }
}

/**
 * The silences that hold as of now, also where they are due later: the latest happening of a kind, and nothing of what
 * would break it until it is due. What has fired is not given again. By instant, then by the order of rules.
 */
export function silences(
  rules: Rule[],
  history: Happening[],
  calendars: RuleCalendars,
  now: number,
  fired: { ruleId: string; since: string }[],
): DueSilence[] {
  const past = history.filter(({ at }) => at <= now);
  const found: { rule: Rule; due: DueSilence }[] = [];
  for (const rule of rules) {
    const { trigger } = rule;
    if (!rule.isOn || trigger.on !== 'silence') continue;
    const since = past
      .filter(({ kind }) => kind === trigger.since)
      .reduce<Happening | null>((latest, each) => (latest && latest.at > each.at ? latest : each), null);
    if (!since || !mayHear(rule, since)) continue;
    if (fired.some((each) => each.ruleId === rule.id && each.since === since.entryId)) continue;
    const dueAt = dueAtOf(trigger, since.at, calendars);
    if (dueAt === null) continue;
    const isBroken = past.some(
      ({ kind, at }) => trigger.unless.includes(kind) && at > since.at && at <= dueAt,
    );
    if (!isBroken) found.push({ rule, due: { ruleId: rule.id, since: since.entryId, dueAt } });
  }
  return found.sort((a, b) => a.due.dueAt - b.due.dueAt || inOrder(a.rule, b.rule)).map(({ due }) => due);
}
