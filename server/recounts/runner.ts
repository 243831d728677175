import type { Viewer } from '../../core/rights';
import { inTurn } from '../http/limits';
import type { Listo } from '../listo';
import type { Change, Effect } from './effect';
import { isRecountWaiting } from './recount';
import { askThread, endThread } from './askThread';

/** What a change would do to the tickets that the viewer may read, worked out in a thread. */
export async function findEffect(listo: Listo, viewer: Viewer, change: Change): Promise<Effect> {
  const { id, isAdministrator, mayAskForOthers, teams } = viewer;
  const look = { change, viewer: { id, isAdministrator, mayAskForOthers, teams } };
  return (await inTurn(id, () => askThread(listo, look)))!;
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
