import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { findPersonAsViewer, type SignedIn } from '../sessions/viewer';
import { doDeed, undoEntry } from './deeds';
import type { BulkItemRow, BulkJobRow } from './model';

const LEASE_MS = 30_000;
const BATCH = 50;

/** The slug of what stood against it; what is nobody's fault is tried again with the whole job. */
function codeOf(error: unknown): string {
  if (!(error instanceof ProblemError)) throw error;
  return error.problem;
}

/** Works off what people do to many tickets, a job at a time in this process; others may work off others. */
export class BulkRunner {
  private going: Promise<void> | null = null;
  private isStopped = false;

  constructor(private readonly listo: Listo) {}

  /** Looks for a job that nobody has. */
  look(): void {
    if (this.going || this.isStopped) return;
    this.going = this.run()
      .catch((error: unknown) =>
        this.listo.log.error({ err: error }, 'a job on many tickets failed; it goes on later'),
      )
      .finally(() => (this.going = null));
  }

  async stop(): Promise<void> {
    this.isStopped = true;
    await this.going;
  }

  private async run(): Promise<void> {
    for (let job = await this.claim(); job && !this.isStopped; job = await this.claim())
      await this.workOff(job);
  }

  private async claim(): Promise<BulkJobRow | null> {
    const { transaction, select, tables } = this.listo.db;
    const now = Date.now();
    // Mostly there is none: that is one short read a round.
    const waiting = await select(
      "SELECT 1 FROM bulk_jobs WHERE state = 'running' AND leaseUntil < :now LIMIT 1",
      { now },
    );
    if (waiting.length === 0) return null;
    return transaction(async (tx) => {
      const [job] = await select<BulkJobRow>(
        "SELECT * FROM bulk_jobs WHERE state = 'running' AND leaseUntil < :now ORDER BY at LIMIT 1 FOR UPDATE SKIP LOCKED",
        { now },
        tx,
      );
      if (!job) return null;
      await tables.bulkJobs.update({ id: job.id }, { leaseUntil: now + LEASE_MS }, tx);
      return job;
    });
  }

  private async workOff(job: BulkJobRow): Promise<void> {
    const { tables } = this.listo.db;
    const viewer = await findPersonAsViewer(this.listo, job.personId);
    for (;;) {
      const now = await tables.bulkJobs.findOne({ id: job.id });
      if (this.isStopped) {
        // Another process, or the next start, goes on at once.
        await tables.bulkJobs.update({ id: job.id }, { leaseUntil: 0 });
        return;
      }
      if (now?.state !== 'running') return;
      const items = await tables.bulkItems.find(
        { jobId: job.id, state: 'waiting' },
        { order: ['number'], limit: BATCH },
      );
      if (items.length === 0 || !viewer) {
        await tables.bulkJobs.update({ id: job.id, state: 'running' }, { state: 'done' });
        return;
      }
      await tables.bulkJobs.update({ id: job.id }, { leaseUntil: Date.now() + LEASE_MS });
      for (const item of items) await this.doOne(job, item, viewer);
      this.listo.wake();
    }
  }

  /** One ticket: done and noted as done in one transaction, so that it is never done twice. */
  private async doOne(job: BulkJobRow, item: BulkItemRow, viewer: SignedIn): Promise<void> {
    const { transaction, tables, select } = this.listo.db;
    const place = { jobId: job.id, number: item.number };
    try {
      await transaction(async (tx) => {
        const lastOf = async (): Promise<number> => {
          const [entry] = await select<{ id: number | null }>(
            "SELECT MAX(id) AS id FROM journal WHERE ticketNumber = :number AND changes <> '{}'",
            place,
            tx,
          );
          return entry?.id ?? 0;
        };
        const before = await lastOf();
        if (job.deed.kind === 'undo') await undoEntry(this.listo, tx, viewer, item.number, item.entryId);
        else await doDeed(this.listo, tx, viewer, job.deed, item);
        const entryId = await lastOf();
        await tables.bulkItems.update(
          place,
          { state: 'done', entryId: entryId > before ? entryId : null },
          tx,
        );
      });
    } catch (error) {
      await tables.bulkItems.update(place, { state: 'refused', code: codeOf(error) });
    }
  }
}
