import { api } from '../../contract';
import { serve, type Routes } from '../http/serve';
import { decide } from './decide';
import { askBack } from './question';
import { readAsks } from './read';

export const approvalRoutes: Routes = (router, listo) => {
  serve(router, api.approvals.mine, ({ viewer }) => readAsks(listo, viewer.id));
  serve(router, api.approvals.decide, ({ viewer, actor, params, body }) =>
    decide(listo, { personId: viewer.id, actor }, { askId: params.id, decision: body }),
  );
  serve(router, api.approvals.askBack, ({ viewer, actor, params, body }) =>
    askBack(listo, { personId: viewer.id, actor }, { askId: params.id, text: body.words }),
  );
};
