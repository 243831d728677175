import type { LocalText } from '../forms';
import type { Priority } from '../tickets';

/** What becomes of a team's work while the team is off: it waits, or goes to a team that is on duty. */
export type OutOfHours = {
  /** null: it waits. */
  goesTo: string | null;
  /** Which priorities go; the others wait. */
  priorities: Priority[];
  /** What the requester reads, with the blank {opens}; null: nothing. */
  words: LocalText | null;
};

/** The rule of a team whose work waits until it is back. */
export const WAITS: OutOfHours = { goesTo: null, priorities: [], words: null };

type Teams = { isWorking(teamId: string): boolean };

/**
 * What happens to work of a team at an instant. It never goes to a team that is off too, nor on from there.
 * @example planOutOfHours(rule, { teamId: 'onboard', priority: 'P1' }, { isWorking: (id) => id === 'desk' })
 *   // { goTo: 'desk', isTold: true }
 */
export function planOutOfHours(
  rule: OutOfHours,
  work: { teamId: string; priority: Priority },
  teams: Teams,
): { goTo: string | null; isTold: boolean } {
  if (teams.isWorking(work.teamId)) return { goTo: null, isTold: false };
  const { goesTo, priorities, words } = rule;
  const isGoing =
    goesTo !== null &&
    goesTo !== work.teamId &&
    priorities.includes(work.priority) &&
    teams.isWorking(goesTo);
  return { goTo: isGoing ? goesTo : null, isTold: words !== null };
}
