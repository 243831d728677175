import { api } from '../../contract';
import { mayKeepPrograms } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import type { OutgoingCallRow } from './model';

const PAGE = 50;

export const callRoutes: Routes = (router, listo) => {
  serve(router, api.calls.list, async ({ viewer, query: { before, only } }) => {
    if (!mayKeepPrograms(viewer)) throw new ProblemError('forbidden');
    const parts = [
      ...(before === undefined ? [] : ['id < :before']),
      ...(only === 'failed' ? ['(status IS NULL OR status < 200 OR status > 299)'] : []),
    ];
    const rows = await listo.db.select<OutgoingCallRow>(
      `SELECT * FROM outgoing_calls ${parts.length > 0 ? `WHERE ${parts.join(' AND ')}` : ''} ORDER BY id DESC LIMIT :limit`,
      { before: before ?? 0, limit: PAGE + 1 },
    );
    return { rows: rows.slice(0, PAGE), before: rows.length > PAGE ? rows[PAGE - 1]!.id : null };
  });
};
