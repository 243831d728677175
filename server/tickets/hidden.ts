import type { Viewer } from '../../core/rights';
import type { Listo } from '../listo';
import { visibleTo } from './visibility';

/**
 * Which tickets someone may not read, for lists of what happened around tickets: whoever may not read one learns nothing
 * that tells of it.
 * @param numbers those that are asked about; without them all that are confidential, or closed to them, are looked at
 */
export async function hiddenFrom(
  { db }: Listo,
  viewer: Viewer,
  numbers?: number[],
): Promise<(number: number | null) => boolean> {
  const { sql, values } = visibleTo(viewer);
  // What is not confidential is no secret to those who look after mail and chat.
  const isClosed = viewer.closedTeamIds?.length ? ' OR t.teamId IN (:closedTeamIds)' : '';
  const among = numbers ? 't.number IN (:numbers)' : `(t.isConfidential = 1${isClosed})`;
  const rows = await db.select<{ number: number }>(
    `SELECT t.number FROM tickets t WHERE ${among} AND NOT ${sql}`,
    { ...values, numbers: numbers ?? [] },
  );
  const hidden = new Set(rows.map(({ number }) => number));
  return (number) => number !== null && hidden.has(number);
}
