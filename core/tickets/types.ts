/** The states of a ticket. */
export const TICKET_STATES = ['received', 'inWork', 'held', 'done', 'closed', 'withdrawn'] as const;
/** Where a ticket stands. */
export type TicketState = (typeof TICKET_STATES)[number];

/** For whom or what a held ticket waits. */
export const HELD_FOR = ['requester', 'approval', 'supplier', 'date', 'ticket'] as const;
/** What a held ticket waits for. */
export type HeldFor = (typeof HELD_FOR)[number];

/** The doors by which tickets and words come. */
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

/** The states in which something is left to do. */
export const OPEN_STATES: readonly TicketState[] = ['received', 'inWork', 'held'];

/** Whether something is left to do. */
export function isOpen(state: TicketState): boolean {
  return OPEN_STATES.includes(state);
}
