import ICAL from 'ical.js';
import { Temporal } from 'temporal-polyfill';
import { WEEKDAYS, type CalendarSpec, type Window } from '../calendar';
import { ICalendarError, readLines, type ContentLine } from './lines';
import { listDays, parseRule, toDay, type Budget } from './recur';

type Exception = CalendarSpec['exceptions'][number];
type Day = Temporal.PlainDate;
/** A time on the wall of the calendar's zone; `isDate` for whole days. */
type Wall = { at: Temporal.PlainDateTime; isDate: boolean };

/** What a file brings: exceptions, and the week where the file says working hours (RFC 7953). */
export type Imported = {
  exceptions: Exception[];
  weekly: CalendarSpec['weekly'] | null;
  /** Events that close nothing: cancelled ones, and those that leave people free. */
  passedOver: number;
};

/** Days that the rules and the events of one file may make us look at: far more than any calendar has. */
const MOST_DAYS = 3_000_000;
const DAY = 1440;
const minutesOf = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
const timeOf = (minutes: number): string => {
  const within = minutes > DAY ? minutes - DAY : minutes;
  return `${String(Math.floor(within / 60)).padStart(2, '0')}:${String(within % 60).padStart(2, '0')}`;
};

/** The wall time that a time of the file means in the calendar's zone; floating times are meant there. */
function toWall(time: ICAL.Time, tzid: string | null, timeZone: string, line: number): Wall {
  const plain = Temporal.PlainDateTime.from({
    year: time.year,
    month: time.month,
    day: time.day,
    hour: time.hour,
    minute: time.minute,
  });
  if (time.isDate) return { at: plain, isDate: true };
  const isUtc = time.zone === ICAL.Timezone.utcTimezone;
  const from = isUtc ? 'UTC' : tzid;
  if (from === null) return { at: plain, isDate: false };
  try {
    return { at: plain.toZonedDateTime(from).withTimeZone(timeZone).toPlainDateTime(), isDate: false };
  } catch {
    throw new ICalendarError(line, 'unknownZone', from);
  }
}

/** The events of a file (or its times of availability), each with the line on which it begins. */
function listComponents(root: ICAL.Component, lines: ContentLine[], name: string) {
  const begins = lines.filter(({ text }) => text.toUpperCase() === `BEGIN:${name.toUpperCase()}`);
  const found: ICAL.Component[] = [];
  const walk = (component: ICAL.Component): void => {
    for (const child of component.getAllSubcomponents()) {
      if (child.name === name) found.push(child);
      walk(child);
    }
  };
  walk(root);
  return found.map((component, i) => ({ component, line: begins[i]?.line ?? 1 }));
}

type Span = { from: Temporal.PlainDateTime; to: Temporal.PlainDateTime; isDate: boolean };

type Range = { timeZone: string; from: Day; to: Day; budget: Budget };

const dayOf = ({ year, month, day }: { year: number; month: number; day: number }): number =>
  toDay(year, month, day);
const numberOf = (day: Day): number => dayOf(day);

/** Dates that are named one by one: RDATE, and EXDATE, by their day. */
function namedDays(component: ICAL.Component, name: string): number[] {
  return component
    .getAllProperties(name)
    .flatMap((property) => property.getValues() as unknown[])
    .flatMap((value) => {
      const time = value instanceof ICAL.Period ? value.start : value;
      return time instanceof ICAL.Time ? [dayOf(time)] : [];
    });
}

/** The days on which an event begins, as far as its occurrences may meet the years asked for. */
function listBeginnings(component: ICAL.Component, first: number, longest: number, range: Range): number[] {
  const within = { from: numberOf(range.from) - longest - 1, to: numberOf(range.to) + 1 };
  const ruled = (name: string): number[] =>
    component
      .getAllProperties(name)
      .flatMap((property) =>
        listDays(parseRule(String(property.getFirstValue())), first, within, range.budget),
      );
  const days = new Set([first, ...ruled('rrule'), ...namedDays(component, 'rdate')]);
  for (const day of [
    ...namedDays(component, 'exdate'),
    ...(component.hasProperty('exrule') ? ruled('exrule') : []),
  ])
    days.delete(day);
  return [...days].filter((day) => day >= within.from && day <= within.to).sort((a, b) => a - b);
}

const SECONDS_A_DAY = 86_400;

