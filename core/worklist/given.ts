import type { Condition } from '../conditions';
import { LATE_OR_DUE_TODAY } from './due';
import { ME, MY_GROUPS, MY_TEAMS } from './resolve';
import type { WorklistDefinition } from './types';

const MINE: Condition = { field: 'assigneeId', op: 'is', value: ME };
const OF_MY_TEAMS: Condition = { field: 'teamId', op: 'in', value: [MY_TEAMS] };
const stateIn = (...value: string[]): Condition => ({ field: 'state', op: 'in', value });
const RECEIVED: Condition = { field: 'state', op: 'is', value: 'received' };
const WAITING = stateIn('received', 'inWork');
const OPEN = stateIn('received', 'inWork', 'held');
const NOBODY: Condition = { field: 'assigneeId', op: 'is', value: null };
const HELD: Condition = { field: 'state', op: 'is', value: 'held' };
const FOR_APPROVAL: Condition = { field: 'heldFor', op: 'is', value: 'approval' };

/** How a list is seen where nobody chose otherwise. */
export const PLAIN: Omit<WorklistDefinition, 'condition'> = {
  order: 'next',
  groupBy: null,
  columns: ['requester', 'who', 'priority'],
  meanings: {},
  seenAs: 'time',
  marks: [],
  board: { by: 'state', facts: ['requester', 'who', 'priority', 'left'], limits: {} },
};

const list = (condition: Condition, more: Partial<WorklistDefinition> = {}): WorklistDefinition => ({
  ...PLAIN,
  condition,
  ...more,
});

/** The worklists that everyone on the Desk has; nobody can alter them. */
export const GIVEN_LISTS = {
  // What is in work has an assignee: said so, each part is one stretch of an index.
  nextUp: list({
    any: [
      { field: 'work', op: 'is', value: 'decision' },
      { all: [OF_MY_TEAMS, RECEIVED, NOBODY] },
      { all: [OF_MY_TEAMS, WAITING, MINE] },
    ],
  }),
  mine: list({ all: [MINE, OPEN] }),
  mineAndGroups: list(
    {
      any: [
        { all: [MINE, OPEN] },
        { all: [OF_MY_TEAMS, { field: 'groupId', op: 'in', value: [MY_GROUPS] }, OPEN] },
      ],
    },
    { columns: ['requester', 'who', 'group', 'priority'] },
  ),
  teams: list({ all: [OF_MY_TEAMS, OPEN] }, { columns: ['requester', 'who', 'priority', 'state'] }),
  unassigned: list({ all: [OF_MY_TEAMS, RECEIVED, NOBODY] }),
  upcoming: list({ all: [OF_MY_TEAMS, HELD, FOR_APPROVAL] }),
  held: list({ all: [OF_MY_TEAMS, HELD, { not: FOR_APPROVAL }] }, { groupBy: 'heldFor' }),
  dueToday: list({ all: [OF_MY_TEAMS, LATE_OR_DUE_TODAY] }),
  done: list({ all: [OF_MY_TEAMS, { field: 'state', op: 'is', value: 'done' }] }),
  openedByMe: list(
    {
      all: [
        {
          any: [
            { field: 'requesterId', op: 'is', value: ME },
            { field: 'raisedById', op: 'is', value: ME },
          ],
        },
        stateIn('received', 'inWork', 'held', 'done'),
      ],
    },
    { order: 'newest', columns: ['requester', 'who', 'priority', 'state'] },
  ),
  alsoTold: list(
    {
      all: [
        { field: 'alsoToldIds', op: 'contains', value: ME },
        stateIn('received', 'inWork', 'held', 'done'),
      ],
    },
    { order: 'newest', columns: ['requester', 'who', 'priority', 'state'] },
  ),
  closed: list(
    { all: [OF_MY_TEAMS, stateIn('closed', 'withdrawn')] },
    { order: 'closed', columns: ['requester', 'standing', 'priority'] },
  ),
  everything: list({ all: [] }, { order: 'newest', columns: ['requester', 'who', 'priority', 'state'] }),
} satisfies Record<string, WorklistDefinition>;

/** A list that ships with the product. */
export type GivenName = keyof typeof GIVEN_LISTS;
/** All lists that ship with the product. */
export const GIVEN_NAMES = Object.keys(GIVEN_LISTS) as GivenName[];

/** Whether a list ships with the product. */
export function isGiven(name: string): name is GivenName {
  return Object.hasOwn(GIVEN_LISTS, name);
}
