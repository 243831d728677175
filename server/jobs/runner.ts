import { setTimeout } from 'node:timers/promises';
import type { Listo } from '../listo';

/** So many entries may wait for what follows from them before a job waits too. */
const MOST_AHEAD = 400;
const LOOK_MS = 100;
/** Where nothing follows any more, jobs go on all the same, slowly. */
const MOST_WAIT_MS = 5_000;

type Leased = { id: string; leaseUntil: number };

/**
 * Works off long jobs that lie in a table, one at a time in this process; others may work off others. A process has a
 * job until its lease runs out, and takes that on as it goes; one that dies loses it. Leases go by the machine's clock.
 */
export abstract class JobRunner<Job extends Leased> {
  protected isStopped = false;
  private going: Promise<void> | null = null;

  constructor(
    protected readonly listo: Listo,
    private readonly table: 'bulk_jobs' | 'imports',
    private readonly leaseMs: number,
  ) {}

  /** Looks for a job that nobody has. */
  look(): void {
    if (this.going || this.isStopped) return;
    this.going = this.run()
      .catch((error: unknown) =>
        this.listo.log.error({ err: error, jobs: this.table }, 'a job failed; it goes on later'),
      )
      .finally(() => (this.going = null));
  }

  async stop(): Promise<void> {
    this.isStopped = true;
    await this.going;
  }

  /** Works a job off until it is done, stopped, or this process ends. */
  protected abstract workOff(job: Job): Promise<void>;

  /** Until when a job is this process's; where that ends, another or the next start goes on at once. */
  protected nextLease(): number {
    return this.isStopped ? 0 : Date.now() + this.leaseMs;
  }

  /**
   * Waits until what follows from the journal has come along. A job that ran ahead of it would have everyone else wait
   * for mails, clocks and what they see live, until all of the job had had its turn.
   */
  protected async untilFollowed(): Promise<void> {
    const until = performance.now() + MOST_WAIT_MS;
    while (!this.isStopped && performance.now() < until && (await this.countAhead()) > MOST_AHEAD)
      await setTimeout(LOOK_MS);
  }

  private async countAhead(): Promise<number> {
    const [row] = await this.listo.db.select<{ ahead: number | null }>(
      `SELECT MAX(position) - (SELECT MIN(position) FROM consumers WHERE name <> 'sequencer')
         + (SELECT COUNT(*) FROM journal WHERE position IS NULL) AS ahead FROM journal`,
    );
    return row?.ahead ?? 0;
  }

  private async run(): Promise<void> {
    for (let job = await this.claim(); job && !this.isStopped; job = await this.claim())
      await this.workOff(job);
  }

  private async claim(): Promise<Job | null> {
    const { transaction, select, run } = this.listo.db;
    const now = Date.now();
    // A lease that ends later than one lasts was written by a clock that ran ahead: nobody holds it for so long.
    const latest = now + this.leaseMs;
    const free = `FROM ${this.table} WHERE state = 'running' AND (leaseUntil < :now OR leaseUntil > :latest)`;
    // Mostly there is none: that is one short read a round.
    if ((await select(`SELECT 1 ${free} LIMIT 1`, { now, latest })).length === 0) return null;
    return transaction(async (tx) => {
      const [job] = await select<Job>(
        `SELECT * ${free} ORDER BY at LIMIT 1 FOR UPDATE SKIP LOCKED`,
        { now, latest },
        tx,
      );
      if (!job) return null;
      await run(
        `UPDATE ${this.table} SET leaseUntil = :until WHERE id = :id`,
        { id: job.id, until: latest },
        tx,
      );
      return job;
    });
  }
}
