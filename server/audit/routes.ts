import { api } from '../../contract';
import { mayReadRecords } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import type { SignedIn } from '../sessions/viewer';
import { readTicketAsItWas } from './asItWas';
import { recordFileRoutes } from './out';
import { listRecords } from './read';
import { checkSeal } from './seals';

const MOST_SEALS = 400;

function requireReader(viewer: SignedIn): void {
  if (!mayReadRecords(viewer)) throw new ProblemError('forbidden');
}

export const recordRoutes: Routes = (router, listo) => {
  const { records } = api;
  serve(router, records.list, async ({ viewer, query }) => {
    requireReader(viewer);
    return listRecords({ listo, viewer }, query);
  });
  serve(router, records.ticket, ({ viewer, params, query }) =>
    readTicketAsItWas({ listo, viewer }, params.number, query.at),
  );
  serve(router, records.seals, async ({ viewer }) => {
    requireReader(viewer);
    return listo.db.tables.seals.find({}, { order: [['id', 'DESC']], limit: MOST_SEALS });
  });
  serve(router, records.check, async ({ viewer, params }) => {
    requireReader(viewer);
    return checkSeal(listo, params.id);
  });
  recordFileRoutes(router, listo);
};
