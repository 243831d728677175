import { prepareDemo } from './prepare';
import { report } from './report';
import { startServer } from './server';

const TIMERS = 5_000;
const WITHIN = 60_000;
const LEAD = 6_000;

/** Timers that fall due within a minute, with two processes, one of which is killed half way. */
export async function benchTimers(): Promise<void> {
  const listo = await prepareDemo();
  const { tables, select, run } = listo.db;
  const clocks = await select<{ ticketNumber: number; targetId: string }>(
    "SELECT ticketNumber, targetId FROM clocks WHERE work = 'ticket' AND targetId IN ('first-answer', 'resolution') LIMIT :limit",
    { limit: TIMERS },
  );
  await run('DELETE FROM timers');
  await run("UPDATE clocks SET fired = '[]', owed = '[]', nextAt = NULL");
  const [one, two] = [await startServer(), await startServer()];
  const start = listo.clock.now() + LEAD;
  for (const [i, { ticketNumber, targetId }] of clocks.entries()) {
    const at = start + Math.floor((i * WITHIN) / clocks.length);
    await tables.clocks.update(
      { ticketNumber, targetId, work: 'ticket' },
      { owed: [['late', at]], nextAt: at },
    );
  }
  await new Promise((resolve) => setTimeout(resolve, LEAD + WITHIN / 2));
  await one.kill();
  const deadline = performance.now() + WITHIN;
  while (
    (await select('SELECT 1 FROM clocks WHERE nextAt IS NOT NULL LIMIT 1')).length > 0 &&
    performance.now() < deadline
  )
    await new Promise((resolve) => setTimeout(resolve, 100));
  const fired = await select<{ dueAt: number; at: number; ticketNumber: number; targetId: string }>(
    `SELECT at, ticketNumber, JSON_VALUE(data, '$.dueAt') + 0 AS dueAt, JSON_VALUE(data, '$.targetId') AS targetId
     FROM journal WHERE type = 'late' AND at >= :start`,
    { start },
  );
  const late = fired.map(({ at, dueAt }) => at - dueAt).sort((a, b) => a - b);
  const once = new Set(
    fired.map(({ ticketNumber, targetId, dueAt }) => `${ticketNumber} ${targetId} ${dueAt}`),
  ).size;
  report(
    `${clocks.length.toLocaleString('en')} timers within a minute, one of two processes killed`,
    `${fired.length.toLocaleString('en')} fired`,
    `${once.toLocaleString('en')} different`,
  );
  report(
    'lateness, p50 and p99',
    `${late[Math.floor(late.length / 2)]!} ms`,
    `p99 ${late[Math.floor(late.length * 0.99)]!} ms, most ${late.at(-1)!} ms`,
  );
  await two.stop();
  await listo.db.close();
}
