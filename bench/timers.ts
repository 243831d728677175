import { toNoticeRef } from '../server/clocks/settle';
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
  const [one, two] = [await startServer(), await startServer()];
  const start = listo.clock.now() + LEAD;
  const timers = clocks.map(({ ticketNumber, targetId }, i) => {
    const at = start + Math.floor((i * WITHIN) / clocks.length);
    return { ticketNumber, kind: 'clockLate' as const, ref: toNoticeRef('ticket', targetId, 'late', at), at };
  });
  for (let i = 0; i < timers.length; i += 500) await tables.timers.insertAll(timers.slice(i, i + 500));
  await new Promise((resolve) => setTimeout(resolve, LEAD + WITHIN / 2));
  await one.kill();
  const deadline = performance.now() + WITHIN;
  while (
    (await tables.timers.find({ kind: 'clockLate' }, { limit: 1 })).length > 0 &&
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
    `${timers.length.toLocaleString('en')} timers within a minute, one of two processes killed`,
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
