import { api } from '../../contract';
import { serve, type Routes } from '../http/serve';
import { decide } from './decide';
import { readAsks } from './read';

export const approvalRoutes: Routes = (router, listo) => {
  serve(router, api.approvals.mine, ({ viewer }) => readAsks(listo, viewer.id, viewer.language));
  serve(router, api.approvals.decide, ({ viewer, actor, params, body }) =>
    decide(listo, viewer, actor, params.id, body),
  );
};