/** Every occurrence of an event that meets the years asked for. */
function spansOf(component: ICAL.Component, line: number, range: Range, most = Infinity): Span[] {
  const { timeZone, from, to } = range;
  const start = component.getFirstProperty('dtstart');
  if (!start) throw new ICalendarError(line, 'noStart', component.name);
  const event = new ICAL.Event(component);
  const tzid = (start.getParameter('tzid') as string | undefined) ?? null;
  const seconds = Math.max(0, event.duration.toSeconds());
  const firstTime = event.startDate;
  const spans: Span[] = [];
  let beginnings: number[];
  try {
    beginnings = listBeginnings(component, dayOf(firstTime), Math.ceil(seconds / SECONDS_A_DAY), range);
  } catch (error) {
    if (error instanceof RangeError) throw new ICalendarError(line, 'tooMuch', component.name);
    throw error;
  }
  for (const day of beginnings) {
    if (spans.length >= most) break;
    const time = firstTime.clone();
    time.adjust(day - dayOf(firstTime), 0, 0, 0);
    const { at, isDate } = toWall(time, tzid, timeZone, line);
    const end = isDate
      ? at.add({ days: Math.max(1, Math.round(seconds / SECONDS_A_DAY)) })
      : at.add({ seconds });
    const isMet =
      Temporal.PlainDate.compare(at.toPlainDate(), to) <= 0 &&
      Temporal.PlainDate.compare(end.toPlainDate(), from) >= 0;
    if (!isMet) continue;
    const span = clip({ from: at, to: end, isDate }, range);
    if ((range.budget.days -= span.from.until(span.to).total('days')) < 0)
      throw new ICalendarError(line, 'tooMuch', component.name);
    spans.push(span);
  }
  return spans;
}

/** A span as far as it lies within the years asked for, and a day beyond: an event may last two centuries. */
function clip({ from, to, isDate }: Span, range: Range): Span {
  const least = range.from.subtract({ days: 1 }).toPlainDateTime();
  const most = range.to.add({ days: 2 }).toPlainDateTime();
  return {
    from: Temporal.PlainDateTime.compare(from, least) < 0 ? least : from,
    to: Temporal.PlainDateTime.compare(to, most) > 0 ? most : to,
    isDate,
  };
}

function daysOf({ from, to }: Span): Day[] {
  const days: Day[] = [];
  const last = to.subtract({ minutes: 1 }).toPlainDate();
  for (let day = from.toPlainDate(); Temporal.PlainDate.compare(day, last) <= 0; day = day.add({ days: 1 }))
    days.push(day);
  return days;
}

/**
 * A date's windows without a stretch, in minutes from its midnight. What is left of a night shift after the next
 * midnight belongs to the next date.
 */
function cut(windows: Window[], from: number, to: number): { kept: Window[]; nextDay: Window[] } {
  const parts = windows.flatMap((window) => {
    const start = minutesOf(window.from);
    const end = minutesOf(window.to) > start ? minutesOf(window.to) : minutesOf(window.to) + DAY;
    return [
      { from: start, to: Math.min(end, from) },
      { from: Math.max(start, to), to: end },
    ].filter((part) => part.to > part.from);
  });
  const toWindow = (part: { from: number; to: number }, midnight: number): Window => ({
    from: timeOf(part.from - midnight),
    to: timeOf(part.to - midnight),
  });
  return {
    kept: parts.filter((part) => part.from < DAY).map((part) => toWindow(part, 0)),
    nextDay: parts.filter((part) => part.from >= DAY).map((part) => toWindow(part, DAY)),
  };
}

/** The changed dates of a calendar, as an import finds them. */
class Dates {
  private readonly changed = new Map<string, Exception>();

  constructor(private readonly spec: CalendarSpec) {}

  windowsOn(day: Day): Window[] {
    const date = day.toString();
    const exception = this.changed.get(date) ?? this.spec.exceptions.find((each) => each.date === date);
    return exception?.windows ?? this.spec.weekly[WEEKDAYS[day.dayOfWeek - 1]!] ?? [];
  }

  set(day: Day, name: string, windows: Window[]): void {
    const date = day.toString();
    const known = this.changed.get(date)?.name;
    const names = known && known !== name ? `${known}, ${name}` : name;
    this.changed.set(date, { date, ...(names && { name: names.slice(0, 120) }), windows });
  }

  list(): Exception[] {
    return [...this.changed.values()].sort((a, b) => (a.date < b.date ? -1 : 1));
  }
}

