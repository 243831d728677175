import type { Condition } from '../core/conditions';
import type { Reader } from '../core/telling';
import { listWarnPercents, type TargetDefinition, type TargetNotice } from '../core/targets';
import type { TargetRow } from '../server/clocks/model';

const is = (field: string, value: string | boolean): Condition => ({ field, op: 'is', value });
const among = (field: string, ...value: string[]): Condition => ({ field, op: 'in', value });
const all = (...conditions: Condition[]): Condition => ({ all: conditions });
const aTicket = is('work', 'ticket');
/** What people ask for and report; problems and changes go by windows and stages of their own. */
const isAsked = among('kind', 'incident', 'request');
const isFinished = among('state', 'done', 'closed', 'withdrawn');
const heldForSupplier = all(is('state', 'held'), is('heldFor', 'supplier'));

/** The calendar follows the team that holds the ticket. */
const followingTeam: TargetDefinition['calendars'] = [
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

function at(percent: number, tell: Reader[], more: Partial<TargetNotice> = {}): TargetNotice {
  return { percent, tell, words: null, handTo: null, raisesPriority: false, ...more };
}

type Promise = Pick<TargetRow, 'measures' | 'notices'> & {
  definition: Omit<TargetDefinition, 'warnAtPercent' | 'excludeEarlierPauses'>;
};

/** The promises of Solvarra's desk, to those who ask, between its teams, and of its suppliers. */
const PROMISES: Promise[] = [
  {
    measures: 'firstAnswer',
    notices: [at(80, ['assignee', 'team']), at(100, ['assignee', 'team', 'lead'])],
    definition: {
      ...{ id: 'first-answer', name: 'First answer', kind: 'serviceLevel', countFrom: 'start' },
      startWhen: all(aTicket, isAsked),
      stopWhen: is('answered', true),
      cancelWhen: among('state', 'withdrawn', 'closed'),
      onReopen: 'ignore',
      limits: byPriority('PT15M', 'PT30M', 'PT2H', 'PT8H'),
      calendars: followingTeam,
    },
  },
  {
    measures: 'takenUp',
    notices: [at(100, ['team', 'lead'])],
    definition: {
      ...{ id: 'taken-up', name: 'Taken up', kind: 'operationalLevel', countFrom: 'start' },
      startWhen: all(aTicket, isAsked, { not: is('heldFor', 'approval') }),
      stopWhen: is('takenUp', true),
      cancelWhen: isFinished,
      onReopen: 'ignore',
      limits: byPriority('PT10M', 'PT20M', 'PT4H', 'P1D'),
      calendars: followingTeam,
    },
  },
  {
    measures: 'resolution',
    notices: [
      at(50, ['assignee', 'team']),
      at(80, ['assignee', 'team', 'lead'], {
        words: {
          en: '{percent} % of the time for {number} is used: {title}',
          pt: '{percent} % do tempo de {number} está gasto: {title}',
        },
      }),
      at(100, ['assignee', 'team', 'lead']),
    ],
    definition: {
      ...{ id: 'resolution', name: 'Resolve', kind: 'serviceLevel', countFrom: 'start' },
      // A plan makes its own promise.
      startWhen: all(aTicket, isAsked, { field: 'hasPlan', op: 'isNot', value: true }),
      pauseWhen: all(
        is('state', 'held'),
        among('heldFor', 'requester', 'approval', 'supplier', 'date', 'ticket'),
      ),
      stopWhen: isFinished,
      cancelWhen: 'never',
      onReopen: 'resume',
      limits: byPriority('PT4H', 'PT8H', 'PT18H', 'P4D'),
      calendars: followingTeam,
    },
  },
  {
    measures: 'takenUp',
    notices: [at(100, ['team', 'lead'])],
    definition: {
      ...{ id: 'network-hour', name: 'Network takes over', kind: 'operationalLevel', countFrom: 'start' },
      startWhen: all(aTicket, is('teamId', 'network'), is('kind', 'incident')),
      stopWhen: is('takenUp', true),
      cancelWhen: { any: [isFinished, { not: is('teamId', 'network') }] },
      onReopen: 'ignore',
      limits: [{ duration: 'PT1H' }],
      calendars: [{ calendarId: 'ships' }],
    },
  },
  {
    measures: 'takenUp',
    notices: [at(100, ['lead'])],
    definition: {
      ...{ id: 'desk-passes-on', name: 'Desk settles or passes on', kind: 'operationalLevel' },
      countFrom: 'start',
      startWhen: all(aTicket, isAsked, is('teamId', 'desk')),
      stopWhen: { any: [is('takenUp', true), { not: is('teamId', 'desk') }, isFinished] },
      cancelWhen: 'never',
      onReopen: 'ignore',
      limits: [{ duration: 'PT1H' }],
      calendars: [{ calendarId: 'desk' }],
    },
  },
  {
    measures: 'delivery',
    notices: [at(100, ['assignee', 'lead'])],
    definition: {
      ...{ id: 'link-supplier', name: 'Sea link supplier', kind: 'supplierContract', countFrom: 'start' },
      startWhen: all(aTicket, is('teamId', 'network'), heldForSupplier),
      stopWhen: { not: heldForSupplier },
      cancelWhen: 'never',
      onReopen: 'ignore',
      limits: byPriority('PT2H', 'PT4H', 'P1D', 'P2D'),
      calendars: [{ calendarId: 'supplier-link' }],
    },
  },
  {
    measures: 'delivery',
    notices: [at(80, ['assignee']), at(100, ['assignee', 'lead'])],
    definition: {
      ...{ id: 'parts-supplier', name: 'Parts supplier', kind: 'supplierContract', countFrom: 'start' },
      startWhen: all(aTicket, { not: is('teamId', 'network') }, heldForSupplier),
      stopWhen: { not: heldForSupplier },
      cancelWhen: 'never',
      onReopen: 'ignore',
      limits: [{ duration: 'P3D' }],
      calendars: [{ calendarId: 'office' }],
    },
  },
  {
    measures: 'decision',
    notices: [at(50, ['approver']), at(100, ['approver'])],
    definition: {
      ...{ id: 'decision', name: 'Decided', kind: 'operationalLevel', countFrom: 'start' },
      startWhen: all(is('work', 'approval'), is('outcome', 'open')),
      stopWhen: among('outcome', 'approved', 'declined'),
      cancelWhen: is('outcome', 'withdrawn'),
      onReopen: 'ignore',
      limits: [{ duration: 'P2D' }],
      calendars: [{ calendarId: 'office' }],
    },
  },
  {
    measures: 'takenUp',
    notices: [
      at(100, ['team', 'lead'], {
        handTo: { teamId: 'desk', groupId: null, personId: 'marta' },
        raisesPriority: true,
      }),
    ],
    definition: {
      ...{ id: 'no-one-waits', name: 'Seen by someone', kind: 'operationalLevel', countFrom: 'start' },
      startWhen: all(aTicket, is('kind', 'incident'), { not: is('teamId', 'people') }),
      stopWhen: { any: [is('takenUp', true), isFinished] },
      cancelWhen: 'never',
      onReopen: 'ignore',
      limits: [{ duration: 'P10D' }],
      calendars: [{ calendarId: 'office' }],
    },
  },
];

export function createTargets(): TargetRow[] {
  return PROMISES.map(({ measures, notices, definition }, position) => ({
    id: definition.id,
    definition: { ...definition, excludeEarlierPauses: false, warnAtPercent: listWarnPercents(notices) },
    measures,
    notices,
    teamId: null,
    isOn: true,
    edition: 1,
    newFrom: null,
    position,
    version: 1,
  }));
}
