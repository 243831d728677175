import type { Column } from '../../core/conditions';
import type { FactKind } from '../../core/measures';
import type { Viewer } from '../../core/rights';
import { standingSql } from '../../core/targets';
import { visibleTo } from '../tickets/visibility';

const text = (sql: string): Column => ({ sql, type: 'text' });
const number = (sql: string): Column => ({ sql, type: 'number' });
const flag = (sql: string): Column => ({ sql, type: 'flag' });
const ofRequester = (column: string): string =>
  `(SELECT r.${column} FROM people r WHERE r.id = t.requesterId)`;

/** How facts of one kind are read: from where, by which columns, and which of them someone may see. */
export type Source = {
  from: string;
  columns: Record<string, Column>;
  /** What stands behind a fact: the ticket that it belongs to, and what names it otherwise. */
  number: string;
  name: string;
  /** Who it was for. */
  personId: string;
  visible: { sql: string; values: Record<string, unknown> };
  values: Record<string, unknown>;
};

/** What belongs to a ticket stands on the ticket's facts, so that it is parted and seen as that is. */
const OF_TICKET: Record<string, Column> = {
  ...Object.fromEntries(
    (
      [
        ...([
          'kind',
          'teamId',
          'groupId',
          'serviceId',
          'priority',
          'impact',
          'urgency',
          'via',
          'state',
        ] as const),
        ...(['heldFor', 'requesterId'] as const),
      ] as const
    ).map((name) => [name, text(`t.${name}`)]),
  ),
  ...Object.fromEntries(['siteId', 'department', 'vessel'].map((name) => [name, text(ofRequester(name))])),
};

/** How the promise of resolution of a ticket stands: late where one of them is. */
function promiseSql(now: number): { sql: string; values: Record<string, unknown> } {
  const { sql, values } = standingSql('c', now);
  return {
    sql: `COALESCE((SELECT CASE WHEN MAX(${sql} = 'missed') THEN 'missed' WHEN MAX(${sql} = 'running') THEN 'running'
      WHEN MAX(${sql} = 'met') THEN 'met' END FROM clocks c JOIN targets g ON g.id = c.targetId AND g.measures = 'resolution'
      WHERE c.ticketNumber = t.number AND c.work = 'ticket'), 'none')`,
    values,
  };
}

type Draft = Omit<Source, 'visible' | 'values' | 'number' | 'name' | 'personId'> &
  Partial<Pick<Source, 'number' | 'name' | 'personId'>> & {
    /** The team that alone reads it, where that is in confidence; absent: as its ticket is read. */
    confidentialTo?: string;
  };

const HANGS_ON_TICKET = 'JOIN ticket_facts t ON t.number = x.ticketNumber';

