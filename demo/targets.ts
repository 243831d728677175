import type { Condition } from '../core/conditions';
import type { TargetDefinition } from '../core/targets';
import type { TargetRow } from '../server/clocks/model';

const always: Condition = { all: [] };
const stateIn = (...value: string[]): Condition => ({ field: 'state', op: 'in', value });
const is = (field: string, value: string | boolean): Condition => ({ field, op: 'is', value });

/** The calendar follows the team that holds the ticket. */
const calendars: TargetDefinition['calendars'] = [
  { when: is('teamId', 'network'), calendarId: 'ships' },
  { when: is('teamId', 'onboard'), calendarId: 'terminals' },
  { when: is('teamId', 'desk'), calendarId: 'desk' },
  { calendarId: 'office' },
];

function byPriority(p1: string, p2: string, p3: string, p4: string): TargetDefinition['limits'] {
  return [
    ...[p1, p2, p3].map((duration, i) => ({ when: is('priority', `P${i + 1}`), duration })),
    { duration: p4 },
  ];
}

const PAUSING_HOLDS = ['requester', 'approval', 'supplier', 'date', 'ticket'];

const shared = {
  startWhen: always,
  countFrom: 'start',
  excludeEarlierPauses: false,
  onReopen: 'resume',
  calendars,
} as const;

/** The promises of Solvarra's desk. */
const DEFINITIONS: [TargetRow['measures'], TargetDefinition][] = [
  [
    'firstAnswer',
    {
      ...shared,
      calendars: [...calendars],
      id: 'first-answer',
      name: 'First answer',
      kind: 'serviceLevel',
      stopWhen: is('answered', true),
      cancelWhen: stateIn('withdrawn', 'closed'),
      warnAtPercent: [80],
      limits: byPriority('PT15M', 'PT30M', 'PT2H', 'PT8H'),
      onReopen: 'ignore',
    },
  ],
  [
    'takenUp',
    {
      ...shared,
      calendars: [...calendars],
      id: 'taken-up',
      name: 'Taken up',
      kind: 'operationalLevel',
      startWhen: { not: is('heldFor', 'approval') },
      stopWhen: { field: 'assigneeId', op: 'notEmpty' },
      cancelWhen: stateIn('withdrawn', 'closed', 'done'),
      warnAtPercent: [],
      limits: byPriority('PT10M', 'PT20M', 'PT4H', 'P1D'),
      onReopen: 'ignore',
    },
  ],
  [
    'resolution',
    {
      ...shared,
      calendars: [...calendars],
      id: 'resolution',
      name: 'Resolve',
      kind: 'serviceLevel',
      pauseWhen: { all: [stateIn('held'), { field: 'heldFor', op: 'in', value: PAUSING_HOLDS }] },
      stopWhen: stateIn('done', 'closed', 'withdrawn'),
      cancelWhen: 'never',
      warnAtPercent: [50, 80],
      limits: byPriority('PT4H', 'PT8H', 'PT18H', 'P4D'),
    },
  ],
];

export function createTargets(): TargetRow[] {
  return DEFINITIONS.map(([measures, definition], position) => ({
    id: definition.id,
    definition,
    measures,
    isOn: true,
    position,
  }));
}
