import type { ClockReading } from '../targets';

/** How a clock stands to its promise. One that is past due while it runs has missed it already. */
export type Standing = 'met' | 'missed' | 'running';

/** Met and missed, of those that are judged; `share` in percent, null where none is. */
export type Tally = { met: number; missed: number; running: number; share: number | null };

type Read = Pick<ClockReading, 'state' | 'breachedAt'>;

/** How a clock stands; null where it never began, or was called off: it promised nothing. */
export function standingOf({ state, breachedAt }: Read): Standing | null {
  if (state === 'notStarted' || state === 'cancelled') return null;
  if (state === 'met') return 'met';
  return state === 'missed' || breachedAt !== null ? 'missed' : 'running';
}

/** @example tally(['met', 'met', 'missed', 'running']).share // 66.7, rounded where it is shown */
export function tally(standings: Iterable<Standing | null>): Tally {
  const counts = { met: 0, missed: 0, running: 0 };
  for (const standing of standings) if (standing !== null) counts[standing]++;
  const judged = counts.met + counts.missed;
  return { ...counts, share: judged === 0 ? null : (100 * counts.met) / judged };
}

/** Whether what was kept is not, or the other way round. */
export function changesSides(before: Standing | null, after: Standing | null): boolean {
  return before !== after && (before === 'missed' || after === 'missed');
}
