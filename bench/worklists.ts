import mariadb from 'mariadb';
import { GIVEN_LISTS, GIVEN_NAMES, resolveCondition } from '../core/worklist';
import type { Listo } from '../server/listo';
import { createDatabase } from '../server/testing/createDatabase';
import { findPersonAsViewer } from '../server/sessions/viewer';
import { createWorkQuery, placesSql } from '../server/worklists/query';
import { createReader } from '../server/worklists/reader';
import { ROW_JOINS, ROW_SELECT } from '../server/worklists/rows';
import { prepareDemo } from './prepare';
import { median, report } from './report';
import { seedTickets } from './seed';
import { signIn, startServer, untilQuiet } from './server';

const ROUNDS = 30;
const PAGE = 50;
/** What takes longer is measured by what was done until then. */
const MOST_MS = 10_000;
const PERSON = 'rui';
/** Of the 10,000 half are open: pages and counts are then as full as those of the million. */
const SMALL = { size: 10_000, openShare: 1 / 2 };

const timed = async (work: () => Promise<unknown>): Promise<number> => {
  const start = performance.now();
  await work();
  return performance.now() - start;
};
const ms = (value: number): string => `${value.toFixed(2)} ms`;

/** The page's own SELECT, over the bare driver: what a list can cost at least. */
async function bareQuery(listo: Listo, name: (typeof GIVEN_NAMES)[number]) {
  const viewer = (await findPersonAsViewer(listo, PERSON))!;
  const reader = await createReader(listo, viewer);
  const { condition, order, groupBy } = GIVEN_LISTS[name];
  const query = createWorkQuery('ticket', {
    ...{ viewer, order, groupBy, after: null },
    condition: resolveCondition(condition, reader),
  })!;
  const sql = `${ROW_SELECT} FROM ${placesSql(query)} k STRAIGHT_JOIN tickets t ${ROW_JOINS} WHERE t.number = k.n`;
  return { sql, values: { ...query.values, limit: PAGE + 1, now: reader.now } };
}

type Asked = { url: string; cookie: string };
/** Of a page of 50, and of as many rows as both sizes have. */
type Figures = Record<'bare' | 'large' | 'small' | 'alike', number>;

/** A request for a page of a list. @returns how many rows it has */
const pageOf =
  ({ url, cookie }: Asked, name: string, { limit = PAGE, after = '' } = {}) =>
  async (): Promise<number> => {
    const from = after && `&after=${encodeURIComponent(after)}`;
    const response = await fetch(`${url}/api/v1/worklists/${name}?limit=${limit}${from}`, {
      headers: { Cookie: cookie },
    });
    if (!response.ok) throw new Error(`${name}: ${response.status}`);
    return ((await response.json()) as { rows: unknown[] }).rows.length;
  };

/** Each kind of asking by turns, so that what else the machine does falls on all alike. @returns ms by kind */
async function byTurns<K extends string>(
  kinds: Record<K, () => Promise<unknown>>,
): Promise<Record<K, number>> {
  const took = new Map<K, number[]>();
  const began = performance.now();
  const names = Object.keys(kinds) as K[];
  for (let i = 0; i < ROUNDS && performance.now() - began < MOST_MS; i++)
    for (const name of names) took.set(name, [...(took.get(name) ?? []), await timed(kinds[name])]);
  // The first rounds read what is not in memory yet.
  return Object.fromEntries(
    names.map((name) => [name, median(took.get(name)!.slice(10 - ROUNDS))]),
  ) as Record<K, number>;
}

async function measureList(
  listo: Listo,
  name: (typeof GIVEN_NAMES)[number],
  [small, large]: [Asked, Asked],
): Promise<Figures> {
  const { sql, values } = await bareQuery(listo, name);
  const connection = await mariadb.createConnection(listo.config.DATABASE_URL.replace(/^mysql/, 'mariadb'));
  // The page with its clocks: what a list shows at least.
  const bare = async (): Promise<void> => {
    const rows = (await connection.query({ sql, namedPlaceholders: true }, values)) as { number: bigint }[];
    const numbers = rows.map(({ number }) => number);
    if (numbers.length > 0)
      await connection.query('SELECT * FROM clocks WHERE ticketNumber IN (?)', [numbers]);
  };
  // As full a page of either: of some work there is less among 10,000.
  const limit = Math.max(1, await pageOf(small, name)());
  const figures = await byTurns({
    ...{ bare, large: pageOf(large, name) },
    ...{ small: pageOf(small, name, { limit }), alike: pageOf(large, name, { limit }) },
  });
  await connection.end();
  return figures;
}

/** Everything's first page, and one that begins so deep in it. */
async function measureDepth(
  listo: Listo,
  asked: Asked,
  deep: number,
): Promise<{ top: number; below: number }> {
  const [row] = await listo.db.select<{ number: number }>(
    `SELECT number FROM tickets ORDER BY number DESC LIMIT 1 OFFSET ${deep}`,
  );
  const after = JSON.stringify(['', row!.number, row!.number, '']);
  return byTurns({
    top: pageOf(asked, 'everything'),
    below: pageOf(asked, 'everything', { after }),
  });
}

/** A database with the demo filled up to so many tickets, and the application on it. */
async function openSized(url: string, size: number, openShare: number) {
  const listo = await prepareDemo(url);
  const start = performance.now();
  const made = await seedTickets(listo, size, openShare);
  report(
    `seed to ${made.tickets.toLocaleString('en')} tickets, ${made.open.toLocaleString('en')} open`,
    `${((performance.now() - start) / 1000).toFixed(1)} s`,
  );
  const server = await startServer({ url });
  return { listo, server, asked: { url: server.url, cookie: await signIn(server.url, PERSON) } };
}

/** Worklists over a million tickets (or as many as LISTO_BENCH_TICKETS says), beside the driver and 10,000 tickets. */
export async function benchWorklists(): Promise<void> {
  const url = process.env.DATABASE_URL!;
  const wanted = Number(process.env.LISTO_BENCH_TICKETS ?? 1_000_000);
  const small = await openSized(await createDatabase(url, 'listo_small'), SMALL.size, SMALL.openShare);
  const large = await openSized(url, wanted, 1 / 20);
  await untilQuiet(large.listo);
  const { top, below } = await measureDepth(
    large.listo,
    large.asked,
    Math.min(100_000, Math.floor(wanted / 2)),
  );
  report(
    'everything: page at depth 100,000 against the first',
    `${(below / top).toFixed(2)} x`,
    `${ms(below)} / ${ms(top)}`,
  );
  for (const name of GIVEN_NAMES) {
    const figures = await measureList(large.listo, name, [small.asked, large.asked]);
    report(
      `${name}: first page of 50 through HTTP against the driver`,
      `${(figures.large / figures.bare).toFixed(2)} x`,
      `${ms(figures.large)} / ${ms(figures.bare)}; at 10,000: ${ms(figures.small)} (${(figures.alike / figures.small).toFixed(2)} x)`,
    );
  }
  for (const { server, listo } of [small, large]) {
    await server.stop();
    await listo.db.close();
  }
}
