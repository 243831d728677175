export { createRights, isAgent, may, TICKET_ACTIONS } from './rights';
export type { GuardedTicket, TeamRole, TicketAction, Viewer } from './rights';
