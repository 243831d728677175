import { Worker } from 'node:worker_threads';
import type { Viewer } from '../../core/rights';
import type { Listo } from '../listo';
import { visibleTo } from '../tickets/visibility';
import type { Change, Effect } from './effect';
import { isRecountWaiting } from './recount';
import type { WorkerTask } from './worker';

/** Work on every open ticket runs in a thread of its own, so that pages go on being answered. */
function startWorker(listo: Listo, change?: Change): Worker {
  const task: WorkerTask = {
    config: listo.config,
    clockOffset: listo.clock.now() - Date.now(),
    ...(change && { change }),
  };
  return new Worker(new URL('./thread.mjs', import.meta.url), {
    workerData: task,
    execArgv: [],
  });
}

/** What a change would do, worked out in a thread. */
export async function findEffect(listo: Listo, viewer: Viewer, change: Change): Promise<Effect> {
  const effect = await new Promise<Effect>((resolve, reject) => {
    const worker = startWorker(listo, change);
    worker.once('message', (effect: Effect) => resolve(effect));
    worker.once('error', reject);
    worker.once('exit', () => reject(new Error('the thread ended without an answer')));
  });
  return { ...effect, becomeLate: await keepVisible(listo, viewer, effect.becomeLate) };
}

/** Counts are of all tickets; named are those that one may see. */
async function keepVisible(
  listo: Listo,
  viewer: Viewer,
  listed: Effect['becomeLate'],
): Promise<Effect['becomeLate']> {
  if (listed.length === 0) return [];
  const { sql, values } = visibleTo(viewer);
  const rows = await listo.db.select<{ number: number }>(
    `SELECT t.number FROM tickets t WHERE t.number IN (:numbers) AND ${sql}`,
    { ...values, numbers: listed.map(({ number }) => number) },
  );
  const visible = new Set(rows.map(({ number }) => number));
  return listed.filter(({ number }) => visible.has(number));
}

/** Goes on with recounts that wait, one thread at a time in this process. */
export class Recounts {
  private worker: Worker | null = null;
  private isStopped = false;

  constructor(private readonly listo: Listo) {}

  async look(): Promise<void> {
    if (this.worker || this.isStopped || !(await isRecountWaiting(this.listo))) return;
    const worker = startWorker(this.listo);
    this.worker = worker;
    worker.on('error', (error) => this.listo.log.error({ err: error }, 'a recount failed; it goes on later'));
    worker.once('exit', () => {
      this.worker = null;
      this.listo.wake();
    });
  }

  async stop(): Promise<void> {
    this.isStopped = true;
    await this.worker?.terminate();
  }
}
