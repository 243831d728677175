import * as fc from 'fast-check';
import { createRights, listClosedTeams, may, type GuardedTicket, type KeptWork, type Viewer } from './index';

const TEAMS = ['desk', 'network', 'finance', 'stores'];
const agent = (...teamIds: string[]): Viewer => ({
  ...{ id: 'bia', isAdministrator: false, mayAskForOthers: false },
  teams: teamIds.map((teamId) => ({ teamId, role: 'agent' })),
});
const FINANCE: KeptWork = { teamId: 'finance', readBy: ['desk'], givenOnBy: ['stores'] };

test('a team that names others is closed to all but those, those who may take, and its own', () => {
  expect(TEAMS.filter((id) => listClosedTeams([FINANCE], agent(id)).length > 0)).toEqual(['network']);
  expect(listClosedTeams([FINANCE], agent('network', 'desk'))).toEqual([]);
});

test('whoever sets up reads it; so does everybody where every team may take it', () => {
  expect(listClosedTeams([FINANCE], { ...agent(), isAdministrator: true })).toEqual([]);
  expect(listClosedTeams([{ ...FINANCE, givenOnBy: null }], agent('network'))).toEqual([]);
});

const ticket = (more: Partial<GuardedTicket>): GuardedTicket => ({
  ...{ requesterId: 'tomas', raisedById: null, teamId: 'finance', givenOnBy: [], isConfidential: false },
  ...{ alsoToldIds: [], collaboratorIds: [], approverIds: [], stepTeamIds: [], ...more },
});

test('what is closed opens to whoever is part of the ticket, and to nobody else', () => {
  const rights = createRights({ ...agent('network'), closedTeamIds: ['finance'] });
  for (const action of ['read', 'readNotes', 'note', 'mend'] as const)
    expect(may(rights, action, ticket({ raisedById: 'bia' }))).toBe(false);
  expect(may(rights, 'note', ticket({ collaboratorIds: ['bia'] }))).toBe(true);
  expect(may(rights, 'read', ticket({ requesterId: 'bia' }))).toBe(true);
  expect(may(rights, 'readNotes', ticket({ stepTeamIds: ['network'] }))).toBe(true);
  expect(may(rights, 'note', ticket({ teamId: 'stores' }))).toBe(true);
});

/** Law: whoever may give a ticket on may read it, and a list that grows never closes a team to anyone. */
test('taking never goes without reading', () => {
  const some = fc.subarray(TEAMS);
  fc.assert(
    fc.property(some, some, fc.option(some), some, (mine, readBy, givenOnBy, more) => {
      const kept: KeptWork = { teamId: 'finance', readBy, givenOnBy };
      const closedTeamIds = listClosedTeams([kept], agent(...mine));
      const rights = createRights({ ...agent(...mine), closedTeamIds });
      const guarded = ticket({ givenOnBy: givenOnBy ?? TEAMS });
      if (may(rights, 'giveOn', guarded)) expect(may(rights, 'read', guarded)).toBe(true);
      const wider = listClosedTeams([{ ...kept, readBy: [...readBy, ...more] }], agent(...mine));
      expect(closedTeamIds).toEqual(expect.arrayContaining(wider));
    }),
  );
});
