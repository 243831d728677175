import { api } from '../../contract';
import { readsDesk } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import { createProcedure, mayWrite, removeProcedure, updateProcedure } from './keep';
import { readOfTicket, tickStep } from './ofTicket';

export const procedureRoutes: Routes = (router, listo) => {
  const { procedures } = api;
  serve(router, procedures.list, async ({ viewer }) => {
    if (!readsDesk(viewer)) throw new ProblemError('forbidden');
    const rows = await listo.db.tables.procedures.find({}, { order: ['teamId', 'serviceId', 'kind'] });
    return rows.map((row) => ({ ...row, mayEdit: mayWrite(viewer, row.teamId) }));
  });
  serve(router, procedures.create, ({ viewer, actor, body }) =>
    createProcedure({ listo, viewer, actor }, body),
  );
  serve(router, procedures.update, ({ viewer, actor, params, body }) =>
    updateProcedure({ listo, viewer }, { actor, id: params.id }, body),
  );
  serve(router, procedures.remove, ({ viewer, actor, params }) =>
    removeProcedure(listo, viewer, { actor, id: params.id }),
  );
  serve(router, procedures.forTicket, async ({ viewer, params }) => {
    const { procedure, ticks } = await readOfTicket(listo, viewer, params.number);
    return { ticks, procedure: procedure && { ...procedure, mayEdit: mayWrite(viewer, procedure.teamId) } };
  });
  serve(router, procedures.tick, ({ viewer, actor, params, body }) =>
    tickStep(listo, { viewer, actor, number: params.number, stepId: params.id }, body.isDone),
  );
};
