import { stringify } from 'csv-stringify';
import type { Response, Router } from 'express';
import { once } from 'node:events';
import type { ListRow } from '../../contract/worklists';
import type { Language } from '../../core/forms';
import { harmless, QUOTED } from '../http/csv';
import { inTurn } from '../http/limits';
import { ProblemError } from '../http/problems';
import { recordExport } from '../journal/append';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { findDefinition, parseWhere } from './lists';
import { readPage, type Seen } from './page';

const AT_ONCE = 200;

/** The columns of an exported list; instants as ISO 8601 in UTC, codes as the interface has them. */
const COLUMNS = [
  'number',
  'work',
  'kind',
  'title',
  'state',
  'heldFor',
  'priority',
  'requester',
  'assignee',
  'team',
  'group',
  'service',
  'site',
  'place',
  'via',
  'createdAt',
  'changedAt',
  'dueAt',
  'resolvedAt',
  'closedAt',
  'standing',
  'rating',
] as const;

const instant = (at: number | null | undefined): string => (at == null ? '' : new Date(at).toISOString());

function toCells(row: ListRow, language: Language): (string | number)[] {
  const dues = row.clocks.flatMap(({ state, dueAt }) =>
    state === 'running' && dueAt !== null ? [dueAt] : [],
  );
  return [
    row.number,
    row.step?.kind ?? 'ticket',
    row.kind,
    row.step ? row.step.name[language] : row.title,
    row.state,
    row.heldFor ?? '',
    row.priority,
    row.requester.name,
    row.assignee?.name ?? '',
    row.team.name[language],
    row.groupName ?? '',
    row.service[language],
    row.site ?? '',
    row.place,
    row.via,
    instant(row.createdAt),
    instant(row.changedAt),
    instant(row.step?.neededBy ?? (dues.length > 0 ? Math.min(...dues) : null)),
    instant(row.resolvedAt),
    instant(row.closedAt),
    row.standing ?? '',
    row.rating ?? '',
  ];
}

async function* readAll(listo: Listo, viewer: SignedIn, seen: Seen): AsyncGenerator<(string | number)[]> {
  let after: string | undefined;
  do {
    const page = await readPage({ listo, viewer }, seen, { after, limit: AT_ONCE });
    for (const row of page.rows) yield toCells(row, viewer.language);
    after = page.next ?? undefined;
  } while (after !== undefined);
}

async function sendCsv(response: Response, rows: AsyncGenerator<(string | number)[]>): Promise<void> {
  response.type('text/csv; charset=utf-8');
  // RFC 4180; the mark at the front tells spreadsheets that it is UTF-8.
  const csv = stringify({
    ...QUOTED,
    bom: true,
    record_delimiter: 'windows',
    header: true,
    columns: [...COLUMNS],
  });
  csv.pipe(response);
  for await (const cells of rows) if (!csv.write(cells.map(harmless))) await once(csv, 'drain');
  csv.end();
}

async function sendXlsx(response: Response, rows: AsyncGenerator<(string | number)[]>): Promise<void> {
  response.type('application/vnd.openxmlformats-officedocument.spreadsheetml.sheet');
  // Large, and seldom wanted.
  const { default: ExcelJS } = await import('exceljs');
  const book = new ExcelJS.stream.xlsx.WorkbookWriter({ stream: response });
  const sheet = book.addWorksheet('Listo');
  sheet.addRow([...COLUMNS]).commit();
  for await (const cells of rows) sheet.addRow(cells).commit();
  sheet.commit();
  await book.commit();
}

/** Any list as a file, row by row as it is read: of any length, with no more of it in memory than a page. */
export function exportRoutes(router: Router, listo: Listo): void {
  router.get('/worklists/:id/export', async (request, response) => {
    const { viewer, params, query } = request;
    if (!viewer) throw new ProblemError('notSignedIn');
    const format = query.format === 'xlsx' ? 'xlsx' : 'csv';
    const definition = await findDefinition(listo, viewer, params.id);
    const where = parseWhere(typeof query.where === 'string' ? query.where : undefined);
    await recordExport(listo, viewer.id, `worklist ${params.id}`);
    response.attachment(`listo-${params.id.replace(/[^\w-]/g, '')}.${format}`);
    const rows = readAll(listo, viewer, { definition, where });
    await inTurn(viewer.id, () => (format === 'xlsx' ? sendXlsx(response, rows) : sendCsv(response, rows)));
  });
}
