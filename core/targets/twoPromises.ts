import { ASKED_KINDS } from '../tickets';
import type { Condition } from '../conditions';
import type { TargetNotice } from './notices';
import type { TargetDefinition } from './types';

type Team = { teamId: string; teamName: string; calendarId: string };
type TeamPromise = {
  measures: 'firstAnswer' | 'resolution';
  definition: Omit<TargetDefinition, 'warnAtPercent'>;
  notices: TargetNotice[];
};

const is = (field: string, value: string | boolean): Condition => ({ field, op: 'is', value });
const isFinished: Condition = { field: 'state', op: 'in', value: ['done', 'closed', 'withdrawn'] };
const late: TargetNotice = {
  percent: 100,
  tell: ['assignee', 'team', 'lead'],
  words: null,
  handTo: null,
  raisesPriority: false,
};

/** The promises that a new team begins with: a first answer within a working day, and a resolution. */
export function twoPromises({ teamId, teamName, calendarId }: Team): TeamPromise[] {
  const shared = {
    kind: 'serviceLevel',
    // Problems and changes go by windows and stages of their own.
    startWhen: {
      all: [is('work', 'ticket'), { field: 'kind', op: 'in', value: [...ASKED_KINDS] }, is('teamId', teamId)],
    },
    countFrom: 'start',
    excludeEarlierPauses: false,
    cancelWhen: 'startNoLongerHolds',
    calendars: [{ when: is('teamId', teamId), calendarId }],
  } satisfies Partial<TargetDefinition>;
  return [
    {
      measures: 'firstAnswer',
      notices: [{ ...late, percent: 80, tell: ['assignee', 'team'] }, late],
      definition: {
        ...shared,
        id: `${teamId}-answer`,
        name: `First answer, ${teamName}`,
        stopWhen: is('answered', true),
        onReopen: 'ignore',
        limits: [
          { when: is('priority', 'P1'), duration: 'PT30M' },
          { when: is('priority', 'P2'), duration: 'PT2H' },
          { duration: 'P1D' },
        ],
      },
    },
    {
      measures: 'resolution',
      notices: [{ ...late, percent: 80, tell: ['assignee', 'team'] }, late],
      definition: {
        ...shared,
        id: `${teamId}-resolve`,
        name: `Resolve, ${teamName}`,
        pauseWhen: is('state', 'held'),
        stopWhen: isFinished,
        onReopen: 'resume',
        limits: [
          { when: is('priority', 'P1'), duration: 'PT4H' },
          { when: is('priority', 'P2'), duration: 'P1D' },
          { when: is('priority', 'P3'), duration: 'P3D' },
          { duration: 'P5D' },
        ],
      },
    },
  ];
}
