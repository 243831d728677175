import type { Transaction } from 'sequelize';
import type { Listo } from '../listo';
import type { TimerKind, TimerRow } from './model';
import { removeTimers } from './remove';

/** Does what is due of its kinds, the earliest first. */
export type TimerHandler = (listo: Listo, timers: TimerRow[], tx: Transaction) => Promise<void>;

const BATCH = 50;
/** Timers may be moved by other processes, so the next one is looked up at least this often. */
const LOOK_MS = 500;
const RETRY_MS = 1_000;

/** Timers in their order, those that follow each other with one handler together. */
function toRuns(due: TimerRow[], handlers: Record<TimerKind, TimerHandler>) {
  const runs: { handler: TimerHandler; timers: TimerRow[] }[] = [];
  for (const timer of due) {
    const handler = handlers[timer.kind];
    const last = runs.at(-1);
    if (last?.handler === handler) last.timers.push(timer);
    else runs.push({ handler, timers: [timer] });
  }
  return runs;
}

/**
 * Does what is due, the earliest first. A timer is claimed by its row lock and removed in the transaction that does
 * it, so it is done once however many processes run.
 * @returns how many were done
 */
export async function runDueTimers(listo: Listo, handlers: Record<TimerKind, TimerHandler>): Promise<number> {
  const { db, clock } = listo;
  const done = await db.transaction(async (tx) => {
    const due = await db.select<TimerRow>(
      'SELECT * FROM timers WHERE at <= :now ORDER BY at, ticketNumber LIMIT :limit FOR UPDATE SKIP LOCKED',
      { now: clock.now(), limit: BATCH },
      tx,
    );
    if (due.length === 0) return 0;
    // Gone first: what they do may set them anew.
    await removeTimers(listo, due, tx);
    for (const { handler, timers } of toRuns(due, handlers)) await handler(listo, timers, tx);
    return due.length;
  });
  if (done > 0) listo.wake();
  return done;
}

/** Runs timers at their instants until stopped. */
export function startTimers(
  listo: Listo,
  handlers: Record<TimerKind, TimerHandler>,
): { stop(): Promise<void> } {
  let isStopped = false;
  let timeout: NodeJS.Timeout | undefined;
  let running: Promise<void> = Promise.resolve();

  async function waitTime(): Promise<number> {
    const [next] = await listo.db.select<{ at: number | null }>('SELECT MIN(at) AS at FROM timers');
    const left = next?.at == null ? LOOK_MS : next.at - listo.clock.now();
    return Math.min(LOOK_MS, Math.max(0, left));
  }

  async function turn(): Promise<void> {
    let wait = RETRY_MS;
    try {
      const done = await runDueTimers(listo, handlers);
      wait = done === BATCH ? 0 : await waitTime();
    } catch (error) {
      listo.log.error({ err: error }, 'timers failed; trying again');
    }
    schedule(wait);
  }

  function schedule(ms: number): void {
    if (isStopped) return;
    timeout = setTimeout(() => {
      running = turn();
    }, ms);
  }

  schedule(0);
  return {
    async stop() {
      isStopped = true;
      clearTimeout(timeout);
      await running;
    },
  };
}
