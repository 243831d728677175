import type { Viewer } from '../../core/rights';
import type { Listo } from '../listo';
import { visibleTo } from '../tickets/visibility';
import type { Change, Effect } from './effect';
import { isRecountWaiting } from './recount';
import { askThread, endThread } from './askThread';

/** What a change would do, worked out in a thread. */
export async function findEffect(listo: Listo, viewer: Viewer, change: Change): Promise<Effect> {
  const effect = (await askThread(listo, change))!;
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

/** Goes on with recounts that wait. */
export class Recounts {
  private isAsked = false;
  private isStopped = false;

  constructor(private readonly listo: Listo) {}

  async look(): Promise<void> {
    if (this.isAsked || this.isStopped || !(await isRecountWaiting(this.listo))) return;
    this.isAsked = true;
    void askThread(this.listo)
      .catch((error: unknown) => {
        if (!this.isStopped) this.listo.log.error({ err: error }, 'a recount failed; it goes on later');
      })
      .finally(() => {
        this.isAsked = false;
        this.listo.wake();
      });
  }

  async stop(): Promise<void> {
    this.isStopped = true;
    await endThread(this.listo);
  }
}
