import type { ChartAnswer } from '../../contract/measures';
import type { Condition } from '../../core/conditions';
import {
  ageing,
  agentsFor,
  bucketAfter,
  bucketOf,
  bucketsOf,
  expectedArrivals,
  openAt,
  quantile,
  timeToDone,
  type Span,
} from '../../core/measures';
import type { Viewing } from '../unitOfWork';
import { sqlOf, toFrom, type Ask } from './ask';

type Course = NonNullable<ChartAnswer['course']>;
type Read = { count: number; course: Course };

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** For how long open tickets are told apart (ms). */
const EDGES = [0, DAY, 3 * DAY, 7 * DAY, 14 * DAY, 30 * DAY, 90 * DAY];
/** So many points of a survival curve are sent. */
const POINTS = 80;
/** Eight weeks of hours: what comes is expected from them, with the four before as they trend. */
const KNOWN_HOURS = 8 * 7 * 24;
const AHEAD_HOURS = 14 * 24;
/** Four of five wait at most a minute: what lines usually aim at (common practice). */
const [WITHIN_SECONDS, SHARE] = [60, 0.8];

const NOTHING: Course = { flow: [], ageing: [], survival: null, expected: [] };

/** How tickets came, went and stayed over the buckets. */
async function readFlow({ listo }: Viewing, ask: Ask, buckets: number[]): Promise<Read> {
  const { period, where, chart, zone } = ask;
  const { from, values } = toFrom(ask, where, null);
  const spans = await listo.db.select<Span>(
    `SELECT t.opened, t.ended ${from} AND t.opened < :flowTo AND (t.ended IS NULL OR t.ended >= :flowFrom)`,
    { ...values, flowFrom: period.from, flowTo: period.to },
  );
  const ends = buckets.map((bucket) => bucketAfter(bucket, chart.every!, zone));
  const isIn = (at: number | null, i: number): boolean => at !== null && at >= buckets[i]! && at < ends[i]!;
  const open = openAt(
    spans,
    // What is open at the end of a bucket; of the present one, now.
    ends.map((end) => Math.min(end - 1, ask.now)),
  );
  const flow = buckets.map((_, i) => ({ opened: 0, ended: 0, open: open[i]! }));
  const place = placesIn(buckets);
  for (const { opened, ended } of spans) {
    const [came, went] = [place(opened), ended === null ? -1 : place(ended)];
    if (isIn(opened, came)) flow[came]!.opened++;
    if (isIn(ended, went)) flow[went]!.ended++;
  }
  return { count: spans.length, course: { ...NOTHING, flow } };
}

/** Finds the last of rising instants that is not after another; -1 where all are. */
function placesIn(instants: number[]): (at: number) => number {
  return (at) => {
    let [low, high] = [0, instants.length];
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (instants[middle]! <= at) low = middle + 1;
      else high = middle;
    }
    return low - 1;
  };
}

/** For how long what is open now has been so. */
async function readAgeing({ listo }: Viewing, ask: Ask): Promise<Read> {
  const open: Condition = { all: [ask.where] };
  const { from, values } = toFrom(ask, open, null);
  const spans = await listo.db.select<Span>(`SELECT t.opened, t.ended ${from} AND t.ended IS NULL`, values);
  const counts = ageing(spans, ask.now, EDGES);
  return {
    count: spans.length,
    course: { ...NOTHING, ageing: EDGES.map((edge, i) => ({ from: edge, count: counts[i]! })) },
  };
}

/** How long it takes until done, with what is still open counted. */
async function readSurvival({ listo }: Viewing, ask: Ask): Promise<Read> {
  const { from, values } = toFrom(ask, ask.where, ask.period);
  const rows = await listo.db.select<Span & { done: number | null }>(
    `SELECT t.opened, t.done, t.ended ${from}`,
    values,
  );
  const lengths = rows.map(({ opened, done, ended }) => ({
    length: Math.max(0, (done ?? ended ?? ask.now) - opened),
    isDone: done !== null,
  }));
  const done = lengths.filter(({ isDone }) => isDone).map(({ length }) => length);
  const survival = timeToDone(lengths);
  // To where nine of ten of what is done was done: the last ones would press the rest together.
  const until = quantile(done, 0.9) ?? 0;
  const shares = Array.from({ length: POINTS + 1 }, (_, i) => {
    const after = (until * i) / POINTS;
    return { after, share: survival.share(after) };
  });
  return {
    count: rows.length,
    course: {
      ...NOTHING,
      survival: {
        ...{ median: survival.median, usual: quantile(done, 0.5), shares: done.length > 0 ? shares : [] },
        open: rows.filter(({ ended }) => ended === null).length,
      },
    },
  };
}

/** How many will come hour by hour, and of conversations how many people that takes. */
async function readExpected({ listo }: Viewing, ask: Ask): Promise<Read> {
  const { chart, source, zone, now } = ask;
  const to = bucketOf(now, 'hour', zone);
  const from = bucketOf(to - KNOWN_HOURS * HOUR, 'hour', zone);
  const at = sqlOf(source, chart.at);
  const facts = toFrom(ask, ask.where, { from, to });
  const isTalk = chart.of === 'conversations';
  // By whole hours since the epoch, then by the zone's: an hour of a zone may begin at its half.
  const rows = await listo.db.select<{ at: number }>(`SELECT ${at} AS at ${facts.from}`, facts.values);
  const hours = bucketsOfHours(from, to, zone);
  const counts = hours.map((hour) => ({ at: hour, count: 0 }));
  const place = placesIn(hours);
  for (const row of rows) counts[place(row.at)]!.count++;
  const [handled] = isTalk
    ? await listo.db.select<{ ms: number | string | null }>(
        `SELECT AVG(${sqlOf(source, 'lasted')}) AS ms ${facts.from}`,
        facts.values,
      )
    : [];
  const handlingSeconds = Number(handled?.ms ?? 0) / 1_000;
  const expected = expectedArrivals(counts, AHEAD_HOURS, zone).map((hour) => ({
    ...hour,
    agents:
      handlingSeconds > 0
        ? agentsFor({ perHour: hour.mean, handlingSeconds, withinSeconds: WITHIN_SECONDS, share: SHARE })
        : null,
  }));
  return { count: rows.length, course: { ...NOTHING, expected } };
}

/** The hours of a stretch that may be longer than what is drawn. */
function bucketsOfHours(from: number, to: number, zone: string): number[] {
  const middle = bucketOf(from + (to - from) / 2, 'hour', zone);
  return [[from, middle] as const, [middle, to] as const].flatMap(([start, end]) =>
    bucketsOf('hour', { from: start, to: end }, zone),
  );
}

/** What is drawn from how facts came, went and stayed. @param buckets of the chart's period */
export function readCourse(viewing: Viewing, ask: Ask, buckets: number[]): Promise<Read> {
  switch (ask.chart.show) {
    case 'flow':
      return readFlow(viewing, ask, buckets);
    case 'ageing':
      return readAgeing(viewing, ask);
    case 'survival':
      return readSurvival(viewing, ask);
    default:
      return readExpected(viewing, ask);
  }
}
