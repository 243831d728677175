export {
  createRights,
  isAgent,
  may,
  mayKeepPeople,
  mayKeepPrograms,
  mayKeepThings,
  mayLead,
  mayRank,
  mayReadRecords,
  maySetUp,
  readsDesk,
  TICKET_ACTIONS,
} from './rights';
export { listClosedTeams, type KeptWork } from './openness';
export type { Abilities, GuardedTicket, TeamRole, TicketAction, Viewer } from './rights';