const DRAFTS: Record<FactKind, Draft> = {
  tickets: {
    from: 'ticket_facts t',
    columns: {
      ...{
        ...OF_TICKET,
        assigneeId: text('t.assigneeId'),

        isDeclined: flag('t.isDeclined'),
      },
      ...Object.fromEntries(
        [
          ...['opened', 'done', 'answered', 'closed', 'workToDone', 'toDone', 'workToAnswer', 'toAnswer'],
          ...['own', 'waited', 'heldForRequester', 'heldForSupplier', 'heldForApproval', 'rating', 'teams'],
          ...['reopened', 'messages'],
        ].map((name) => [name, number(`t.${name}`)]),
      ),
    },
  },
  approvals: {
    from: `approvals x ${HANGS_ON_TICKET}`,
    columns: {
      ...{ ...OF_TICKET, asked: number('x.startedAt'), decided: number('x.decidedAt') },
      ...{ decision: text('x.outcome'), toDecision: number('(x.decidedAt - x.startedAt)') },
    },
  },
  steps: {
    from: `plan_steps x ${HANGS_ON_TICKET}`,
    columns: {
      ...{ ...OF_TICKET, finished: number('x.finishedAt'), began: number('x.startedAt') },
      ...{ stepTeamId: text('x.teamId'), assigneeId: text('x.assigneeId') },
      ...{ late: flag('(x.finishedAt > x.neededBy)'), toFinish: number('(x.finishedAt - x.startedAt)') },
    },
  },
  time: {
    from: `time_spent x ${HANGS_ON_TICKET}`,
    columns: {
      ...{ ...OF_TICKET, began: number('x.startedAt'), personId: text('x.personId') },
      ...{ category: text('x.category'), spent: number('(x.minutes * 60000)') },
    },
  },
  works: {
    from: `works x ${HANGS_ON_TICKET}`,
    columns: {
      ...{ ...OF_TICKET, began: number('x.startedAt'), finished: number('x.endedAt') },
      ...{
        sort: text('x.sort'),
        risk: text('COALESCE(x.riskSaid, x.risk)'),
        workOutcome: text('x.outcome'),
      },
      lasted: number('(x.endedAt - x.startedAt)'),
    },
  },
  conversations: {
    from: 'conversations x JOIN chat_lines l ON l.id = x.lineId',
    columns: {
      ...{ began: number('x.startedAt'), ended: number('x.endedAt'), lineId: text('x.lineId') },
      ...{ teamId: text('l.teamId'), agentId: text('x.agentId'), endedBy: text('x.endedBy') },
      ...{
        toTaken: number('(x.firstTakenAt - x.startedAt)'),
        lasted: number('(x.endedAt - x.firstTakenAt)'),
      },
      rating: number('x.rating'),
    },
    ...{ confidentialTo: 'l.teamId', personId: 'x.personId', number: 'x.ticketNumber' },
  },
  assistant: {
    from: 'talks x',
    columns: {
      ...{ began: number('x.startedAt'), matterId: text('x.matterId'), outcome: text('x.outcome') },
      ...{
        language: text('x.language'),
        lasted: number('(x.endedAt - x.startedAt)'),
        rating: number('x.rating'),
      },
    },
    ...{ confidentialTo: 'x.confidentialTeamId', personId: 'x.personId', number: 'x.ticketNumber' },
  },
  articles: {
    from: 'article_uses x JOIN articles a ON a.id = x.articleId',
    columns: { used: number('x.at'), articleId: text('x.articleId'), use: text('x.what') },
    ...{ confidentialTo: 'a.teamId', personId: 'x.personId', number: 'x.ticketNumber' },
  },
  outages: {
    from: '(SELECT * FROM notices WHERE calledBackAt IS NULL) x',
    columns: {
      ...{ began: number('x.fromAt'), ended: number('x.endedAt'), notice: text('x.kind') },
      ...{
        teamId: text('x.teamId'),
        isMajor: flag('x.isMajor'),
        lasted: number('(x.endedAt - x.fromAt)'),
      },
    },
    ...{ confidentialTo: 'x.teamId', personId: 'x.createdById', number: 'x.ofTicket' },
  },
};

/** What stands in confidence with a team is read by its own alone. */
function notInConfidence(viewer: Viewer, teamId: string): Source['visible'] {
  const teamIds = viewer.teams.map((team) => team.teamId);
  const own = teamIds.length > 0 ? ` OR ${teamId} IN (:ownTeamIds)` : '';
  return {
    sql: `(NOT EXISTS (SELECT 1 FROM teams ct WHERE ct.id = ${teamId} AND ct.isConfidential = 1)${own})`,
    values: teamIds.length > 0 ? { ownTeamIds: teamIds } : {},
  };
}

/** How facts of a kind are read by someone at an instant. */
export function sourceOf(of: FactKind, viewer: Viewer, now: number): Source {
  const promise = promiseSql(now);
  const { confidentialTo, ...draft } = DRAFTS[of];
  return {
    ...{ number: 't.number', name: 'NULL', personId: 't.requesterId' },
    ...draft,
    columns: of === 'tickets' ? { ...draft.columns, promise: text(promise.sql) } : draft.columns,
    visible: confidentialTo === undefined ? visibleTo(viewer) : notInConfidence(viewer, confidentialTo),
    values: of === 'tickets' ? promise.values : {},
  };
}
