import type { AskedChart } from '../contract/measures';
import { chartOf, getGivenBoard, type Chart } from '../core/measures';
import { prepareDemo } from './prepare';
import { median, p95, report } from './report';
import { signIn, startServer } from './server';

const COUNT = 1_000_000;
const CALLS = 20;
const DAY = 86_400_000;
/** What is made up lies above every number of the demo. */
const FIRST = 10_000_000;

const ms = (time: number): string => `${time.toFixed(0)} ms`;

async function timesOf(work: (i: number) => Promise<unknown>): Promise<number[]> {
  const times: number[] = [];
  for (let i = 0; i < CALLS; i++) {
    const start = performance.now();
    await work(i);
    times.push(performance.now() - start);
  }
  return times;
}

/** Facts of two years, as many in each hour. */
const makeFacts = (now: number): string => `
  INSERT INTO ticket_facts (number, opened, answered, done, ended, closed, kind, serviceId, teamId, groupId, assigneeId, requesterId,
    isConfidential, state, heldFor, priority, impact, urgency, via, isDeclined, rating, teams, reopened, messages, toAnswer, toDone,
    workToAnswer, workToDone, own, waited, heldForRequester, heldForSupplier, heldForApproval, heldForOther, upTo)
  SELECT ${FIRST} + seq, at, at + 600000, IF(lasts = 0, NULL, at + lasts), IF(lasts = 0, NULL, at + lasts), NULL,
    ELT(1 + seq % 2, 'incident', 'request'), ELT(1 + seq % 5, 'kiosk', 'gate', 'printing', 'laptop', 'other'),
    ELT(1 + seq % 4, 'desk', 'onboard', 'network', 'apps'), NULL, NULL, 'tomas', 0, IF(lasts = 0, 'inWork', 'done'), NULL,
    ELT(1 + seq % 4, 'P1', 'P2', 'P3', 'P4'), 'person', 'slowsWork', ELT(1 + seq % 3, 'portal', 'mail', 'room'), 0,
    IF(seq % 7 = 0, 1 + seq % 5, NULL), 1 + seq % 3, 0, seq % 6, 600000, NULLIF(lasts, 0), 600000, NULLIF(lasts DIV 3, 0), 1, 1, 0, 0, 0, 0, 1
  FROM (SELECT seq, ${now} - (${COUNT} - seq) * ${Math.floor((730 * DAY) / COUNT)} AS at,
    IF(seq % 200 = 0, 0, (seq * 7919) % ${9 * DAY}) AS lasts FROM seq_1_to_${COUNT}) made`;

/** Boards over 1,000,000 tickets: their figures through HTTP, beside the driver's own aggregate. */
export async function benchMeasures(): Promise<void> {
  const listo = await prepareDemo();
  const [there] = await listo.db.select<{ n: number }>(
    'SELECT COUNT(*) AS n FROM ticket_facts WHERE number > :first',
    { first: FIRST },
  );
  if (there!.n < COUNT) await listo.db.run(makeFacts(listo.clock.now()));
  const server = await startServer();
  const cookie = await signIn(server.url, 'helder');
  const post = async (asked: AskedChart): Promise<unknown> => {
    const answer = await fetch(`${server.url}/api/v1/measures/chart`, {
      method: 'POST',
      headers: { Cookie: cookie, 'Content-Type': 'application/json' },
      body: JSON.stringify(asked),
    });
    if (answer.status !== 200) throw new Error(`${asked.chart.id}: ${answer.status} ${await answer.text()}`);
    return answer.json();
  };
  const boardOf =
    (id: string, chosen: AskedChart['chosen'] = {}) =>
    async (): Promise<void> => {
      const { charts, stretch } = getGivenBoard(id)!;
      const beside = charts.map(({ id: chart, by, of }) => ({ id: chart, by, of }));
      await Promise.all(charts.map((chart) => post({ chart, stretch, beside, chosen })));
    };
  for (const id of ['given-today', 'given-month', 'given-services', 'given-breaking', 'given-ahead']) {
    const times = await timesOf(boardOf(id));
    report(
      `all charts of ${id}`,
      `median ${ms(median(times))}, p95 ${ms(p95(times))}`,
      'asked: p95 under 1 s',
    );
  }
  const narrowing = await timesOf(boardOf('given-month', { 'month-6': ['kiosk'] }));
  report('a click that narrows given-month', `p95 ${ms(p95(narrowing))}`, 'asked: under 300 ms');
  const chart: Chart = { ...chartOf('tickets', 'bars', { by: 'serviceId' }), id: 'one' };
  const asked: AskedChart = { chart, stretch: { last: 12, unit: 'week' }, beside: [], chosen: {} };
  const through = await timesOf(() => post(asked));
  const bare = await timesOf(() =>
    listo.db.select(
      'SELECT serviceId, COUNT(*) AS n FROM ticket_facts WHERE opened >= :from AND isConfidential = 0 GROUP BY serviceId',
      { from: listo.clock.now() - 84 * DAY },
    ),
  );
  report(
    'tickets by service in twelve weeks, through HTTP',
    ms(median(through)),
    `${(median(through) / median(bare)).toFixed(1)} × the driver's own aggregate (${ms(median(bare))}); asked: at most 5 ×`,
  );
  await server.stop();
  await listo.db.close();
}
