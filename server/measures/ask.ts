import type { AskedChart } from '../../contract/measures';
import { toSql, type Condition, type Scalar } from '../../core/conditions';
import {
  checkChart,
  conditionsOf,
  getFactField,
  isOfPeople,
  oneOf,
  periodOf,
  reckonedBy,
  type Chart,
} from '../../core/measures';
import { readsDesk } from '../../core/rights';
import { ProblemError } from '../http/problems';
import type { Viewing } from '../unitOfWork';
import { readZone } from '../worklists/reader';
import { sourceOf, type Source } from './sources';

/** A chart ready to be read: for whom, of which period, and by which facts. */
export type Ask = {
  chart: Chart;
  zone: string;
  now: number;
  period: { from: number; to: number };
  source: Source;
  where: Condition;
  /** Whose figures the reader may see apart; null: everybody's. */
  people: ReadonlySet<string> | null;
};

/** Figures are for those who do the work and those who answer for it. */
export function requireFigures({ viewer }: Viewing): void {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
}

/** Whose own figures someone sees: their own, and those of the people whom they lead; an administrator's are all. */
async function readPeople({ listo, viewer }: Viewing): Promise<ReadonlySet<string> | null> {
  if (viewer.isAdministrator) return null;
  const led = viewer.teams.filter(({ role }) => role !== 'agent').map(({ teamId }) => teamId);
  const members = led.length > 0 ? await listo.db.tables.members.find({ teamId: led }) : [];
  return new Set([viewer.id, ...members.map(({ personId }) => personId)]);
}

/** The values that a condition compares fields of people with. */
function listPeopleAsked(condition: Condition): unknown[] {
  if ('all' in condition) return condition.all.flatMap(listPeopleAsked);
  if ('any' in condition) return condition.any.flatMap(listPeopleAsked);
  if ('not' in condition) return listPeopleAsked(condition.not);
  if (!isOfPeople(condition.field) || !('value' in condition)) return [];
  return [condition.value].flat().filter((value) => value !== null);
}

/** Makes a chart ready. @throws ProblemError where it asks for what there is not, or for whom the reader may not see */
export async function prepareAsk(
  { listo, viewer }: Viewing,
  { chart, stretch, beside, chosen }: AskedChart,
): Promise<Ask> {
  requireFigures({ listo, viewer });
  const problems = checkChart(chart);
  if (problems.length > 0) throw new ProblemError('fieldsNotValid', { fields: problems });
  for (const { of, by } of beside)
    if (by !== null && getFactField(of, by)?.is !== 'split')
      throw new ProblemError('fieldsNotValid', { fields: [{ field: by, code: 'unknownField' }] });
  const zone = await readZone(listo, viewer);
  const now = listo.clock.now();
  const others = beside.filter(({ id }) => id !== chart.id);
  const narrowing = conditionsOf([...others, chart], chosen)[chart.id]!;
  const where: Condition = { all: [chart.where, narrowing] };
  const people = await readPeople({ listo, viewer });
  const asked = [where, chart.what !== 'count' && 'share' in chart.what ? chart.what.share : { all: [] }];
  if (people && asked.flatMap(listPeopleAsked).some((id) => !people.has(String(id))))
    throw new ProblemError('notYourPeople');
  return {
    ...{ chart, zone, now, where, people },
    period: periodOf(chart.stretch ?? stretch, now, zone),
    source: sourceOf(chart.of, viewer, now),
  };
}

/** A statement over the facts that a chart counts, but for what is selected. */
export type Compiled = { from: string; values: Record<string, unknown> };

/** The facts of a chart as SQL: those that meet a condition, may be seen, and fall into a period (null: any). */
export function toFrom(
  { source, chart }: Pick<Ask, 'source' | 'chart'>,
  where: Condition,
  period: { from: number; to: number } | null,
): Compiled {
  const { sql, values } = toSql(where, source.columns);
  const at = sqlOf(source, chart.at);
  const within = period ? `${at} >= :periodFrom AND ${at} < :periodTo AND` : '';
  return {
    from: `FROM ${source.from} WHERE ${within} ${source.visible.sql} AND ${sql}`,
    values: {
      ...{ ...source.values, ...source.visible.values, ...values },
      ...(period && { periodFrom: period.from, periodTo: period.to }),
    },
  };
}

/** The SQL of a field that holds one value. */
export function sqlOf(source: Source, field: string): string {
  const column = source.columns[field];
  if (!column || column.type === 'list') throw new RangeError(`${field} holds no single value`);
  return column.sql;
}

/** The part of a chart by which a point is looked into. */
export const ofPart = ({ by }: Chart, key: Scalar | undefined): Condition =>
  by === null || key === undefined ? { all: [] } : oneOf(by, [key]);

/** The field that a chart reckons with, as SQL; NULL where it counts. */
export const reckonedSql = ({ chart, source }: Pick<Ask, 'chart' | 'source'>): string => {
  const field = reckonedBy(chart);
  return field === null ? 'NULL' : sqlOf(source, field);
};
