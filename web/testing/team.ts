import type { Team } from '../../contract/people';
import { DEFAULT_WEIGHTS } from '../../core/worklist';

/** A team whose agents are these, that anyone may see and nobody here may set up. */
export const teamOf = (
  id: string,
  en: string,
  agents: [string, string][],
  given: Partial<Team> = {},
): Team => ({
  ...{ id, name: { en, pt: en }, isConfidential: false, calendarId: 'office', progressLabels: [] },
  ...{ outOfHours: { goesTo: null, priorities: [], words: null }, decidesInChat: true, answersMail: false },
  ...{
    givenOnBy: [],
    readBy: null,
    orderWeights: DEFAULT_WEIGHTS,
    mayLead: false,
    mayEdit: false,
    version: 1,
  },
  groups: [],
  members: agents.map(([personId, name]) => ({ id: personId, name, role: 'agent', groupId: null })),
  ...given,
});
