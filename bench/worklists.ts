import mariadb from 'mariadb';
import { GIVEN_LISTS, GIVEN_NAMES, resolveCondition } from '../core/worklist';
import type { Listo } from '../server/listo';
import { findPersonAsViewer } from '../server/sessions/viewer';
import { createWorkQuery, placesSql } from '../server/worklists/query';
import { createReader } from '../server/worklists/reader';
import { ROW_JOINS, ROW_SELECT } from '../server/tickets/rows';
import { prepareDemo } from './prepare';
import { median, report } from './report';
import { seedTickets } from './seed';
import { signIn, startServer, untilQuiet } from './server';

const ROUNDS = 30;
/** What takes longer is measured by what was done until then. */
const MOST_MS = 8_000;
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
  return { sql, values: { ...query.values, limit: 51, now: reader.now } };
}

async function measureList(listo: Listo, url: string, cookie: string, name: (typeof GIVEN_NAMES)[number]) {
  const { sql, values } = await bareQuery(listo, name);
  const connection = await mariadb.createConnection(listo.config.DATABASE_URL.replace(/^mysql/, 'mariadb'));
  // The page with its clocks: what a list shows at least.
  const read = async (): Promise<void> => {
    const rows = (await connection.query({ sql, namedPlaceholders: true }, values)) as { number: bigint }[];
    const numbers = rows.map(({ number }) => number);
    if (numbers.length > 0)
      await connection.query('SELECT * FROM clocks WHERE ticketNumber IN (?)', [numbers]);
  };
  const ask = async (): Promise<void> => {
    const response = await fetch(`${url}/api/v1/worklists/${name}?limit=50`, { headers: { Cookie: cookie } });
    if (!response.ok) throw new Error(`${name}: ${response.status}`);
    await response.json();
  };
  const bare: number[] = [];
  const http: number[] = [];
  const began = performance.now();
  for (let i = 0; i < ROUNDS && performance.now() - began < MOST_MS; i++) {
    bare.push(await timed(read));
    http.push(await timed(ask));
  }
  await connection.end();
  return { bare: median(bare.slice(-20)), http: median(http.slice(-20)) };
}

/** How deep in Everything the rows are read that a page begins after. */
async function measureDepth(
  url: string,
  cookie: string,
  deep: number,
  listo: Listo,
): Promise<[number, number]> {
  const [row] = await listo.db.select<{ number: number }>(
    `SELECT number FROM tickets ORDER BY number DESC LIMIT 1 OFFSET ${deep}`,
  );
  const after = encodeURIComponent(JSON.stringify(['', row!.number, row!.number, '']));
  const ask = (query: string) => async (): Promise<void> => {
    await (
      await fetch(`${url}/api/v1/worklists/everything?limit=50${query}`, { headers: { Cookie: cookie } })
    ).json();
  };
  const top: number[] = [];
  const below: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    top.push(await timed(ask('')));
    below.push(await timed(ask(`&after=${after}`)));
  }
  return [median(top.slice(10)), median(below.slice(10))];
}

/** Worklists over a million tickets (or as many as LISTO_BENCH_TICKETS says), beside the driver and 10,000 tickets. */
export async function benchWorklists(): Promise<void> {
  const listo = await prepareDemo();
  const wanted = Number(process.env.LISTO_BENCH_TICKETS ?? 1_000_000);
  const figures = new Map<string, { bare: number; http: number }[]>();
  for (const { size, openShare } of [SMALL, { size: wanted, openShare: 1 / 20 }]) {
    const took = await timed(() => seedTickets(listo, size, openShare));
    const made = await seedTickets(listo, size, openShare);
    report(
      `seed to ${made.tickets.toLocaleString('en')} tickets, ${made.open.toLocaleString('en')} open`,
      `${(took / 1000).toFixed(1)} s`,
    );
    const server = await startServer();
    const cookie = await signIn(server.url, PERSON);
    await untilQuiet(listo);
    for (const name of GIVEN_NAMES) {
      const measured = await measureList(listo, server.url, cookie, name);
      if (process.env.LISTO_BENCH_LOUD) report(name, ms(measured.http), ms(measured.bare));
      figures.set(name, [...(figures.get(name) ?? []), measured]);
    }
    if (size === wanted) {
      const [top, below] = await measureDepth(
        server.url,
        cookie,
        Math.min(100_000, Math.floor(size / 2)),
        listo,
      );
      report(
        'everything: page at depth 100,000 against the first',
        `${(below / top).toFixed(2)} x`,
        `${ms(below)} / ${ms(top)}`,
      );
    }
    await server.stop();
  }
  for (const [name, [small, large]] of figures)
    report(
      `${name}: first page of 50 through HTTP against the driver`,
      `${(large!.http / large!.bare).toFixed(2)} x`,
      `${ms(large!.http)} / ${ms(large!.bare)}; at 10,000: ${ms(small!.http)} (${(large!.http / small!.http).toFixed(2)} x)`,
    );
  await listo.db.close();
}
