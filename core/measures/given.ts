import type { Condition } from '../conditions';
import { OPEN_STATES } from '../tickets';
import { getFactField, listFactFields, type FactKind } from './fields';
import type { Chart, Show, Stretch } from './chart';
import type { What } from './figure';

/** A board that is there from the beginning. Its name, and those of its charts that have one, are in the catalogue. */
export type GivenBoard = { id: string; stretch: Stretch; charts: Chart[] };

const ALL: Condition = { all: [] };
const is = (field: string, ...value: string[]): Condition => ({ field, op: 'in', value });
const OPEN = is('state', ...OPEN_STATES);
const LATE: Condition = { field: 'promise', op: 'is', value: 'missed' };
const INCIDENTS = is('kind', 'incident');
/** What had a promise of resolution that has come to an end. */
const PROMISED: Condition = is('promise', 'met', 'missed');
const IN_TIME: What = { share: { field: 'promise', op: 'is', value: 'met' } };
/** All that may still be open. */
const EVER: Stretch = { last: 3, unit: 'year' };

type Given = Partial<Omit<Chart, 'id' | 'show'>>;

/** A chart of what is counted, drawn so; what is not said of it is as usual. @example chart('tickets', 'number', {}) */
export function chartOf(of: FactKind, show: Show, given: Given = {}): Omit<Chart, 'id'> {
  return {
    ...{ of, show, title: '', what: 'count', at: listFactFields(of, 'instant')[0]!, where: ALL, by: null },
    ...{ every: null, stretch: null, isCompared: false, aim: null, width: 6 },
    ...given,
  };
}

const number = (of: FactKind, given: Given = {}) =>
  chartOf(of, 'number', { width: 3, isCompared: true, ...given });

function board(id: string, stretch: Stretch, charts: Omit<Chart, 'id'>[]): GivenBoard {
  return {
    id: `given-${id}`,
    stretch,
    charts: charts.map((chart, i) => ({ ...chart, id: `${id}-${i + 1}` })),
  };
}

const weeks = (last: number): Stretch => ({ last, unit: 'week' });

