import type { Listo } from '../listo';
import { createEntryReader, runConsumer, type Consumer } from './consumer';
import { placeEntries } from './sequencer';

/** Looks at the journal at least this often, for entries of other processes. */
const IDLE_MS = 400;
const RETRY_MS = 1_000;
/** Rounds begin at least this far apart, and further while much happens, so that each handles many entries at once. */
const PACE_MS = 40;
const BUSY_PACE_MS = 200;
const BUSY_FROM = 8;

/** Keeps a process's share of what follows from the journal going. */
export class Pump {
  private timer: NodeJS.Timeout | null = null;
  private running: Promise<void> | null = null;
  private isWanted = false;
  private isStopped = false;
  private lastBegan = -Infinity;
  private pace = PACE_MS;

  constructor(
    private readonly listo: Listo,
    /** Pages wait for what is done inward, for what goes out they do not. */
    private readonly consumers: { inward: Consumer[]; outward: Consumer[] },
    private readonly on: { inwardDone(): Promise<void>; roundDone(): Promise<void> },
  ) {}

  start(): void {
    this.schedule(0);
  }

  /** Something was committed: at once when idle, else with the next round. */
  wake(): void {
    this.isWanted = true;
    if (!this.running) this.schedule(this.untilNext());
  }

  async stop(): Promise<void> {
    this.isStopped = true;
    if (this.timer) clearTimeout(this.timer);
    await this.running;
  }

  private untilNext(): number {
    return Math.max(0, this.lastBegan + this.pace - performance.now());
  }

  private schedule(ms: number): void {
    if (this.isStopped) return;
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.running = this.run();
    }, ms);
  }

  private async run(): Promise<void> {
    this.lastBegan = performance.now();
    this.isWanted = false;
    let wait: number;
    try {
      const isBusy = await this.round();
      wait = isBusy || this.wasWoken() ? this.untilNext() : IDLE_MS;
    } catch (error) {
      this.listo.log.error({ err: error }, 'what follows from the journal failed; trying again');
      wait = RETRY_MS;
    }
    this.running = null;
    this.schedule(wait);
  }

  /** Asked after an await: it may have changed meanwhile. */
  private wasWoken(): boolean {
    return this.isWanted;
  }

  /** Whether anything was handled. */
  private async round(): Promise<boolean> {
    const placed = await placeEntries(this.listo.db);
    this.pace = placed >= BUSY_FROM ? BUSY_PACE_MS : PACE_MS;
    let handled = placed;
    const readAfter = createEntryReader(this.listo);
    const { inward, outward } = this.consumers;
    for (const consumer of inward) handled += await runConsumer(this.listo, consumer, readAfter);
    await this.on.inwardDone();
    for (const consumer of outward) handled += await runConsumer(this.listo, consumer, readAfter);
    await this.on.roundDone();
    return handled > 0;
  }
}
