export { createRights, isAgent, may, maySetUp, TICKET_ACTIONS } from './rights';
export type { GuardedTicket, TeamRole, TicketAction, Viewer } from './rights';
