import type { ClockReading } from './types';

const MINUTE = 60_000;

/** Used and left as a person reads them: whole minutes that add up to the limit. Negative left is past due. */
export type ShownClock = { usedMinutes: number; leftMinutes: number; limitMinutes: number };

/**
 * Rounds one of the two and subtracts for the other, so that used plus left is exactly the limit.
 * @example showClock({ elapsed: 90_000, limit: 3_600_000 }) // used 1, left 59, limit 60
 */
export function showClock({ elapsed, limit }: Pick<ClockReading, 'elapsed' | 'limit'>): ShownClock | null {
  if (limit === null) return null;
  const limitMinutes = Math.round(limit / MINUTE);
  const usedMinutes = Math.floor(elapsed / MINUTE);
  return { usedMinutes, leftMinutes: limitMinutes - usedMinutes, limitMinutes };
}
