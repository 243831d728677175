import { stringify } from 'csv-stringify';
import type { Response, Router } from 'express';
import { once } from 'node:events';
import { recordFilterSchema, type RecordFilter } from '../../contract/records';
import { toLine, type AuditEntry } from '../../core/audit';
import { mayReadRecords } from '../../core/rights';
import { harmless, QUOTED } from '../http/csv';
import { inTurn } from '../http/limits';
import { ProblemError } from '../http/problems';
import { recordExport } from '../journal/append';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import type { Viewing } from '../unitOfWork';
import { readRows, toViews } from './read';

const AT_ONCE = 500;
const COLUMNS = [
  'id',
  'at',
  'kind',
  'via',
  'actor',
  'actorId',
  'keyId',
  'ticket',
  'about',
  'changes',
  'data',
];

/** All entries that a filter lets through, a page at a time, the newest first. */
async function* readPages(viewing: Viewing, filter: RecordFilter): AsyncGenerator<JournalRow[]> {
  let before: number | undefined;
  for (;;) {
    const rows = await readRows(viewing, { ...filter, before }, AT_ONCE);
    if (rows.length > 0) yield rows;
    if (rows.length < AT_ONCE) return;
    before = rows.at(-1)!.id;
  }
}

async function sendLines(response: Response, pages: AsyncGenerator<JournalRow[]>): Promise<void> {
  response.type('application/x-ndjson');
  for await (const rows of pages) {
    const lines = rows.map((row) => `${toLine(row as AuditEntry)}\n`).join('');
    if (!response.write(lines)) await once(response, 'drain');
  }
  response.end();
}

async function sendCsv(
  response: Response,
  viewing: Viewing,
  pages: AsyncGenerator<JournalRow[]>,
): Promise<void> {
  response.type('text/csv; charset=utf-8');
  const csv = stringify({
    ...QUOTED,
    bom: true,
    record_delimiter: 'windows',
    header: true,
    columns: COLUMNS,
  });
  csv.pipe(response);
  for await (const rows of pages)
    for (const view of await toViews(viewing, rows)) {
      const { id, at, kind, via, actor, keyId, ticketNumber, about, changes, data } = view;
      const cells = [
        ...[id, new Date(at).toISOString(), kind, via, actor?.name ?? '', actor?.id ?? '', keyId ?? ''],
        ...[ticketNumber ?? '', about?.name ?? '', JSON.stringify(changes), JSON.stringify(data)],
      ];
      if (!csv.write(cells.map(harmless))) await once(csv, 'drain');
    }
  csv.end();
}

/** The record as a file: CSV, or JSON lines. That it was taken out is on record too. */
export function recordFileRoutes(router: Router, listo: Listo): void {
  router.get('/records/out', async ({ viewer, query: { format, ...rest } }, response) => {
    if (!viewer) throw new ProblemError('notSignedIn');
    if (!mayReadRecords(viewer)) throw new ProblemError('forbidden');
    const filter = recordFilterSchema.strict().safeParse(rest);
    if (!filter.success) throw new ProblemError('malformed');
    await recordExport(listo, viewer.id, 'records');
    const viewing = { listo, viewer };
    const pages = readPages(viewing, filter.data);
    response.attachment(`listo-records.${format === 'csv' ? 'csv' : 'jsonl'}`);
    await inTurn(viewer.id, () =>
      format === 'csv' ? sendCsv(response, viewing, pages) : sendLines(response, pages),
    );
  });
}
