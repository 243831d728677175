import type { Condition } from '../../core/conditions';
import type { LocalText } from '../../core/forms';
import {
  getListField,
  resolveCondition,
  WORKS,
  type ListReader,
  type WorklistDefinition,
} from '../../core/worklist';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { readNames } from '../people/names';
import { holdsOneValue, valueSql } from './columns';
import { createWorkQuery, fromSql, type WorkQuery } from './query';
import { createReader } from './reader';
import type { Viewing } from '../unitOfWork';

/** So many of each kind of work are counted at most. */
const MOST_COUNTED = 100_000;

/** The parts of a list as it is asked for: its own condition and what narrows it. */
export async function listQueries(
  { listo, viewer }: Viewing,
  { condition }: Pick<WorklistDefinition, 'condition'>,
  where: Condition | null,
): Promise<{ queries: WorkQuery[]; reader: ListReader }> {
  const reader = await createReader(listo, viewer);
  const all = resolveCondition({ all: [condition, ...(where ? [where] : [])] }, reader);
  const query = { viewer, condition: all, order: 'newest' as const, groupBy: null, after: null };
  return { queries: WORKS.flatMap((work) => createWorkQuery(work, query) ?? []), reader };
}

/** Names of values that are ids. */
async function nameValues(listo: Listo, kind: string, ids: string[]): Promise<Map<string, LocalText>> {
  const { tables } = listo.db;
  const plain = (name: string): LocalText => ({ en: name, pt: name });
  if (kind === 'person') {
    const names = await readNames(listo, ids);
    return new Map([...names].map(([id, name]) => [id, plain(name)]));
  }
  if (kind === 'team')
    return new Map((await tables.teams.find({ id: ids })).map(({ id, name }) => [id, name]));
  if (kind === 'service')
    return new Map(
      (await tables.services.find({ id: ids }, { attributes: ['id', 'title'] })).map(({ id, title }) => [
        id,
        title,
      ]),
    );
  if (kind === 'site')
    return new Map((await tables.sites.find({ id: ids })).map(({ id, name }) => [id, plain(name)]));
  if (kind === 'group')
    return new Map((await tables.groups.find({ id: ids })).map(({ id, name }) => [id, plain(name)]));
  if (kind === 'progress') {
    const labels = (await tables.teams.find({})).flatMap(({ progressLabels }) => progressLabels);
    return new Map(labels.map(({ id, name }) => [id, name]));
  }
  return new Map();
}

type Counted = { counts: Map<string | null, number>[]; isPart: boolean };

/** How many pieces of work of a list have which value, for each of some fields that hold one value. */
export async function countValues(
  { listo, viewer }: Viewing,
  definition: Pick<WorklistDefinition, 'condition'>,
  { where, by }: { where: Condition | null; by: string[] },
): Promise<Counted> {
  const { queries, reader } = await listQueries({ listo, viewer }, definition, where);
  let isPart = false;
  const counts = by.map(() => new Map<string | null, number>());
  for (const query of queries) {
    const columns = by.map((name, i) => `${valueSql(query.work, name)} AS f${i}`);
    const names = by.map((_, i) => `f${i}`).join();
    const rows = await listo.db.select<Record<string, string | null> & { count: number }>(
      `SELECT ${names}, COUNT(*) AS count FROM (SELECT ${columns.join()} FROM ${fromSql(query.work)} WHERE ${query.where} LIMIT :most) x GROUP BY ${names}`,
      { ...query.values, now: reader.now, most: MOST_COUNTED + 1 },
    );
    isPart ||= rows.reduce((sum, { count }) => sum + count, 0) > MOST_COUNTED;
    for (const row of rows)
      counts.forEach((counted, i) => {
        const value = row[`f${i}`] ?? null;
        counted.set(value, (counted.get(value) ?? 0) + row.count);
      });
  }
  return { counts, isPart };
}

/** The same for whoever asks, with the names of the values, the most frequent first. */
export async function readShares(
  { listo, viewer }: Viewing,
  definition: Pick<WorklistDefinition, 'condition'>,
  { where, by }: { where: Condition | null; by: string[] },
) {
  const fields = by.map((name) => ({ name, field: getListField(name) }));
  if (fields.length > 8 || !by.every(holdsOneValue))
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'by', code: 'notAChoice' }] });
  const { counts, isPart } = await countValues({ listo, viewer }, definition, { where, by });
  const named = await Promise.all(
    fields.map(async ({ name, field }, i) => {
      const ids = [...counts[i]!.keys()].filter((value): value is string => value !== null);
      const names = await nameValues(listo, field!.kind, ids);
      const values = [...counts[i]!]
        .map(([value, count]) => ({ value, name: (value !== null && names.get(value)) || null, count }))
        .sort((a, b) => b.count - a.count);
      return { field: name, values };
    }),
  );
  return { fields: named, isPart };
}
