import type { Transaction } from 'sequelize';
import { compileCalendar } from '../../core/calendar';
import type { Calendars } from '../../core/targets';
import type { Database } from '../database/database';

/** The compiled working calendars, compiled anew when one has changed. */
export interface CalendarStore {
  /** Within a transaction its connection is used: whoever holds one should not wait for another. */
  getAll(tx?: Transaction): Promise<Calendars>;
}

export function createCalendarStore(db: Database): CalendarStore {
  let compiled: Calendars = {};
  let stamp = '';

  /** Looks each time whether one changed: a clock read by an old calendar would be wrong until its next event. */
  async function refresh(tx?: Transaction): Promise<void> {
    const versions = await db.select<{ id: string; version: number }>(
      'SELECT id, version FROM calendars ORDER BY id',
      {},
      tx,
    );
    const newStamp = versions.map(({ id, version }) => `${id}@${version}`).join();
    if (newStamp === stamp) return;
    const rows = await db.tables.calendars.find({}, tx ? { transaction: tx } : {});
    compiled = Object.fromEntries(rows.map(({ id, spec }) => [id, compileCalendar(spec)]));
    stamp = newStamp;
  }

  return {
    async getAll(tx) {
      await refresh(tx);
      return compiled;
    },
  };
}
