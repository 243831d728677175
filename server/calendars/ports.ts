import type { Transaction } from 'sequelize';
import type { CalendarSpec } from '../../core/calendar';
import type { Listo } from '../listo';

/** What the floors above do when calendars change, in the same transaction. */
export type CalendarPorts = {
  changed(listo: Listo, tx: Transaction, calendar: { id: string; spec: CalendarSpec }): Promise<void>;
};