function close(dates: Dates, span: Span, name: string): void {
  if (span.isDate) {
    for (const day of daysOf(span)) dates.set(day, name, []);
    return;
  }
  // The day before counts too: its night shift may reach into the event.
  const days = daysOf(span);
  for (const day of [days[0]!.subtract({ days: 1 }), ...days]) {
    const midnight = day.toPlainDateTime();
    const minutes = (at: Temporal.PlainDateTime): number => midnight.until(at).total('minutes');
    const before = dates.windowsOn(day);
    const { kept, nextDay } = cut(before, minutes(span.from), minutes(span.to));
    if (JSON.stringify(kept) !== JSON.stringify(before)) dates.set(day, name, kept);
    const next = day.add({ days: 1 });
    if (nextDay.length > 0) dates.set(next, name, [...nextDay, ...dates.windowsOn(next)]);
  }
}

function windowOf({ from, to }: Span): Window {
  const time = (at: Temporal.PlainDateTime): string => at.toPlainTime().toString({ smallestUnit: 'minute' });
  const isMidnight = time(to) === '00:00';
  return { from: time(from), to: isMidnight ? '24:00' : time(to) };
}

/** Working hours as RFC 7953 writes them: AVAILABLE that recurs weekly is the week, one that does not is a date's. */
function readAvailability(
  root: ICAL.Component,
  lines: ContentLine[],
  dates: Dates,
  range: Range,
): CalendarSpec['weekly'] | null {
  const available = listComponents(root, lines, 'available');
  if (available.length === 0) return null;
  const weekly: CalendarSpec['weekly'] = {};
  const single = new Map<string, { name: string; windows: Window[] }>();
  for (const { component, line } of available) {
    const rule = component.getFirstPropertyValue('rrule') as ICAL.Recur | null;
    // The first occurrence says the hours; a weekly rule lies at the beginning of time.
    const [first] = spansOf(component, line, { ...range, from: Temporal.PlainDate.from('1900-01-01') }, 1);
    if (!first) continue;
    if (rule?.freq === 'WEEKLY') {
      const named = (rule.parts.BYDAY ?? []).map((day) =>
        ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'].indexOf(day.slice(-2)),
      );
      for (const day of named.length > 0 ? named : [first.from.dayOfWeek - 1])
        (weekly[WEEKDAYS[day]!] ??= []).push(windowOf(first));
    } else
      for (const span of spansOf(component, line, range)) {
        const date = span.from.toPlainDate().toString();
        const name = String(component.getFirstPropertyValue('summary') ?? '');
        const known = single.get(date) ?? { name, windows: [] };
        known.windows.push(windowOf(span));
        single.set(date, known);
      }
  }
  for (const windows of Object.values(weekly)) windows.sort((a, b) => (a.from < b.from ? -1 : 1));
  for (const [date, { name, windows }] of single) dates.set(Temporal.PlainDate.from(date), name, windows);
  return weekly;
}

/**
 * Reads an iCalendar file (RFC 5545) as what it means for a working calendar: an event of whole days closes them, one
 * with hours takes those hours out, and AVAILABLE (RFC 7953) says working hours. Only what meets [from, to] is taken.
 * @param spec the calendar it is meant for; its zone is where floating times are
 * @throws ICalendarError with the line, and nothing is taken
 */
export function fromICalendar(
  text: string,
  spec: CalendarSpec,
  { from, to }: { from: string; to: string },
): Imported {
  const lines = readLines(text);
  const root = new ICAL.Component(ICAL.parse(lines.map((line) => line.text).join('\r\n')) as unknown[]);
  const range = {
    timeZone: spec.timeZone,
    from: Temporal.PlainDate.from(from),
    to: Temporal.PlainDate.from(to),
    budget: { days: MOST_DAYS },
  };
  const dates = new Dates(spec);
  const weekly = readAvailability(root, lines, dates, range);
  let passedOver = 0;
  for (const { component, line } of listComponents(root, lines, 'vevent')) {
    const isCancelled = component.getFirstPropertyValue('status') === 'CANCELLED';
    const isFree = component.getFirstPropertyValue('transp') === 'TRANSPARENT';
    const spans = spansOf(component, line, range);
    const closing = isCancelled ? [] : spans.filter(({ isDate }) => isDate || !isFree);
    if (closing.length === 0) passedOver++;
    const name = String(component.getFirstPropertyValue('summary') ?? '');
    for (const span of closing) close(dates, span, name);
  }
  return { exceptions: dates.list(), weekly, passedOver };
}
