import { asBackground } from '../database/busy';
import type { Listo } from '../listo';
import { createEntryReader, passOver, runConsumer, type Consumer, type EntryReader } from './consumer';
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
  private cancel: () => void = () => undefined;
  private running: Promise<void> | null = null;
  private isWanted = false;
  private isStopped = false;
  private lastBegan = -Infinity;
  private pace = PACE_MS;

  constructor(
    private readonly listo: Listo,
    /** Pages wait for what is done inward, for what goes out they do not. Null: other processes do it, this one looks how far they are. */
    private readonly consumers: { inward: Consumer[]; outward: Consumer[] } | null,
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
    this.cancel();
    await this.running;
  }

  private untilNext(): number {
    return Math.max(0, this.lastBegan + this.pace - performance.now());
  }

  private schedule(ms: number): void {
    if (this.isStopped) return;
    this.cancel();
    const begin = (): void => {
      this.running = asBackground(() => this.run());
    };
    // A timer takes a millisecond at least.
    if (ms > 0) {
      const timer = setTimeout(begin, ms);
      this.cancel = () => clearTimeout(timer);
    } else {
      const immediate = setImmediate(begin);
      this.cancel = () => clearImmediate(immediate);
    }
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
    if (!this.consumers) {
      await this.on.inwardDone();
      await this.on.roundDone();
      return false;
    }
    const placed = await placeEntries(this.listo.db);
    this.pace = placed >= BUSY_FROM ? BUSY_PACE_MS : PACE_MS;
    let handled = placed;
    const readAfter = createEntryReader(this.listo);
    const { inward, outward } = this.consumers;
    handled += await this.follow(inward, readAfter);
    await this.on.inwardDone();
    handled += await this.follow(outward, readAfter);
    await this.on.roundDone();
    return handled > 0;
  }

  /** Lets consumers that have something to do do it, one after the other. */
  private async follow(consumers: Consumer[], readAfter: EntryReader): Promise<number> {
    const { moved, left } = await passOver(this.listo, consumers, readAfter);
    let handled = moved;
    for (const consumer of left) handled += await runConsumer(this.listo, consumer, readAfter);
    return handled;
  }
}
