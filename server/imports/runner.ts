import type { ImportProblem } from '../../contract/imports';
import type { FileStore } from '../files/store';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { findPersonAsViewer, type SignedIn } from '../sessions/viewer';
import { JobRunner } from '../jobs/runner';
import { mayBringIn, openTable, type Opened } from './kinds';
import type { ImportRow } from './model';
import { rowsWithoutHeadings, type TableRow } from './table';

const LEASE_MS = 60_000;
/** So many rows between two notes of how far it is, and so many of them at once. */
const BATCH = 80;
const AT_ONCE = 8;
const REFUSED_KEPT = 500;

/** Writes tickets and people from tables; each row once, also after a process died. */
export class ImportRunner extends JobRunner<ImportRow> {
  constructor(
    listo: Listo,
    private readonly store: FileStore,
  ) {
    super(listo, 'imports', LEASE_MS);
  }

  protected async workOff(job: ImportRow): Promise<void> {
    const { tables } = this.listo.db;
    const viewer = await findPersonAsViewer(this.listo, job.personId);
    if (!viewer || !mayBringIn(job.kind, viewer)) {
      await tables.imports.update({ id: job.id }, { state: 'stopped' });
      return;
    }
    const rows = () => rowsWithoutHeadings(this.store.pathOf(job.id), job.delimiter);
    const opened = await openTable(this.listo, { kind: job.kind, reading: job.reading! }, rows);
    let place = 0;
    let batch: TableRow[] = [];
    for await (const row of rows()) {
      // Those before `done` are written.
      if (place++ < job.done) continue;
      batch.push(row);
      if (batch.length < BATCH) continue;
      if (!(await this.writeBatch(job, { viewer, opened }, batch))) return;
      batch = [];
    }
    if (batch.length > 0 && !(await this.writeBatch(job, { viewer, opened }, batch))) return;
    const after = (await opened.finish?.(job, viewer)) ?? [];
    const refused = [...job.refused, ...after].slice(0, REFUSED_KEPT);
    const ended = await tables.imports.update({ id: job.id, state: 'running' }, { state: 'done', refused });
    // What it held is written now.
    if (ended > 0) await this.store.remove(job.id);
  }

  /** @returns whether it goes on */
  private async writeBatch(
    job: ImportRow,
    { viewer, opened }: { viewer: SignedIn; opened: Opened },
    batch: TableRow[],
  ): Promise<boolean> {
    const { tables } = this.listo.db;
    await this.untilFollowed();
    for (let i = 0; i < batch.length; i += AT_ONCE) {
      const answers = await Promise.all(
        batch.slice(i, i + AT_ONCE).map((row) => this.writeRow(job, { viewer, opened }, row)),
      );
      for (const problem of answers)
        if (problem === null) job.written++;
        else if (problem !== 'leftOut' && job.refused.length < REFUSED_KEPT) job.refused.push(problem);
    }
    job.done += batch.length;
    const { done, written, refused } = job;
    const now = await tables.imports.findOne({ id: job.id });
    const isGoing = now?.state === 'running' && !this.isStopped;
    const leaseUntil = isGoing ? this.nextLease() : 0;
    await tables.imports.update({ id: job.id }, { done, written, refused, leaseUntil });
    this.listo.wake();
    return isGoing;
  }

  /** @returns null when it is written, what was wrong with it, or that it would not do and was known not to */
  private async writeRow(
    job: ImportRow,
    { viewer, opened }: { viewer: SignedIn; opened: Opened },
    row: TableRow,
  ): Promise<ImportProblem | 'leftOut' | null> {
    if (opened.look(row.cells).length > 0) return 'leftOut';
    try {
      await opened.write(job, viewer, row);
      return null;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      const { line, cells } = row;
      return { line, field: null, code: error.problem, value: opened.nameOf(cells).slice(0, 80) };
    }
  }
}
