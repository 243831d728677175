/** By what figures are parted. */
export const GROUPINGS = ['team', 'service', 'priority', 'kind'] as const;
export type Grouping = (typeof GROUPINGS)[number];
export const STANDINGS = ['met', 'missed', 'running'] as const;
