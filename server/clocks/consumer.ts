import type { Transaction } from 'sequelize';
import { toHistory } from '../../core/tickets';
import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import type { TimerRow } from '../timers/model';
import { listTargets } from './read';
import { noticesOf, tightestOf, toClockRow } from './settle';
import type { ClockRow } from './model';

const CLOCK_COLUMNS: (keyof ClockRow)[] = [
  'state',
  'startedAt',
  'countedFrom',
  'elapsed',
  'pausedFor',
  'limit',
  'dueAt',
  'breachedAt',
  'stoppedAt',
  'calendarId',
  'held',
  'fired',
];

function byNumber<T extends { ticketNumber: number | null }>(rows: T[]): Map<number, T[]> {
  const groups = new Map<number, T[]>();
  for (const row of rows) {
    const group = groups.get(row.ticketNumber!);
    if (group) group.push(row);
    else groups.set(row.ticketNumber!, [row]);
  }
  return groups;
}

/** Reads the clocks of some tickets anew and moves their timers. */
export async function settleClocks(listo: Listo, numbers: number[], tx: Transaction): Promise<void> {
  const { tables, select, run } = listo.db;
  const targets = await listTargets(listo);
  const calendars = await listo.calendars.getAll();
  const entries = byNumber(
    await select<Pick<JournalRow, 'ticketNumber' | 'at' | 'changes'>>(
      'SELECT ticketNumber, at, changes FROM journal WHERE ticketNumber IN (:numbers) ORDER BY id',
      { numbers },
      tx,
    ),
  );
  const known = byNumber(await tables.clocks.find({ ticketNumber: numbers } as never, { transaction: tx }));
  const now = listo.clock.now();
  const clocks: ClockRow[] = [];
  const timers: TimerRow[] = [];
  const tightest: { number: number; due: number }[] = [];
  for (const ticketNumber of numbers) {
    const history = toHistory(entries.get(ticketNumber) ?? []);
    const settled = targets.map((target) => {
      const row = toClockRow(target, calendars, history, now);
      const fired = known.get(ticketNumber)?.find(({ targetId }) => targetId === target.id)?.fired ?? [];
      const owed = noticesOf(target, calendars, row).filter(({ ref }) => !fired.includes(ref));
      timers.push(...owed.map((notice) => ({ ticketNumber, ...notice })));
      const { reading: _, readAt: __, ...stored } = row;
      return { ...stored, ticketNumber, fired };
    });
    clocks.push(...settled.filter(({ state, fired }) => state !== 'notStarted' || fired.length > 0));
    tightest.push({ number: ticketNumber, due: tightestOf(settled) });
  }
  await run(
    `UPDATE tickets t JOIN JSON_TABLE(:tightest, '$[*]' COLUMNS (number BIGINT PATH '$.number', due BIGINT PATH '$.due')) d
       ON d.number = t.number SET t.tightestDueAt = d.due`,
    { tightest: JSON.stringify(tightest) },
    tx,
  );
  await tables.clocks.insertAll(clocks, tx, { updates: CLOCK_COLUMNS });
  await tables.timers.remove({ ticketNumber: numbers, kind: ['clockLate', 'clockWarned'] }, tx);
  await tables.timers.insertAll(timers, tx);
}

/** Keeps clocks and their timers true to the journal. */
export const clocksConsumer: Consumer = {
  name: 'clocks',
  async handle(listo, entries, tx) {
    const changed = entries.filter(
      ({ ticketNumber, changes }) => ticketNumber !== null && Object.keys(changes).length > 0,
    );
    const numbers = [...new Set(changed.map(({ ticketNumber }) => ticketNumber!))];
    if (numbers.length > 0) await settleClocks(listo, numbers, tx);
  },
};
