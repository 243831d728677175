/** Entries of a ticket's journal that stand on its thread and in its history. */
export const ENTRY_EVENTS_SHOWN = [
  ...([
    'sent',
    'taken',
    'answered',
    'noted',
    'held',
    'resumed',
    'givenOn',
    'done',
    'confirmed',
    'reopened',
  ] as const),
  ...([
    'closed',
    'withdrawn',
    'decided',
    'granted',
    'declined',
    'changed',
    'followed',
    'unfollowed',
    'warned',
    'late',
  ] as const),
] as const;
