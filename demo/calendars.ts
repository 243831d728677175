import { WEEKDAYS, type CalendarSpec, type Window } from '../core/calendar';

const EVERY_DAY = WEEKDAYS;
const WEEK = WEEKDAYS.slice(0, 5);

function weekOf(days: readonly string[], ...windows: Window[]): CalendarSpec['weekly'] {
  return Object.fromEntries(days.map((day) => [day, windows]));
}

/** Christmas and New Year of the years around the demo's day; ships and terminals sail on. */
function holidays(year: number): CalendarSpec['exceptions'] {
  const dates = [year - 1, year, year + 1].flatMap((y) => [
    { date: `${y}-01-01`, name: 'New Year' },
    { date: `${y}-05-01`, name: 'Labour Day' },
    { date: `${y}-12-25`, name: 'Christmas Day' },
  ]);
  return dates.map((day) => ({ ...day, windows: [] }));
}

/** The working calendars of Solvarra Ferries, for a demo that starts in `year`. */
export function createCalendars(year: number): Record<string, CalendarSpec> {
  const closed = holidays(year);
  const [office, terminal] = [
    { from: '08:00', to: '18:00' },
    { from: '05:30', to: '23:00' },
  ];
  const of = (
    name: string,
    timeZone: string,
    hoursPerDay: number,
    weekly: CalendarSpec['weekly'],
    exceptions = closed,
  ) => ({
    name,
    timeZone,
    hoursPerDay,
    weekly,
    exceptions,
  });
  return {
    office: of('Head office', 'Europe/Lisbon', 10, weekOf(WEEK, office)),
    'office-west': of('Western offices', 'Atlantic/Azores', 10, weekOf(WEEK, office)),
    ships: of('Ships, all day', 'Europe/Lisbon', 24, weekOf(EVERY_DAY, { from: '00:00', to: '24:00' }), []),
    terminals: of('Terminals', 'Europe/Lisbon', 17.5, weekOf(EVERY_DAY, terminal), []),
    'terminals-west': of('Western terminals', 'Atlantic/Azores', 17.5, weekOf(EVERY_DAY, terminal), []),
    desk: of('Service desk', 'Europe/Lisbon', 14, weekOf(EVERY_DAY, { from: '07:00', to: '21:00' }), []),
    'supplier-link': of(
      'Sea link supplier',
      'Asia/Kolkata',
      9,
      weekOf(EVERY_DAY.slice(0, 6), { from: '09:00', to: '18:00' }),
      [],
    ),
    dockyard: of('Dockyard nights', 'Europe/Lisbon', 10, weekOf(WEEK, { from: '20:00', to: '06:00' })),
  };
}
