export { fromICalendar, type Imported } from './fromICalendar';
export { ICalendarError, type ICalendarFault } from './lines';
export { toICalendar } from './toICalendar';
