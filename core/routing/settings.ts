import { type TicketKind } from '../tickets';
import { getOwn } from '../records';
import { ROUTING_WAYS, type Need, type RoutingWay } from './route';

/** How a team routes. */
export type RoutingSettings = {
  way: RoutingWay;
  /** Units that a piece of work weighs, by kind. */
  units: { incident: number; request: number };
  /** What a service asks of whoever gets its tickets. */
  needs: { serviceId: string; skill: string; level: number }[];
  /** In working minutes: what nobody has taken by then goes to the next line. Null: it stays. */
  goesOnAfter: number | null;
  next: { teamId: string; groupId: string | null } | null;
};

/** The settings of a team whose work is given by hand. */
export const ROUTED_BY_HAND: RoutingSettings = {
  way: 'byHand',
  units: { incident: 1, request: 1 },
  needs: [],
  goesOnAfter: null,
  next: null,
};

/** The highest level of a skill. */
export const MOST_LEVEL = 3;

/** What work of a kind on a service takes: units of someone's load, and skills with their least levels. */
export function needOf(
  { units, needs }: RoutingSettings,
  ticket: { kind: TicketKind; serviceId: string },
): Need {
  return {
    units: units[ticket.kind === 'incident' ? 'incident' : 'request'],
    skills: needs
      .filter(({ serviceId }) => serviceId === ticket.serviceId)
      .map(({ skill, level }) => ({ skill, level })),
  };
}

/** What is wrong with a team's routing, and where. */
export type RoutingProblem = {
  code: 'nowhereToGo' | 'goesToItself' | 'notPossible' | 'nobodyHasSkill';
  field: string;
};

/** What is wrong with a team's routing, given where it is and what its people can. */
export function checkRouting(
  { way, units, needs, goesOnAfter, next }: RoutingSettings,
  team: { id: string; skills: Record<string, number>[] },
): RoutingProblem[] {
  const problems: RoutingProblem[] = [];
  if (!ROUTING_WAYS.includes(way) || units.incident <= 0 || units.request <= 0)
    problems.push({ code: 'notPossible', field: 'units' });
  if (goesOnAfter !== null && goesOnAfter <= 0) problems.push({ code: 'notPossible', field: 'goesOnAfter' });
  if (goesOnAfter !== null && next === null) problems.push({ code: 'nowhereToGo', field: 'next' });
  if (next && next.teamId === team.id && next.groupId === null)
    problems.push({ code: 'goesToItself', field: 'next' });
  for (const { skill, level } of needs)
    if (!team.skills.some((skills) => (getOwn(skills, skill) ?? 0) >= level))
      problems.push({ code: 'nobodyHasSkill', field: `needs.${skill}` });
  return problems;
}
