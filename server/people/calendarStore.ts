import { compileCalendar } from '../../core/calendar';
import type { Calendars } from '../../core/targets';
import type { Database } from '../database/database';

/** The compiled working calendars, compiled anew when one has changed. */
export interface CalendarStore {
  getAll(): Promise<Calendars>;
}

const FRESH_MS = 5_000;

export function createCalendarStore(db: Database): CalendarStore {
  let compiled: Calendars = {};
  let stamp = '';
  let readAt = -Infinity;

  async function refresh(): Promise<void> {
    const rows = await db.tables.calendars.find({}, { order: ['id'] });
    const newStamp = rows.map(({ id, version }) => `${id}@${version}`).join();
    if (newStamp !== stamp)
      compiled = Object.fromEntries(rows.map(({ id, spec }) => [id, compileCalendar(spec)]));
    stamp = newStamp;
    readAt = performance.now();
  }

  return {
    async getAll() {
      if (performance.now() - readAt > FRESH_MS) await refresh();
      return compiled;
    },
  };
}
