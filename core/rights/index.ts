export { createRights, isAgent, may, maySetUp, TICKET_ACTIONS } from './rights';
export type { Abilities, GuardedTicket, TeamRole, TicketAction, Viewer } from './rights';
