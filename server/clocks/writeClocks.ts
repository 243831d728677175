import type { Transaction } from 'sequelize';
import type { Listo } from '../listo';
import type { ClockRow } from './model';

const KEY_COLUMNS = ['ticketNumber', 'work', 'targetId'] as const;
const READ_COLUMNS = [
  'edition' as const,
  ...(['state', 'startedAt', 'countedFrom', 'elapsed', 'pausedFor', 'limit', 'dueAt'] as const),
  ...(['breachedAt', 'stoppedAt', 'calendarId', 'held', 'owed', 'nextAt'] as const),
];
/** What has been given is written by those who give: it may have been given since this clock was looked up. */
const COLUMNS = [...KEY_COLUMNS, ...READ_COLUMNS, 'fired' as const];

type Value = ClockRow[keyof ClockRow];
const toStored = (value: Value): string | number | null =>
  typeof value === 'object' && value !== null ? JSON.stringify(value) : value;

/** Names a clock among those of all tickets. */
export function nameOfClock({ ticketNumber, work, targetId }: ClockRow): string {
  return `${ticketNumber} ${work} ${targetId}`;
}

/**
 * Whether a clock need not be written. Time goes on with a running one whose end is set: what is stored as used of it
 * is as of when it last changed otherwise.
 */
export function isSameClock(one: ClockRow, other: ClockRow | undefined): boolean {
  if (!other) return false;
  const isTimed = one.state === 'running' && one.dueAt !== null;
  return READ_COLUMNS.every(
    (column) =>
      (column === 'elapsed' && isTimed) ||
      one[column] === other[column] ||
      toStored(one[column]) === toStored(other[column]),
  );
}

/** Writes clocks in one statement. */
export async function writeClocks(listo: Listo, clocks: ClockRow[], tx: Transaction): Promise<void> {
  if (clocks.length === 0) return;
  const row = `(${COLUMNS.map(() => '?').join()})`;
  await listo.db.runBound(
    `INSERT INTO clocks (${COLUMNS.map((column) => `\`${column}\``).join()}) VALUES ${clocks.map(() => row).join()}
     ON DUPLICATE KEY UPDATE ${READ_COLUMNS.map((column) => `\`${column}\` = VALUES(\`${column}\`)`).join()}`,
    clocks.flatMap((clock) => COLUMNS.map((column) => toStored(clock[column]))),
    tx,
  );
}
