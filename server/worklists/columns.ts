import type { Column } from '../../core/conditions';
import type { ListFieldName, Work } from '../../core/worklist';
import { NOTHING_DUE } from '../tickets/model';

const text = (sql: string): Column => ({ sql, type: 'text' });
const number = (sql: string): Column => ({ sql, type: 'number' });
const flag = (sql: string): Column => ({ sql, type: 'flag' });
const ofRequester = (column: string): string =>
  `(SELECT r.${column} FROM people r WHERE r.id = t.requesterId)`;

/** How SQL reads the fields of lists from `tickets t`; what is late and due today is said by the others. */
const OF_TICKET: Record<Exclude<ListFieldName, 'work' | 'isLate' | 'isDueToday'>, Column> = {
  kind: text('t.kind'),
  state: text('t.state'),
  heldFor: text('t.heldFor'),
  priority: text('t.priority'),
  impact: text('t.impact'),
  urgency: text('t.urgency'),
  via: text('t.via'),
  teamId: text('t.teamId'),
  groupId: text('t.groupId'),
  assigneeId: text('t.assigneeId'),
  requesterId: text('t.requesterId'),
  raisedById: text('t.raisedById'),
  alsoToldIds: {
    type: 'list',
    contains: (value) =>
      `t.number IN (SELECT lf.ticketNumber FROM followers lf WHERE lf.personId = ${value} AND lf.role = 'alsoTold')`,
  },
  serviceId: text('t.serviceId'),
  siteId: text(ofRequester('siteId')),
  progressId: text('t.progressId'),
  department: text(ofRequester('department')),
  vessel: text(ofRequester('vessel')),
  title: text('t.title'),
  // What was written under the questions, without the names of these.
  said: text("JSON_EXTRACT(t.answers, '$.*')"),
  place: text('t.place'),
  number: number('t.number'),
  rating: number('t.rating'),
  estimateMinutes: number('t.estimateMinutes'),
  spentMinutes: number(
    '(SELECT COALESCE(SUM(ts.minutes), 0) FROM time_spent ts WHERE ts.ticketNumber = t.number)',
  ),
  createdAt: number('t.createdAt'),
  changedAt: number('t.changedAt'),
  dueAt: number(`NULLIF(t.tightestDueAt, ${NOTHING_DUE})`),
  waitsSince: number('t.waitsSince'),
  resolvedAt: number('t.resolvedAt'),
  closedAt: number('t.closedAt'),
  answered: flag('t.answered'),
  goesFirst: flag(ofRequester('goesFirst')),
  isConfidential: flag('t.isConfidential'),
};

const stateBy = (assignee: string): Column => text(`IF(${assignee} IS NULL, 'received', 'inWork')`);

/** A step or an approval stands on its ticket's columns, with a team, an assignee and a due instant of its own. */
export const COLUMNS_OF: Record<Work, Record<string, Column>> = {
  ticket: OF_TICKET,
  step: {
    ...OF_TICKET,
    teamId: text('ps.teamId'),
    assigneeId: text('ps.assigneeId'),
    state: stateBy('ps.assigneeId'),
    heldFor: text('NULL'),
    dueAt: number('ps.neededBy'),
  },
  decision: {
    ...OF_TICKET,
    assigneeId: text('a.askedId'),
    state: stateBy('a.askedId'),
    heldFor: text('NULL'),
    dueAt: number('a.neededBy'),
  },
};

/** Whether a field stands in a column that holds one value, and so can be counted by; what was said is many. */
export function holdsOneValue(field: string): boolean {
  const column = Object.hasOwn(OF_TICKET, field) ? OF_TICKET[field as keyof typeof OF_TICKET] : undefined;
  return column !== undefined && column.type !== 'list' && field !== 'said';
}

/** How SQL reads the value of a field that holds one. */
export function valueSql(work: Work, field: string): string {
  const column = COLUMNS_OF[work][field];
  if (!column || column.type === 'list') throw new RangeError(`${field} holds no single value`);
  return column.sql;
}
