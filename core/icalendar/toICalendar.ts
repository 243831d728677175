import ICAL from 'ical.js';
import { Temporal } from 'temporal-polyfill';
import { tzlib_get_ical_block } from 'timezones-ical-library';
import { WEEKDAYS, type CalendarSpec, type Window } from '../calendar';

/** A Monday before any calendar's first exception, for rules that have no beginning. */
const FIRST_MONDAY = Temporal.PlainDate.from('1970-01-05');
const BY_DAY = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

function timeOn(day: Temporal.PlainDate, time: string): string {
  const [hour, minute] = time.split(':').map(Number) as [number, number];
  return day.toPlainDateTime().add({ hours: hour, minutes: minute }).toString({ smallestUnit: 'second' });
}

function addTime(component: ICAL.Component, name: string, value: string, timeZone: string): void {
  const property = new ICAL.Property(name, component);
  property.setValue(ICAL.Time.fromDateTimeString(value, property));
  property.setParameter('tzid', timeZone);
  component.addProperty(property);
}

function stamp(component: ICAL.Component, uid: string, madeAt: number): void {
  component.addPropertyWithValue('uid', uid);
  const at = Temporal.Instant.fromEpochMilliseconds(madeAt).toString({ smallestUnit: 'second' });
  component.addPropertyWithValue(
    'dtstamp',
    ICAL.Time.fromDateTimeString(at.replace(/\+00:00$/, 'Z'), undefined),
  );
}

function toAvailable(
  spec: CalendarSpec,
  { day, window, uid, madeAt }: { day: Temporal.PlainDate; window: Window; uid: string; madeAt: number },
): ICAL.Component {
  const available = new ICAL.Component('available');
  stamp(available, uid, madeAt);
  const endDay = window.to !== '24:00' && window.to < window.from ? day.add({ days: 1 }) : day;
  addTime(available, 'dtstart', timeOn(day, window.from), spec.timeZone);
  addTime(available, 'dtend', timeOn(endDay, window.to), spec.timeZone);
  return available;
}

/** The week: a weekly AVAILABLE for each window, without the dates that are exceptions. */
function weekOf(spec: CalendarSpec, madeAt: number): ICAL.Component[] {
  const days = WEEKDAYS.flatMap((day, i) => (spec.weekly[day] ?? []).map((window) => ({ i, window })));
  return days.map(({ i, window }, n) => {
    const available = toAvailable(spec, {
      ...{ day: FIRST_MONDAY.add({ days: i }), window, uid: `week-${n}@listo`, madeAt },
    });
    available.addPropertyWithValue('rrule', ICAL.Recur.fromString(`FREQ=WEEKLY;BYDAY=${BY_DAY[i]!}`));
    const gone = spec.exceptions.filter(({ date }) => Temporal.PlainDate.from(date).dayOfWeek === i + 1);
    for (const { date } of gone)
      addTime(available, 'exdate', timeOn(Temporal.PlainDate.from(date), window.from), spec.timeZone);
    return available;
  });
}

function closedDay(date: string, name: string | undefined, madeAt: number): ICAL.Component {
  const event = new ICAL.Component('vevent');
  stamp(event, `closed-${date}@listo`, madeAt);
  event.addPropertyWithValue('dtstart', ICAL.Time.fromDateString(date));
  event.addPropertyWithValue('summary', name ?? 'Closed');
  event.addPropertyWithValue('transp', 'TRANSPARENT');
  return event;
}

/**
 * A working calendar as an iCalendar file (RFC 5545): its hours as availability (RFC 7953), closed dates as events of
 * whole days. Reading it back gives the same working time.
 */
export function toICalendar(spec: CalendarSpec, madeAt: number): string {
  const root = new ICAL.Component('vcalendar');
  root.addPropertyWithValue('version', '2.0');
  root.addPropertyWithValue('prodid', '-//Listo//Working calendar//EN');
  const [zone] = [tzlib_get_ical_block(spec.timeZone)].flat();
  if (typeof zone === 'string' && zone.startsWith('BEGIN:VTIMEZONE'))
    root.addSubcomponent(new ICAL.Component(ICAL.parse(zone) as unknown[]));
  const availability = new ICAL.Component('vavailability');
  stamp(availability, 'hours@listo', madeAt);
  availability.addPropertyWithValue('summary', spec.name);
  for (const available of weekOf(spec, madeAt)) availability.addSubcomponent(available);
  for (const { date, name, windows } of spec.exceptions)
    windows.forEach((window, n) => {
      const day = Temporal.PlainDate.from(date);
      const available = toAvailable(spec, { day, window, uid: `open-${date}-${n}@listo`, madeAt });
      if (name) available.addPropertyWithValue('summary', name);
      availability.addSubcomponent(available);
    });
  root.addSubcomponent(availability);
  for (const { date, name, windows } of spec.exceptions)
    if (windows.length === 0) root.addSubcomponent(closedDay(date, name, madeAt));
  return `${root.toString()}\r\n`;
}
