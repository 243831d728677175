import type { Condition } from '../conditions';
import type { GivenName } from '../worklist';

/** How a team stands: each number is the count of a worklist, narrowed to the team and to what else holds. */
export const TEAM_NUMBER_NAMES = ['open', 'unassigned', 'held', 'dueToday', 'late'] as const;
/** A number on a team's first page. */
export type TeamNumber = (typeof TEAM_NUMBER_NAMES)[number];

const HELD: Condition = { field: 'state', op: 'is', value: 'held' };
const NUMBERS: Record<TeamNumber, { list: GivenName; also: Condition[] }> = {
  open: { list: 'teams', also: [] },
  unassigned: { list: 'unassigned', also: [] },
  held: { list: 'teams', also: [HELD] },
  dueToday: { list: 'teams', also: [{ field: 'isDueToday', op: 'is', value: true }] },
  late: { list: 'teams', also: [{ field: 'isLate', op: 'is', value: true }] },
};

/**
 * The worklist behind a number of some teams, with the condition that narrows it. What counts the number and what opens
 * the list both ask here, so that they agree.
 * @example listBehind('late', ['onboard']) // { list: 'teams', where: { all: [ … ] } }
 */
export function listBehind(name: TeamNumber, teamIds: string[]): { list: GivenName; where: Condition } {
  const { list, also } = NUMBERS[name];
  return { list, where: { all: [{ field: 'teamId', op: 'in', value: teamIds }, ...also] } };
}
