import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { findPersonAsViewer, type SignedIn } from '../sessions/viewer';
import { undoEntry } from '../tickets/undo';
import { doDeed } from './deeds';
import { JobRunner } from '../jobs/runner';
import type { BulkItemRow, BulkJobRow } from './model';

const LEASE_MS = 30_000;
const BATCH = 50;

/** The slug of what stood against it; what is nobody's fault is tried again with the whole job. */
function codeOf(error: unknown): string {
  if (!(error instanceof ProblemError)) throw error;
  return error.problem;
}

/** Works off what people do to many tickets. */
export class BulkRunner extends JobRunner<BulkJobRow> {
  constructor(listo: Listo) {
    super(listo, 'bulk_jobs', LEASE_MS);
  }

  protected async workOff(job: BulkJobRow): Promise<void> {
    const { tables } = this.listo.db;
    const viewer = await findPersonAsViewer(this.listo, job.personId);
    for (;;) {
      const now = await tables.bulkJobs.findOne({ id: job.id });
      if (this.isStopped) {
        await tables.bulkJobs.update({ id: job.id }, { leaseUntil: this.nextLease() });
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
      await tables.bulkJobs.update({ id: job.id }, { leaseUntil: this.nextLease() });
      await this.untilFollowed();
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
        if (job.deed.kind === 'undo')
          await undoEntry({ listo: this.listo, tx, viewer }, { number: item.number, entryId: item.entryId });
        else await doDeed({ listo: this.listo, tx, viewer }, job.deed, item);
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
