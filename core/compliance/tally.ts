import type { Standing } from '../targets';

/** Met and missed, of those that are judged; `share` in percent, null where none is. */
export type Tally = { met: number; missed: number; running: number; share: number | null };

/** The tally of clocks that were counted by their standing. @example toTally({ met: 2, missed: 1 }).share // 66.7, rounded where it is shown */
export function toTally(counts: Partial<Record<Standing, number>>): Tally {
  const { met = 0, missed = 0, running = 0 } = counts;
  const judged = met + missed;
  return { met, missed, running, share: judged === 0 ? null : (100 * met) / judged };
}

/** The tally of standings one by one; null: one that promised nothing. */
export function tally(standings: Iterable<Standing | null>): Tally {
  const counts = { met: 0, missed: 0, running: 0 };
  for (const standing of standings) if (standing !== null) counts[standing]++;
  return toTally(counts);
}

/** Whether what was kept is not, or the other way round. */
export function changesSides(before: Standing | null, after: Standing | null): boolean {
  return before !== after && (before === 'missed' || after === 'missed');
}
