import type { Logger } from 'pino';

/** Numbers are given before they are committed: so far back is looked once more. */
const LOOK_BACK = 40;
const BATCH = 300;

type Options<Row> = {
  /** How often it is looked for what other processes wrote. */
  everyMs: number;
  log: Logger;
  /** Whether anybody wants to know. */
  isWatched(): boolean;
  numberOf(row: Row): number;
  /** The rows after a number, in order, at most so many. */
  read(after: number, limit: number): Promise<Row[]>;
  /** Given what is new, each once; also when nothing is. */
  pass(rows: Row[]): Promise<void>;
};

/** Follows rows that a table numbers as they come, and passes each on once, soon after it is there. */
export class Follower<Row> {
  private position = Infinity;
  private passed = new Set<number>();
  private looking: Promise<void> | null = null;
  private isWanted = false;
  private readonly timer: NodeJS.Timeout;

  constructor(private readonly options: Options<Row>) {
    this.timer = setInterval(() => this.look(), options.everyMs).unref();
  }

  /** From this number on: what stands before it is of no more interest. */
  begin(position: number): void {
    this.position = position;
    this.passed = new Set(Array.from({ length: LOOK_BACK }, (_, i) => position - i));
  }

  look(): void {
    if (!this.options.isWatched() || this.position === Infinity) return;
    if (this.looking) {
      this.isWanted = true;
      return;
    }
    this.looking = this.turn()
      .catch((error: unknown) => this.options.log.debug({ err: error }, 'could not be followed'))
      .finally(() => {
        this.looking = null;
        if (!this.isWanted) return;
        this.isWanted = false;
        this.look();
      });
  }

  async stop(): Promise<void> {
    clearInterval(this.timer);
    await this.looking;
  }

  private async turn(): Promise<void> {
    const { read, numberOf, pass } = this.options;
    const rows = await read(this.position - LOOK_BACK, BATCH);
    const fresh = rows.filter((row) => !this.passed.has(numberOf(row)));
    // Passed on first: what could not be is looked for again.
    await pass(fresh);
    fresh.forEach((row) => this.passed.add(numberOf(row)));
    this.position = Math.max(this.position, ...rows.map(numberOf));
    if (this.passed.size > 4 * BATCH)
      this.passed = new Set([...this.passed].filter((number) => number > this.position - 2 * LOOK_BACK));
  }
}
