import { AbilityBuilder, createMongoAbility, subject, type MongoAbility } from '@casl/ability';

/** What someone is in a team. */
export type TeamRole = 'agent' | 'lead' | 'teamAdministrator';

/** Who someone is, as far as rights go. */
export type Viewer = {
  id: string;
  isAdministrator: boolean;
  mayAskForOthers: boolean;
  teams: { teamId: string; role: TeamRole }[];
  /** Teams that keep their work from this viewer by their own choice (`listClosedTeams`); absent: none. */
  closedTeamIds?: readonly string[];
};

/** What rights on a ticket rest on. */
export type GuardedTicket = {
  requesterId: string;
  /** Who raised it for the requester; null where they asked themselves. */
  raisedById: string | null;
  teamId: string;
  /** Teams whose agents may give on what lies with the ticket's team, as that team has set. */
  givenOnBy: string[];
  isConfidential: boolean;
  alsoToldIds: string[];
  collaboratorIds: string[];
  approverIds: string[];
  /** The teams whose turn it has been in the ticket's plan. */
  stepTeamIds: string[];
};

/**
 * read: the ticket as its requester reads it. readNotes: the team's side of it too. write: words and files on the
 * requester's side. answer: words to the requester. note: words to the team. work: moves and facts of the team.
 * giveOn: to another team or person. mend: what it is about: title, place, impact and urgency, answers. own: confirm,
 * reopen, withdraw, share. askIn: bring a collaborator in.
 */
export const TICKET_ACTIONS = [
  'read',
  'readNotes',
  'write',
  'answer',
  'note',
  'work',
  'giveOn',
  'mend',
  'own',
  'askIn',
] as const;
/** Something that one may do with a ticket. */
export type TicketAction = (typeof TICKET_ACTIONS)[number];

/** What someone may do, as the rights library asks it. */
export type Abilities = MongoAbility<
  [TicketAction, 'Ticket' | (GuardedTicket & { readonly __caslSubjectType__?: 'Ticket' })]
>;

/** The rights of one person on tickets: the only place that says so, beside its reading in SQL for lists. */
export function createRights(viewer: Viewer): Abilities {
  const { can, build } = new AbilityBuilder<Abilities>(createMongoAbility);
  const teamIds = viewer.teams.map(({ teamId }) => teamId);

  can(['read', 'write', 'own'], 'Ticket', { requesterId: viewer.id });
  can(['read', 'write'], 'Ticket', { alsoToldIds: viewer.id });
  can('read', 'Ticket', { approverIds: viewer.id });
  can(['read', 'readNotes', 'note'], 'Ticket', { collaboratorIds: viewer.id });
  const open = { isConfidential: false, teamId: { $nin: [...(viewer.closedTeamIds ?? [])] } };
  // Who sets up sees what it does.
  if (readsDesk(viewer)) can(['read', 'readNotes'], 'Ticket', open);
  if (teamIds.length > 0) {
    can('note', 'Ticket', open);
    can(['read', 'readNotes', 'note'], 'Ticket', { stepTeamIds: { $in: teamIds } });
    // Who took the call knows what was said, whichever team it lies with by now.
    can('mend', 'Ticket', { raisedById: viewer.id, ...open });
    can('giveOn', 'Ticket', { givenOnBy: { $in: teamIds }, isConfidential: false });
    can(
      [...TICKET_ACTIONS].filter((action) => action !== 'own' && action !== 'write'),
      'Ticket',
      {
        teamId: { $in: teamIds },
      },
    );
  }
  return build();
}

/** @example may(createRights(tomas), 'note', ticket) // false: notes are the team's */
export function may(rights: Abilities, action: TicketAction, ticket: GuardedTicket): boolean {
  return rights.can(action, subject('Ticket', { ...ticket }));
}

/**
 * Whether someone may set up what concerns a team (its hours, promises, services), or with null what concerns all.
 */
export function maySetUp({ isAdministrator, teams }: Viewer, teamId: string | null): boolean {
  return isAdministrator || teams.some((team) => team.teamId === teamId && team.role === 'teamAdministrator');
}

/** Whether someone keeps the people of the organisation: makes them, changes them, lets them in. */
export const mayKeepPeople = ({ isAdministrator }: Viewer): boolean => isAdministrator;

/** Whether someone reads the record of all that was done. */
export const mayReadRecords = ({ isAdministrator }: Viewer): boolean => isAdministrator;

/** Whether someone lets other programs in: makes their accounts and keys, and says what they are told. */
export const mayKeepPrograms = ({ isAdministrator }: Viewer): boolean => isAdministrator;

/**
 * Whether someone keeps things: makes them, changes them, hands them over.
 * @param keptBy the teams that keep things of the kind; none: every team
 */
export const mayKeepThings = ({ isAdministrator, teams }: Viewer, keptBy: readonly string[]): boolean =>
  isAdministrator ||
  (keptBy.length === 0 ? teams.length > 0 : teams.some(({ teamId }) => keptBy.includes(teamId)));

/** Whether someone leads a team, or sets it up. */
export function mayLead({ isAdministrator, teams }: Viewer, teamId: string | null): boolean {
  return isAdministrator || teams.some((team) => team.teamId === teamId && team.role !== 'agent');
}

/** Whether someone puts the large requests of a team in order: its leads do. */
export function mayRank({ isAdministrator, teams }: Viewer, teamId: string | null): boolean {
  return isAdministrator || teams.some((team) => team.teamId === teamId && team.role === 'lead');
}

/**
 * Whether someone sees the Desk, what is known and the measures: agents, who work there, and administrators as readers.
 * What is in confidence stays closed to those who are not in its team.
 */
export function readsDesk(viewer: Viewer): boolean {
  return isAgent(viewer) || viewer.isAdministrator;
}

/** Whether someone works in a team. */
export function isAgent(viewer: Viewer): boolean {
  return viewer.teams.length > 0;
}
