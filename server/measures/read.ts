import type { AskedChart, BehindRow, ChartAnswer, ChartGroup } from '../../contract/measures';
import { toSql, type Scalar } from '../../core/conditions';
import {
  bucketAfter,
  bucketsOf,
  figureOf,
  gatherAll,
  isOfCourse,
  isOfPeople,
  NO_FACTS,
  periodBefore,
  restsOnValues,
  spreadOf,
  type Gathered,
} from '../../core/measures';
import { groupBy } from '../clocks/ticketClocks';
import { ProblemError } from '../http/problems';
import { hiddenFrom } from '../tickets/hidden';
import type { Viewing } from '../unitOfWork';
import { ofPart, prepareAsk, reckonedSql, sqlOf, toFrom, type Ask } from './ask';
import { readCourse } from './course';
import { isGathering } from './facts';
import { readNames } from './names';

/** So many parts are listed, the largest ones. */
const MOST_GROUPS = 30;
/** So many values are read for a figure that rests on each of them. */
const MOST_VALUES = 1_000_000;
const LISTED = 200;

type Key = string | number | boolean | null;
type Part = Gathered & { key: Key; bucket: number };
type Period = Ask['period'];

/** In which bucket a fact falls, from 0. */
const bucketSql = (at: string, buckets: number[]): string =>
  buckets.length === 0 ? '0' : `INTERVAL(${at}, ${buckets.join()}) - 1`;

const toNumber = (value: number | string | null): number => Number(value ?? 0);

/** The facts of a period by part and bucket: summed by the database, or value by value where a figure rests on each. */
async function gather(
  { listo, viewer: _ }: Viewing,
  ask: Ask,
  { period, buckets }: { period: Period; buckets: number[] },
): Promise<Part[]> {
  const { chart, source, where } = ask;
  const { what, by, at } = chart;
  const { from, values } = toFrom(ask, where, period);
  const key = by === null ? 'NULL' : sqlOf(source, by);
  const isFlag = by !== null && source.columns[by]!.type === 'flag';
  const toKey = (raw: Key): Key => (isFlag && raw !== null ? Boolean(raw) : raw);
  const bucket = bucketSql(sqlOf(source, at), buckets);
  const reckoned = reckonedSql(ask);
  if (restsOnValues(what) || chart.show === 'box') {
    const rows = await listo.db.select<{ k: Key; b: number; v: number | null }>(
      `SELECT ${key} AS k, ${bucket} AS b, ${reckoned} AS v ${from} LIMIT ${MOST_VALUES + 1}`,
      values,
    );
    if (rows.length > MOST_VALUES) throw new ProblemError('tooManyFacts');
    return [...groupBy(rows, ({ k, b }) => `${JSON.stringify(k)} ${b}`).values()].map((own) => {
      const known = own.flatMap(({ v }) => v ?? []);
      const sum = known.reduce((total, value) => total + value, 0);
      const { k, b } = own[0]!;
      return {
        key: toKey(k),
        bucket: b,
        count: own.length,
        met: 0,
        known: known.length,
        sum,
        values: known,
      };
    });
  }
  const met =
    what !== 'count' && 'share' in what
      ? toSql(what.share, source.columns, 'm')
      : { sql: 'FALSE', values: {} };
  const rows = await listo.db.select<
    Record<'n' | 'm' | 'known' | 'total', number | string> & { k: Key; b: number }
  >(
    `SELECT ${key} AS k, ${bucket} AS b, COUNT(*) AS n, SUM(${met.sql}) AS m, COUNT(${reckoned}) AS known, SUM(${reckoned}) AS total
     ${from} GROUP BY k, b`,
    { ...values, ...met.values },
  );
  return rows.map(({ k, b, n, m, known, total }) => ({
    ...{ key: toKey(k), bucket: b, count: toNumber(n), met: toNumber(m) },
    ...{ known: toNumber(known), sum: toNumber(total), values: [] },
  }));
}

/** The parts that are listed: the largest, and of people only those whose figures the reader may see. */
function listKeys(
  parts: Map<string, Part[]>,
  { chart: { by }, people }: Ask,
): { keys: string[]; more: number } {
  const countOf = (key: string): number => gatherAll(parts.get(key)!).count;
  const seen = [...parts.keys()].filter((key) => {
    const id = JSON.parse(key) as Key;
    return people === null || by === null || !isOfPeople(by) || id === null || people.has(String(id));
  });
  const keys = seen.sort((one, other) => countOf(other) - countOf(one)).slice(0, MOST_GROUPS);
  return { keys, more: parts.size - keys.length };
}

