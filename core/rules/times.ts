import { createZoneClock } from '../calendar/zone';
import { listDays, parseRule, toDay } from '../icalendar/recur';
import type { Rule } from './types';

const DAY_MS = 86_400_000;
const DAY_MINUTES = 1_440;
/** Days looked at for one stretch; a rule that finds nothing ends with it. */
const MOST_DAYS = 200_000;
/** Without a beginning of its own a rule counts its weeks and days from here (a Thursday). */
const EPOCH = { day: 0, minute: 0 };

type Start = { day: number; minute: number };
/** A rule looked into: its days, and the minutes of each of them. */
type Times = { days: string; start: Start; minutesOf(day: number): number[]; until: number | null };

function numbers(text: string | undefined, most: number): number[] | null {
  if (text === undefined) return null;
  const values = text.split(',').map(Number);
  if (!text.split(',').every((part) => /^\d{1,2}$/.test(part)) || values.some((value) => value > most))
    throw new RangeError(text);
  return [...new Set(values)].sort((a, b) => a - b);
}

const range = (count: number): number[] => Array.from({ length: count }, (_, i) => i);
const minutesAt = (hours: number[], minutes: number[]): number[] =>
  hours.flatMap((hour) => minutes.map((minute) => hour * 60 + minute));

/** A local date and time, '20260301T090000' or a date alone. */
function readLocal(text: string): Start {
  const [, year, month, day, hour = '0', minute = '0'] =
    /^(\d{4})(\d\d)(\d\d)(?:T(\d\d)(\d\d)\d\dZ?)?$/.exec(text) ?? [];
  if (day === undefined) throw new RangeError(text);
  return { day: toDay(Number(year), Number(month), Number(day)), minute: Number(hour) * 60 + Number(minute) };
}

/**
 * Looks into a recurrence rule, with or without 'RRULE:' and with a 'DTSTART' of its own or none. Rules by the hour and
 * the minute are read as those minutes of each day; by the second they are refused.
 * @throws RangeError with the part that is wrong
 */
function read(every: string): Times {
  const lines = every.trim().split(/\s+/);
  const begin = lines.find((line) => /^DTSTART/i.test(line));
  const start = begin ? readLocal(begin.slice(begin.lastIndexOf(':') + 1)) : EPOCH;
  const rule = (lines.find((line) => !/^DTSTART/i.test(line)) ?? '').replace(/^RRULE:/i, '').toUpperCase();
  const parts = new Map(
    rule
      .split(';')
      .filter(Boolean)
      .map((part) => part.split('=', 2) as [string, string]),
  );
  const take = (name: string): string | undefined => {
    const value = parts.get(name);
    parts.delete(name);
    return value;
  };
  const hours = numbers(take('BYHOUR'), 23);
  const minutes = numbers(take('BYMINUTE'), 59);
  const seconds = numbers(take('BYSECOND'), 59);
  if (seconds?.some((second) => second > 0)) throw new RangeError('BYSECOND');
  const until = parts.get('UNTIL');
  const freq = parts.get('FREQ');
  const isWithinDay = freq === 'HOURLY' || freq === 'MINUTELY';
  const interval = Number(parts.get('INTERVAL') ?? 1);
  if (isWithinDay) {
    if (parts.has('COUNT') || parts.has('BYSETPOS') || !(interval >= 1)) throw new RangeError(freq);
    parts.set('FREQ', 'DAILY');
    parts.delete('INTERVAL');
  }
  const [startHour, startMinute] = [Math.floor(start.minute / 60), start.minute % 60];
  const ofDay = minutesAt(hours ?? [startHour], minutes ?? [startMinute]);
  if (ofDay.length > 1 && (parts.has('BYSETPOS') || parts.has('COUNT'))) throw new RangeError(rule);
  const step = freq === 'HOURLY' ? 60 : 1;
  const isOnStep = (day: number, minute: number): boolean => {
    const passed = (day - start.day) * DAY_MINUTES + minute - start.minute;
    return Math.floor(passed / step) % interval === 0;
  };
  const ofHour = freq === 'HOURLY' ? (minutes ?? [startMinute]) : (minutes ?? range(60));
  const within = minutesAt(hours ?? range(24), ofHour);
  return {
    days: [...parts].map(([name, value]) => `${name}=${value}`).join(';'),
    start,
    minutesOf: (day) => (isWithinDay ? within.filter((minute) => isOnStep(day, minute)) : ofDay),
    until: until?.includes('T') ? readUntil(until) : null,
  };
}

/** The last local minute, as minutes since 1970-01-01; one in UTC is taken by its instant elsewhere. */
const readUntil = (text: string): number => {
  const { day, minute } = readLocal(text);
  return day * DAY_MINUTES + minute;
};

/**
 * The instants of a rule by time in [from, to), rising. A local time that does not exist is read with the offset before
 * the change, one that comes twice means the first, as in calendars; a rule of another kind has none.
 * @throws RangeError with the part of the recurrence rule that is wrong
 */
export function timesOf({ trigger }: Pick<Rule, 'trigger'>, from: number, to: number): number[] {
  if (trigger.on !== 'time' || !(to > from)) return [];
  const { days, start, minutesOf, until } = read(trigger.every);
  const isUtc = /UNTIL=\d{8}T\d{6}Z/i.test(trigger.every);
  const [firstDay, lastDay] = [Math.floor(from / DAY_MS) - 2, Math.floor(to / DAY_MS) + 2];
  const clock = createZoneClock(trigger.zone, firstDay, lastDay + 1);
  const rule = parseRule(days);
  const found = new Set<number>();
  const stretch = { from: Math.max(firstDay, start.day), to: lastDay };
  for (const day of listDays(rule, start.day, stretch, { days: MOST_DAYS })) {
    for (const minute of minutesOf(day)) {
      const local = day * DAY_MINUTES + minute;
      if (local < start.day * DAY_MINUTES + start.minute) continue;
      const at = clock.toInstant(day, minute);
      if (until !== null && (isUtc ? at > until * 60_000 : local > until)) continue;
      if (at >= from && at < to) found.add(at);
    }
  }
  return [...found].sort((a, b) => a - b);
}