/** The boards that are there from the beginning, by what those who lead, set up or audit ask most. */
export const GIVEN_BOARDS: GivenBoard[] = [
  board('today', { last: 1, unit: 'day' }, [
    number('tickets'),
    number('tickets', { at: 'done' }),
    number('tickets', { where: { all: [OPEN, LATE] }, stretch: EVER, isCompared: false }),
    number('tickets', {
      where: { all: [OPEN, is('heldFor', 'requester')] },
      stretch: EVER,
      isCompared: false,
    }),
    chartOf('tickets', 'bars', { every: 'hour' }),
    chartOf('tickets', 'ageing'),
    chartOf('tickets', 'bars', { where: { all: [OPEN, LATE] }, by: 'teamId', stretch: EVER }),
    chartOf('tickets', 'bars', { where: OPEN, by: 'heldFor', stretch: EVER }),
    chartOf('time', 'bars', { what: { sum: 'spent' }, by: 'personId' }),
    chartOf('conversations', 'bars', { by: 'lineId' }),
  ]),
  board('month', { last: 1, unit: 'month' }, [
    number('tickets'),
    number('tickets', { at: 'done' }),
    number('tickets', { at: 'done', what: IN_TIME, where: PROMISED, aim: 90 }),
    number('tickets', { at: 'done', what: { median: 'workToDone' } }),
    chartOf('tickets', 'flow', { every: 'day', width: 12 }),
    chartOf('tickets', 'bars', { by: 'serviceId', isCompared: true }),
    chartOf('tickets', 'box', { at: 'done', what: { median: 'workToDone' }, by: 'teamId' }),
    chartOf('tickets', 'bars', { at: 'done', what: IN_TIME, where: PROMISED, by: 'teamId', aim: 90 }),
    chartOf('tickets', 'shares', { by: 'via' }),
  ]),
  board('services', weeks(12), [
    chartOf('tickets', 'bars', { by: 'serviceId', isCompared: true, width: 12 }),
    chartOf('tickets', 'bars', { at: 'done', what: { median: 'workToDone' }, by: 'serviceId' }),
    chartOf('tickets', 'bars', { at: 'done', what: IN_TIME, where: PROMISED, by: 'serviceId' }),
    chartOf('tickets', 'line', { by: 'kind', every: 'week' }),
    chartOf('tickets', 'bars', {
      what: { share: { field: 'teams', op: 'gt', value: 1 } },
      by: 'serviceId',
    }),
  ]),
  board('approvals', weeks(12), [
    number('approvals'),
    number('approvals', { at: 'decided', what: { median: 'toDecision' } }),
    number('approvals', { at: 'decided', what: { p90: 'toDecision' } }),
    number('approvals', { what: { share: is('decision', 'declined') } }),
    chartOf('approvals', 'bars', { every: 'week', by: 'decision' }),
    chartOf('approvals', 'bars', { at: 'decided', what: { median: 'toDecision' }, by: 'serviceId' }),
  ]),
  board('knowledge', weeks(12), [
    chartOf('assistant', 'bars', { every: 'week', by: 'outcome' }),
    chartOf('assistant', 'bars', { by: 'matterId' }),
    chartOf('articles', 'bars', { by: 'articleId', where: is('use', 'opened') }),
    chartOf('articles', 'bars', {
      what: { share: is('use', 'helped') },
      by: 'articleId',
      where: is('use', 'helped', 'notHelped'),
    }),
    chartOf('articles', 'line', { every: 'week', by: 'use' }),
    chartOf('assistant', 'shares', { by: 'language' }),
  ]),
  board('lines', weeks(8), [
    number('conversations'),
    number('conversations', { what: { p90: 'toTaken' } }),
    number('conversations', { what: { median: 'lasted' } }),
    number('conversations', { what: { mean: 'rating' } }),
    chartOf('conversations', 'heat', { every: 'hour', stretch: weeks(5) }),
    chartOf('conversations', 'bars', { by: 'lineId', isCompared: true }),
    chartOf('conversations', 'expected', { width: 12 }),
  ]),
  board('plans', weeks(12), [
    number('steps'),
    number('steps', { what: { share: { field: 'late', op: 'is', value: true } } }),
    chartOf('steps', 'bars', { what: { median: 'toFinish' }, by: 'stepTeamId' }),
    chartOf('steps', 'bars', {
      what: { share: { field: 'late', op: 'is', value: true } },
      by: 'stepTeamId',
    }),
    chartOf('steps', 'line', { every: 'week' }),
  ]),
  board('works', weeks(12), [
    chartOf('works', 'bars', { by: 'workOutcome', every: 'week' }),
    chartOf('works', 'shares', { by: 'risk' }),
    chartOf('outages', 'bars', { what: { sum: 'lasted' }, by: 'teamId' }),
    chartOf('outages', 'line', { every: 'week' }),
  ]),
  board('breaking', weeks(12), [
    chartOf('tickets', 'bars', { where: INCIDENTS, by: 'serviceId', isCompared: true }),
    chartOf('tickets', 'bars', { where: INCIDENTS, by: 'siteId' }),
    chartOf('tickets', 'process', { where: INCIDENTS, every: 'week', stretch: weeks(26) }),
    chartOf('tickets', 'heat', { where: INCIDENTS, every: 'hour', stretch: weeks(5) }),
    chartOf('tickets', 'bars', { where: { field: 'reopened', op: 'gt', value: 0 }, by: 'serviceId' }),
  ]),
  board('satisfaction', weeks(12), [
    number('tickets', { at: 'closed', what: { mean: 'rating' } }),
    number('tickets', { at: 'closed', where: { field: 'rating', op: 'notEmpty' } }),
    chartOf('tickets', 'process', {
      at: 'closed',
      what: { mean: 'rating' },
      every: 'week',
      stretch: weeks(26),
    }),
    chartOf('tickets', 'bars', { at: 'closed', what: { mean: 'rating' }, by: 'teamId' }),
    chartOf('tickets', 'bars', { at: 'closed', what: { mean: 'rating' }, by: 'serviceId' }),
  ]),
  board('ahead', weeks(26), [
    chartOf('tickets', 'expected', { width: 12 }),
    chartOf('tickets', 'process', { every: 'week' }),
    chartOf('tickets', 'survival'),
    chartOf('tickets', 'flow', { every: 'week', width: 12 }),
  ]),
];

/** A given board; null: there is none of that id. */
export function getGivenBoard(id: string): GivenBoard | null {
  return GIVEN_BOARDS.find((each) => each.id === id) ?? null;
}

/** The teams that a condition asks for by name. */
export function listTeamsAsked(of: FactKind, condition: Condition): string[] {
  if ('all' in condition) return condition.all.flatMap((part) => listTeamsAsked(of, part));
  if ('any' in condition) return condition.any.flatMap((part) => listTeamsAsked(of, part));
  if ('not' in condition) return listTeamsAsked(of, condition.not);
  const field = getFactField(of, condition.field);
  if (field?.is !== 'split' || field.as.kind !== 'team' || !('value' in condition)) return [];
  return [condition.value].flat().filter((value) => typeof value === 'string');
}
