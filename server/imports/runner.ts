import type { ImportProblem } from '../../contract/imports';
import { readRow, type ImportedTicket, type Lookups } from '../../core/imports';
import { findService } from '../catalogue/services';
import type { FileStore } from '../files/store';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { findPersonAsViewer, type SignedIn } from '../sessions/viewer';
import { createTicket } from '../tickets/create';
import { writeWithin } from '../tickets/messages';
import { JobRunner } from '../jobs/runner';
import { readLookups } from './lookups';
import type { ImportRow } from './model';
import { readRows, type TableRow } from './table';

const LEASE_MS = 60_000;
/** So many rows between two notes of how far it is, and so many of them at once. */
const BATCH = 80;
const AT_ONCE = 8;
const REFUSED_KEPT = 500;

/** Writes tickets from tables; each row once, also after a process died. */
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
    if (!viewer) {
      await tables.imports.update({ id: job.id }, { state: 'stopped' });
      return;
    }
    const lookups = await readLookups(this.listo, job.reading!);
    let place = -1;
    let batch: TableRow[] = [];
    for await (const row of readRows(this.store.pathOf(job.id), job.delimiter)) {
      // The first are the headings; those before `done` are written.
      if (place++ < job.done) continue;
      batch.push(row);
      if (batch.length < BATCH) continue;
      if (!(await this.writeBatch(job, { viewer, lookups }, batch))) return;
      batch = [];
    }
    if (batch.length > 0 && !(await this.writeBatch(job, { viewer, lookups }, batch))) return;
    const ended = await tables.imports.update({ id: job.id, state: 'running' }, { state: 'done' });
    // What it held are tickets now.
    if (ended > 0) await this.store.remove(job.id);
  }

  /** @returns whether it goes on */
  private async writeBatch(
    job: ImportRow,
    { viewer, lookups }: { viewer: SignedIn; lookups: Lookups },
    batch: TableRow[],
  ): Promise<boolean> {
    const { tables } = this.listo.db;
    await this.untilFollowed();
    for (let i = 0; i < batch.length; i += AT_ONCE) {
      const answers = await Promise.all(
        batch.slice(i, i + AT_ONCE).map((row) => this.writeRow(job, { viewer, lookups }, row)),
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
    { viewer, lookups }: { viewer: SignedIn; lookups: Lookups },
    { line, cells }: TableRow,
  ): Promise<ImportProblem | 'leftOut' | null> {
    const { ticket } = readRow(cells, job.reading!.mapping, lookups);
    if (!ticket) return 'leftOut';
    try {
      await this.create(job, viewer, { line, row: ticket });
      return null;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      return { line, field: null, code: error.problem, value: ticket.title.slice(0, 80) };
    }
  }

  private async create(
    { id }: ImportRow,
    viewer: SignedIn,
    {
      line,
      row: { title, requesterId, serviceId, words, impact, urgency },
    }: { line: number; row: ImportedTicket },
  ): Promise<void> {
    const rules = await findService(this.listo, serviceId);
    const field = rules?.service.form.fields.find(({ kind }) => kind === 'longText');
    const answers = field && words !== '' ? { [field.name]: words } : {};
    const given = { ...(impact && { impact }), ...(urgency && { urgency }) };
    await createTicket(
      { listo: this.listo, viewer, actor: { id: viewer.id, idempotencyKey: `import:${id}:${line}` } },
      { serviceId, requesterId, title, answers, via: 'table', alsoToldIds: [], fileIds: [] },
      {
        isLenient: true,
        ...given,
        // Where its form has no place for the words, they are kept beside it for the team.
        ...(!field &&
          words !== '' && {
            after: async (tx, number) => {
              await writeWithin({ listo: this.listo, tx, viewer }, number, {
                ...{ text: words, readBy: 'team', links: [], fileIds: [] },
              });
            },
          }),
      },
    );
  }
}
