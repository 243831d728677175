/** All priorities, the highest first. */
export const PRIORITIES = ['P1', 'P2', 'P3', 'P4'] as const;
/** How soon something is worked on; P1 first. */
export type Priority = (typeof PRIORITIES)[number];

/** How many are affected. */
export const IMPACTS = ['person', 'team', 'site', 'fleet'] as const;
/** How many something concerns. */
export type Impact = (typeof IMPACTS)[number];

/** How badly it stops them. */
export const URGENCIES = ['canWait', 'slowsWork', 'stopsWork'] as const;
/** How much it stops them. */
export type Urgency = (typeof URGENCIES)[number];

/** The priority of each impact and urgency. */
export type PriorityTable = Record<Impact, Record<Urgency, Priority>>;

/** The table a new organisation begins with; the administrator may change each cell. */
export const DEFAULT_PRIORITY_TABLE: PriorityTable = {
  person: { canWait: 'P4', slowsWork: 'P4', stopsWork: 'P3' },
  team: { canWait: 'P4', slowsWork: 'P3', stopsWork: 'P3' },
  site: { canWait: 'P3', slowsWork: 'P3', stopsWork: 'P2' },
  fleet: { canWait: 'P3', slowsWork: 'P2', stopsWork: 'P1' },
};

/** @example getPriority(DEFAULT_PRIORITY_TABLE, 'site', 'stopsWork') // 'P2' */
export function getPriority(table: PriorityTable, impact: Impact, urgency: Urgency): Priority {
  return table[impact][urgency];
}
