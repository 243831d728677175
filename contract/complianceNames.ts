/** By what figures are parted. */
export const GROUPINGS = ['team', 'service', 'priority', 'kind'] as const;
/** What counts are grouped by. */
export type Grouping = (typeof GROUPINGS)[number];
/** How a counted clock stands. */
export const STANDINGS = ['met', 'missed', 'running'] as const;
