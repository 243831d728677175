import type { Listo } from '../listo';
import { runConsumer, type Consumer } from './consumer';
import { placeEntries } from './sequencer';

/** Looks at the journal at least this often, for entries of other processes. */
const IDLE_MS = 400;
const RETRY_MS = 1_000;

/** Keeps a process's share of what follows from the journal going. */
export class Pump {
  private timer: NodeJS.Timeout | null = null;
  private isRunning = false;
  private isWanted = false;
  private isStopped = false;
  private idle: (() => void)[] = [];

  constructor(
    private readonly listo: Listo,
    private readonly consumers: Consumer[],
    /** Called after each round, with all that was committed handled. */
    private readonly afterRound: () => Promise<void>,
  ) {}

  start(): void {
    this.schedule(0);
  }

  wake(): void {
    this.isWanted = true;
    if (!this.isRunning) this.schedule(0);
  }

  async stop(): Promise<void> {
    this.isStopped = true;
    if (this.timer) clearTimeout(this.timer);
    if (this.isRunning) await new Promise<void>((resolve) => this.idle.push(resolve));
  }

  private schedule(ms: number): void {
    if (this.isStopped) return;
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.run(), ms);
  }

  private async run(): Promise<void> {
    if (this.isRunning || this.isStopped) return;
    this.isRunning = true;
    let next = IDLE_MS;
    try {
      let isBusy = true;
      while (isBusy && !this.hasStopped()) {
        this.isWanted = false;
        isBusy = (await this.round()) || this.wasWoken();
      }
    } catch (error) {
      this.listo.log.error({ err: error }, 'what follows from the journal failed; trying again');
      next = RETRY_MS;
    } finally {
      this.isRunning = false;
      this.idle.splice(0).forEach((resolve) => resolve());
      this.schedule(next);
    }
  }

  /** Asked after an await: both may have changed meanwhile. */
  private hasStopped(): boolean {
    return this.isStopped;
  }

  private wasWoken(): boolean {
    return this.isWanted;
  }

  /** Whether anything was handled. */
  private async round(): Promise<boolean> {
    let handled = await placeEntries(this.listo.db);
    for (const consumer of this.consumers) handled += await runConsumer(this.listo, consumer);
    await this.afterRound();
    return handled > 0;
  }
}
