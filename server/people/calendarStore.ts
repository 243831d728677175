import { compileCalendar } from '../../core/calendar';
import type { Calendars } from '../../core/targets';
import type { Database } from '../database/database';

/** The compiled working calendars, compiled anew when one has changed. */
export interface CalendarStore {
  getAll(): Promise<Calendars>;
}

export function createCalendarStore(db: Database): CalendarStore {
  let compiled: Calendars = {};
  let stamp = '';

  /** Looks each time whether one changed: a clock read by an old calendar would be wrong until its next event. */
  async function refresh(): Promise<void> {
    const versions = await db.select<{ id: string; version: number }>(
      'SELECT id, version FROM calendars ORDER BY id',
    );
    const newStamp = versions.map(({ id, version }) => `${id}@${version}`).join();
    if (newStamp === stamp) return;
    const rows = await db.tables.calendars.find({});
    compiled = Object.fromEntries(rows.map(({ id, spec }) => [id, compileCalendar(spec)]));
    stamp = newStamp;
  }

  return {
    async getAll() {
      await refresh();
      return compiled;
    },
  };
}
