import { createRights, may, TICKET_ACTIONS, type GuardedTicket, type Viewer } from './index';

const open: GuardedTicket = {
  requesterId: 'tomas',
  raisedById: 'lena',
  teamId: 'onboard',
  givenOnBy: ['desk'],
  isConfidential: false,
  alsoToldIds: ['sofia'],
  collaboratorIds: ['piet'],
  approverIds: ['ana'],
  stepTeamIds: ['finance'],
};
const confidential: GuardedTicket = { ...open, teamId: 'people', isConfidential: true };

function viewerOf(id: string, teamIds: string[] = [], isAdministrator = false): Viewer {
  const teams = teamIds.map((teamId) => ({ teamId, role: 'agent' as const }));
  return { id, isAdministrator, mayAskForOthers: false, teams };
}

const team = 'read readNotes answer note work giveOn mend askIn';

/** Who may do what, on an ordinary ticket and on one of a confidential team. */
test.each<[string, Viewer, string, string]>([
  ['requester', viewerOf('tomas'), 'read write own', 'read write own'],
  ['also told', viewerOf('sofia'), 'read write', 'read write'],
  ['approver', viewerOf('ana'), 'read', 'read'],
  ['collaborator', viewerOf('piet'), 'read readNotes note', 'read readNotes note'],
  ['another employee', viewerOf('joel'), '', ''],
  ['agent of the team', viewerOf('bia', ['onboard', 'people']), team, team],
  ['agent of another team who raised it', viewerOf('lena', ['network']), 'read readNotes note mend', ''],
  ['agent of a team that may give it on', viewerOf('eva', ['desk']), 'read readNotes note giveOn', ''],
  ['someone without a team who raised it', viewerOf('lena'), '', ''],
  ['agent of another team', viewerOf('rui', ['network']), 'read readNotes note', ''],
  [
    'agent of a team with a step in it',
    viewerOf('clara', ['finance']),
    'read readNotes note',
    'read readNotes note',
  ],
  ['administrator without a team', viewerOf('helder', [], true), 'read readNotes', ''],
  [
    'requester who is an agent of the team',
    viewerOf('tomas', ['onboard', 'people']),
    `${team} write own`,
    `${team} write own`,
  ],
])('%s', (_, viewer, onOpen, onConfidential) => {
  const rights = createRights(viewer);
  const granted = (ticket: GuardedTicket) =>
    TICKET_ACTIONS.filter((action) => may(rights, action, ticket)).sort();
  const wanted = (actions: string) => actions.split(' ').filter(Boolean).sort();
  expect(granted(open)).toEqual(wanted(onOpen));
  expect(granted(confidential)).toEqual(wanted(onConfidential));
});