/** The figures of a chart. */
export async function readChart({ listo, viewer }: Viewing, asked: AskedChart): Promise<ChartAnswer> {
  const ask = await prepareAsk({ listo, viewer }, asked);
  const { chart, period, zone, now } = ask;
  const buckets = listBuckets(ask);
  const frame = { at: now, ...period, zone, buckets, isGathering: await isGathering(listo) };
  if (isOfCourse(chart.show)) {
    const course = await readCourse({ listo, viewer }, ask, buckets);
    return {
      ...frame,
      total: null,
      before: null,
      count: course.count,
      groups: [],
      more: 0,
      course: course.course,
    };
  }
  const parts = await gather({ listo, viewer }, ask, { period, buckets });
  const earlier = chart.isCompared
    ? await gather({ listo, viewer }, ask, {
        ...{ period: periodBefore(chart.stretch ?? asked.stretch, period.from, zone), buckets: [] },
      })
    : [];
  const byKey = groupBy(parts, ({ key }) => JSON.stringify(key));
  const earlierByKey = groupBy(earlier, ({ key }) => JSON.stringify(key));
  const { keys, more } = listKeys(byKey, ask);
  const names = await readNames(
    listo,
    { field: chart.by ?? '', language: viewer.language },
    keys.flatMap((key) => (JSON.parse(key) as Key) ?? []).map(String),
  );
  const figure = (some: Gathered[]): number | null => figureOf(chart.what, gatherAll(some));
  const groups = keys.map((text): ChartGroup => {
    const own = byKey.get(text)!;
    const key = JSON.parse(text) as Key;
    const inBucket = buckets.map((_, i) => own.filter(({ bucket }) => bucket === i));
    const all = gatherAll(own);
    return {
      ...{ key, name: names.get(String(key)) ?? null, total: figureOf(chart.what, all), count: all.count },
      before: chart.isCompared ? figure(earlierByKey.get(text) ?? [NO_FACTS]) : null,
      values: inBucket.map((some) => figure(some.length > 0 ? some : [NO_FACTS])),
      counts: inBucket.map((some) => gatherAll(some).count),
      spread: chart.show === 'box' ? spreadOf(all.values) : null,
    };
  });
  return {
    ...{ ...frame, groups, more, course: null },
    ...{
      total: figure(parts),
      before: chart.isCompared ? figure(earlier) : null,
      count: gatherAll(parts).count,
    },
  };
}

function listBuckets({ chart, period, zone }: Ask): number[] {
  try {
    return bucketsOf(chart.every, period, zone);
  } catch (error) {
    if (error instanceof RangeError)
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'every', code: 'tooMany' }] });
    throw error;
  }
}

/** What a figure counts, the latest first. */
export async function listBehind(
  { listo, viewer }: Viewing,
  {
    key,
    bucket,
    limit = LISTED,
    ...asked
  }: AskedChart & { key?: Scalar | undefined; bucket?: number | undefined; limit?: number },
): Promise<{ rows: BehindRow[]; isMore: boolean }> {
  const ask = await prepareAsk({ listo, viewer }, asked);
  const { chart, source, zone, people } = ask;
  if (people && chart.by !== null && isOfPeople(chart.by) && typeof key === 'string' && !people.has(key))
    throw new ProblemError('notYourPeople');
  const unit = chart.every;
  const period =
    bucket !== undefined && unit !== null
      ? { from: bucket, to: bucketAfter(bucket, unit, zone) }
      : ask.period;
  const { from, values } = toFrom(ask, { all: [ask.where, ofPart(chart, key)] }, period);
  const rows = await listo.db.select<BehindRow>(
    `SELECT f.number, COALESCE(k.title, '') AS title, p.name AS person, f.at, f.value
     FROM (SELECT ${source.number} AS number, ${source.personId} AS personId, ${sqlOf(source, chart.at)} AS at, ${reckonedSql(ask)} AS value
       ${from} ORDER BY at DESC, number DESC LIMIT :limit) f
     JOIN people p ON p.id = f.personId LEFT JOIN tickets k ON k.number = f.number
     ORDER BY f.at DESC, f.number DESC`,
    { ...values, limit: limit + 1 },
  );
  const numbers = rows.flatMap(({ number }) => number ?? []);
  // A ticket may have gone where it is in confidence since its fact was gathered, or stand behind what is not.
  const isHidden = numbers.length > 0 ? await hiddenFrom(listo, viewer, numbers) : () => false;
  return {
    rows: rows
      .slice(0, limit)
      .map((row) => (isHidden(row.number) ? { ...row, number: null, title: '', person: '' } : row)),
    isMore: rows.length > limit,
  };
}
