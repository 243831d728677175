import { judgePart, worstOf, type Part, type Waiting } from '../../core/running';
import type { Running } from '../../contract/running';
import { readSeats } from '../database/busy';
import { nodesOf } from '../database/nodes';
import type { Listo } from '../listo';
import { CLEARED } from './clear';

/** How many wait, and since when (epoch ms) the first of them; each at least the columns `waiting` and `since`. */
const WAITING: Record<Exclude<Part, 'database'>, string> = {
  // What is committed and some consumer has not come to yet.
  follows: `SELECT COUNT(*) AS waiting, MIN(at) AS since FROM (
      (SELECT at FROM journal WHERE position IS NULL LIMIT 1000) UNION ALL
      (SELECT at FROM journal WHERE position > (SELECT MIN(position) FROM consumers WHERE name <> 'sequencer')
         ORDER BY position LIMIT 1000)) ahead`,
  timers: `SELECT COUNT(*) AS waiting, MIN(at) AS since FROM (
      (SELECT at FROM timers WHERE at <= :now ORDER BY at LIMIT 1000) UNION ALL
      (SELECT nextAt FROM clocks WHERE nextAt <= :now ORDER BY nextAt LIMIT 1000)) due`,
  mail: "SELECT COUNT(*) AS waiting, MIN(at) AS since FROM mail_out WHERE state = 'waiting'",
  chat: "SELECT COUNT(*) AS waiting, MIN(at) AS since FROM chat_out WHERE state = 'waiting'",
  webhooks: "SELECT COUNT(*) AS waiting, MIN(at) AS since FROM webhook_deliveries WHERE state = 'waiting'",
  // A job that is being done renews its lease; one whose lease is over waits for somebody to take it up.
  jobs: `SELECT COUNT(*) AS waiting, MIN(leaseUntil) AS since FROM (
      (SELECT leaseUntil FROM bulk_jobs WHERE state = 'running' AND leaseUntil < :now) UNION ALL
      (SELECT leaseUntil FROM imports WHERE state = 'running' AND leaseUntil < :now)) idle`,
};

/** What waits for each part. */
export async function readWaiting(listo: Listo): Promise<Record<Part, Waiting>> {
  const now = listo.clock.now();
  const began = performance.now();
  const names = Object.keys(WAITING) as (keyof typeof WAITING)[];
  const read = await Promise.all(
    names.map(async (name) => {
      const [row] = await listo.db.select<{ waiting: number; since: number | null }>(WAITING[name], { now });
      const longestMs = row!.since === null ? 0 : Math.max(0, now - row!.since);
      return [name, { waiting: row!.waiting, longestMs }] as const;
    }),
  );
  // The database is judged by how long it kept this question waiting.
  const { waiting } = readSeats(listo.db.sequelize, 'pages');
  const database = { waiting: waiting + 1, longestMs: Math.round(performance.now() - began) };
  return { ...(Object.fromEntries(read) as Record<keyof typeof WAITING, Waiting>), database };
}

async function readCluster({ db }: Listo): Promise<Running['cluster']> {
  if (!nodesOf(db.sequelize).isCluster) return null;
  const rows = await db.select<{ Variable_name: string; Value: string }>(
    "SHOW STATUS WHERE Variable_name IN ('wsrep_cluster_size')",
  );
  const [name] = await db.select<{ Value: string }>("SHOW VARIABLES LIKE 'wsrep_node_name'");
  return { nodes: Number(rows[0]?.Value ?? 0), used: name?.Value ?? '' };
}

/** How it runs: the whole by the database, and the process that was asked. */
export async function readRunning(listo: Listo, streams: number): Promise<Running> {
  const waiting = await readWaiting(listo);
  const parts = (Object.keys(waiting) as Part[]).map((part) => ({
    ...{ part, standing: judgePart(part, waiting[part]) },
    ...waiting[part],
  }));
  return {
    at: listo.clock.now(),
    standing: worstOf(parts.map(({ standing }) => standing)),
    parts,
    process: {
      roles: listo.config.LISTO_ROLES,
      sinceMs: Math.round(process.uptime() * 1_000),
      memoryBytes: process.memoryUsage.rss(),
      streams,
    },
    cluster: await readCluster(listo),
    cleared: CLEARED,
  };
}
