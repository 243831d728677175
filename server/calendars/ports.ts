import type { CalendarSpec } from '../../core/calendar';
import type { UnitOfWork } from '../unitOfWork';

/** What the floors above do when calendars change, in the same transaction. */
export type CalendarPorts = {
  changed(work: UnitOfWork, calendar: { id: string; spec: CalendarSpec }): Promise<void>;
};
