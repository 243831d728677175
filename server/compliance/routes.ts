import * as z from 'zod';
import { stringify } from 'csv-stringify/sync';
import { api } from '../../contract';
import { readsDesk } from '../../core/rights';
import { harmless, QUOTED } from '../http/csv';
import { ProblemError } from '../http/problems';
import { recordExport } from '../journal/append';
import { serve, type Routes } from '../http/serve';
import type { SignedIn } from '../sessions/viewer';
import { listBehind, readCompliance } from './read';

const MOST_ROWS = 100_000;
const MINUTE = 60_000;
const HEADINGS = [
  'number',
  'title',
  'requester',
  'standing',
  'elapsedMinutes',
  'limitMinutes',
  'dueAt',
  'stoppedAt',
];

/** Figures are for those who do the work and those who answer for it. */
function requireAgent(viewer: SignedIn): void {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
}

const toIso = (at: number | null): string => (at === null ? '' : new Date(at).toISOString());
const toMinutes = (ms: number | null): string => (ms === null ? '' : (ms / MINUTE).toFixed(2));

export const complianceRoutes: Routes = (router, listo) => {
  const { compliance } = api;
  serve(router, compliance.get, ({ viewer, query }) => {
    requireAgent(viewer);
    return readCompliance(listo, viewer, query);
  });
  serve(router, compliance.tickets, ({ viewer, query }) => {
    requireAgent(viewer);
    return listBehind(listo, viewer, { which: query });
  });
  router.get('/compliance.csv', async (request, response) => {
    const { viewer } = request;
    if (!viewer) throw new ProblemError('notSignedIn');
    requireAgent(viewer);
    const query = (compliance.tickets.query as z.ZodType).safeParse(request.query);
    if (!query.success) throw new ProblemError('malformed');
    await recordExport(listo, viewer.id, 'compliance');
    const { rows } = await listBehind(listo, viewer, {
      which: query.data as Parameters<typeof listBehind>[2]['which'],
      limit: MOST_ROWS,
    });
    const table = rows.map(({ number, title, requester, standing, elapsed, limit, dueAt, stoppedAt }) => [
      ...[
        number,
        title,
        requester,
        standing,
        toMinutes(elapsed),
        toMinutes(limit),
        toIso(dueAt),
        toIso(stoppedAt),
      ],
    ]);
    response
      .type('text/csv; charset=utf-8')
      .set('Content-Disposition', 'attachment; filename="compliance.csv"')
      .send(stringify([HEADINGS, ...table.map((cells) => cells.map(harmless))], QUOTED));
  });
};
