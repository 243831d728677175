import type { Transaction } from 'sequelize';
import { asBackground } from '../database/busy';
import type { Database } from '../database/database';
import type { Listo } from '../listo';
import type { Due, TimerRow } from './model';
import { removeTimers } from './remove';
import type { UnitOfWork } from '../unitOfWork';

/** Does what is due of its kinds, the earliest first. */
export type TimerHandler = (listo: Listo, due: Due[], tx: Transaction) => Promise<void>;

const BATCH = 50;
/** Timers may be moved by other processes, so the next one is looked up at least this often. */
const LOOK_MS = 500;
const RETRY_MS = 1_000;
const NEVER = Number.MAX_SAFE_INTEGER;

type Handlers = Record<Due['kind'], TimerHandler>;
/** What falls due: what is done then, and what lies in other tables than that of the timers. */
export type Timers = {
  handlers: Handlers;
  findOthers(db: Database, wanted: { now: number; limit: number }, tx: Transaction): Promise<Due[]>;
};

/** What is due in its order, what follows each other with one handler together. */
function toRuns(due: Due[], handlers: Handlers) {
  const runs: { handler: TimerHandler; due: Due[] }[] = [];
  for (const each of due) {
    const handler = handlers[each.kind];
    const last = runs.at(-1);
    if (last?.handler === handler) last.due.push(each);
    else runs.push({ handler, due: [each] });
  }
  return runs;
}

/** Claims what is due by its row lock: the earliest of the timers and of the notices that clocks owe. */
async function claim({ listo: { db, clock }, tx }: UnitOfWork, { findOthers }: Timers): Promise<Due[]> {
  const now = clock.now();
  const timers = await db.select<TimerRow>(
    'SELECT * FROM timers WHERE at <= :now ORDER BY at, ticketNumber LIMIT :limit FOR UPDATE SKIP LOCKED',
    { now, limit: BATCH },
    tx,
  );
  const due = [...timers, ...(await findOthers(db, { now, limit: BATCH }, tx))];
  const first = due.sort((a, b) => a.at - b.at || a.ticketNumber - b.ticketNumber).slice(0, BATCH);
  // Gone first: what they do may set them anew.
  await removeTimers(
    db,
    first.filter((each): each is TimerRow => each.kind !== 'notice'),
    tx,
  );
  return first;
}

/**
 * Does what is due, the earliest first. What is claimed is removed in the transaction that does it, so it is done once
 * however many processes run.
 * @returns how many were done
 */
export async function runDueTimers(listo: Listo, timers: Timers): Promise<number> {
  const { db } = listo;
  const done = await db.transaction(async (tx) => {
    const due = await claim({ listo, tx }, timers);
    for (const run of toRuns(due, timers.handlers)) await run.handler(listo, run.due, tx);
    return due.length;
  });
  if (done > 0) listo.wake();
  return done;
}

/** Runs timers at their instants until stopped. */
export function startTimers(listo: Listo, timers: Timers): { stop(): Promise<void> } {
  let isStopped = false;
  let timeout: NodeJS.Timeout | undefined;
  let running: Promise<void> = Promise.resolve();

  async function waitTime(): Promise<number> {
    const [next] = await listo.db.select<{ at: number }>(
      'SELECT LEAST(COALESCE((SELECT MIN(at) FROM timers), :never), COALESCE((SELECT MIN(nextAt) FROM clocks), :never)) AS at',
      { never: NEVER },
    );
    const left = next!.at - listo.clock.now();
    return Math.min(LOOK_MS, Math.max(0, left));
  }

  async function turn(): Promise<void> {
    let wait = RETRY_MS;
    try {
      const done = await runDueTimers(listo, timers);
      wait = done === BATCH ? 0 : await waitTime();
    } catch (error) {
      listo.log.error({ err: error }, 'timers failed; trying again');
    }
    schedule(wait);
  }

  function schedule(ms: number): void {
    if (isStopped) return;
    timeout = setTimeout(() => {
      running = asBackground(turn);
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
