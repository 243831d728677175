export { createRights, isAgent, may, mayLead, mayRank, maySetUp, TICKET_ACTIONS } from './rights';
export type { Abilities, GuardedTicket, TeamRole, TicketAction, Viewer } from './rights';
