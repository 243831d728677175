import ICAL from 'ical.js';

/** Something of the calendar of work, as it goes out. Instants in ms since 1970. */
export type FeedEvent = {
  /** The same each time, so that a calendar that subscribes knows it again. */
  uid: string;
  summary: string;
  description: string;
  fromAt: number;
  toAt: number;
  /** Raised whenever something of it is otherwise. */
  sequence: number;
  isTentative: boolean;
  url: string;
};

const toUtc = (at: number): ICAL.Time =>
  ICAL.Time.fromDateTimeString(`${new Date(Math.floor(at / 1000) * 1000).toISOString().slice(0, 19)}Z`);

/**
 * The calendar of work as iCalendar (RFC 5545): an event each, in UTC, so that it needs no zones.
 * @param madeAt ms since 1970
 */
export function toFeed(name: string, events: readonly FeedEvent[], madeAt: number): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.addPropertyWithValue('version', '2.0');
  calendar.addPropertyWithValue('prodid', '-//Listo//Calendar of work//EN');
  calendar.addPropertyWithValue('method', 'PUBLISH');
  calendar.addPropertyWithValue('name', name);
  calendar.addPropertyWithValue('refresh-interval', ICAL.Duration.fromString('PT15M'));
  for (const { uid, summary, description, fromAt, toAt, sequence, isTentative, url } of events) {
    const event = new ICAL.Component('vevent');
    event.addPropertyWithValue('uid', uid);
    event.addPropertyWithValue('dtstamp', toUtc(madeAt));
    event.addPropertyWithValue('dtstart', toUtc(fromAt));
    event.addPropertyWithValue('dtend', toUtc(toAt));
    event.addPropertyWithValue('sequence', sequence);
    event.addPropertyWithValue('summary', summary);
    if (description !== '') event.addPropertyWithValue('description', description);
    event.addPropertyWithValue('status', isTentative ? 'TENTATIVE' : 'CONFIRMED');
    event.addPropertyWithValue('transp', 'TRANSPARENT');
    if (url !== '') event.addPropertyWithValue('url', url);
    calendar.addSubcomponent(event);
  }
  return `${calendar.toString()}\r\n`;
}
