export const TICKET_STATES = ['received', 'inWork', 'held', 'done', 'closed', 'withdrawn'] as const;
export type TicketState = (typeof TICKET_STATES)[number];

/** For whom or what a held ticket waits. */
export const HELD_FOR = ['requester', 'approval', 'supplier', 'date', 'ticket'] as const;
export type HeldFor = (typeof HELD_FOR)[number];

export const DOORS = [
  'portal',
  'room',
  'directMessage',
  'liveChat',
  'mail',
  'phone',
  'inPerson',
  'program',
  'table',
  'desk',
] as const;
/** Through which door a ticket or an act came. */
export type Door = (typeof DOORS)[number];

export const OPEN_STATES: readonly TicketState[] = ['received', 'inWork', 'held'];

export function isOpen(state: TicketState): boolean {
  return OPEN_STATES.includes(state);
}
