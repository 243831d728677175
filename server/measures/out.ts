import { stringify } from 'csv-stringify/sync';
import type { Response } from 'express';
import type { Router } from 'express';
import * as z from 'zod';
import { chartSchema, stretchSchema, type AskedChart, type ChartAnswer } from '../../contract/measures';
import { reckonedBy } from '../../core/measures';
import { harmless, QUOTED } from '../http/csv';
import { ProblemError } from '../http/problems';
import { recordExport } from '../journal/append';
import type { Listo } from '../listo';
import { listBehind, readChart } from './read';

/** So many rows of what stands behind a chart go into a file. */
const MOST_ROWS = 100_000;
const FORMATS = ['csv', 'xlsx', 'json'] as const;

const querySchema = z.object({
  /** The chart as it is asked for, as JSON. */
  asked: z
    .string()
    .max(40_000)
    .transform((text, context) => {
      try {
        return JSON.parse(text) as unknown;
      } catch {
        context.addIssue({ code: 'custom', message: 'malformed' });
        return z.NEVER;
      }
    })
    .pipe(
      z.object({
        chart: chartSchema,
        stretch: stretchSchema,
        beside: z.array(chartSchema.pick({ id: true, by: true, of: true })).max(40),
        chosen: z.record(
          z.string(),
          z.array(z.union([z.string(), z.number(), z.boolean(), z.null()])).max(50),
        ),
      }),
    ),
  as: z.enum(FORMATS),
  /** The figures of the chart, or what they count. */
  what: z.enum(['figures', 'behind']),
});

type Cell = string | number | null;
type Table = { headings: string[]; rows: Cell[][] };

const toIso = (at: number): string => new Date(at).toISOString();

/** The figures of a chart as a table: a row a part, a column a bucket. */
function toTable({ buckets, groups, course, total, count }: ChartAnswer, chart: AskedChart['chart']): Table {
  if (course) {
    if (course.flow.length > 0)
      return {
        headings: ['from', 'opened', 'ended', 'open'],
        rows: course.flow.map(({ opened, ended, open }, i) => [toIso(buckets[i]!), opened, ended, open]),
      };
    if (course.ageing.length > 0)
      return {
        headings: ['fromMs', 'count'],
        rows: course.ageing.map(({ from, count: open }) => [from, open]),
      };
    if (course.survival)
      return {
        headings: ['afterMs', 'shareStillOpen'],
        rows: course.survival.shares.map(({ after, share }) => [after, share]),
      };
    return {
      headings: ['at', 'mean', 'low', 'high', 'agents'],
      rows: course.expected.map(({ at, mean, low, high, agents }) => [toIso(at), mean, low, high, agents]),
    };
  }
  if (buckets.length > 0)
    return {
      headings: ['from', ...groups.map(({ key, name }) => name ?? String(key ?? chart.of))],
      rows: buckets.map((bucket, i) => [toIso(bucket), ...groups.map(({ values }) => values[i] ?? null)]),
    };
  if (chart.by === null) return { headings: ['figure', 'count'], rows: [[total, count]] };
  return {
    headings: ['key', 'name', 'figure', 'before', 'count'],
    rows: groups.map(({ key, name, total: figure, before, count: own }) => [
      ...[key === null ? null : String(key), name, figure, before, own],
    ]),
  };
}

async function send(
  response: Response,
  { headings, rows }: Table,
  as: (typeof FORMATS)[number],
): Promise<void> {
  response.attachment(`listo-measures.${as}`);
  if (as === 'json') {
    response.json(rows.map((row) => Object.fromEntries(row.map((cell, i) => [headings[i]!, cell]))));
    return;
  }
  if (as === 'csv') {
    response.type('text/csv; charset=utf-8').send(
      stringify(
        [headings, ...rows].map((row) => row.map(harmless)),
        { ...QUOTED, bom: true, record_delimiter: 'windows' },
      ),
    );
    return;
  }
  // Large, and seldom wanted.
  const { default: ExcelJS } = await import('exceljs');
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Listo');
  sheet.addRow(headings);
  for (const row of rows) sheet.addRow(row.map(harmless));
  response
    .type('application/vnd.openxmlformats-officedocument.spreadsheetml.sheet')
    .send(Buffer.from(await book.xlsx.writeBuffer()));
}

/** A chart as a file: its figures, or what they count. */
export function outRoutes(router: Router, listo: Listo): void {
  router.get('/measures/out', async (request, response) => {
    const { viewer } = request;
    if (!viewer) throw new ProblemError('notSignedIn');
    const query = querySchema.safeParse(request.query);
    if (!query.success) throw new ProblemError('malformed');
    const { asked, as, what } = query.data;
    await recordExport(listo, viewer.id, 'measures');
    if (what === 'figures')
      return send(response, toTable(await readChart({ listo, viewer }, asked), asked.chart), as);
    const { rows } = await listBehind({ listo, viewer }, { ...asked, limit: MOST_ROWS });
    const reckoned = reckonedBy(asked.chart) ?? 'value';
    return send(
      response,
      {
        headings: ['number', 'title', 'person', asked.chart.at, reckoned],
        rows: rows.map(({ number, title, person, at, value }) => [number, title, person, toIso(at), value]),
      },
      as,
    );
  });
}
