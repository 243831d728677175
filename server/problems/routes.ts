import { api } from '../../contract';
import { readsDesk } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import { readCauseKinds, setCauseKinds } from './causeKinds';
import { beginArticle, createProblem, tieIncidents, updateProblem } from './keep';
import { listProblems, readProblem, readProblemsOf, readRecurring } from './read';

export const problemRoutes: Routes = (router, listo) => {
  const { problems } = api;
  serve(router, problems.list, ({ viewer }) => listProblems({ listo, viewer }));
  serve(router, problems.recurring, ({ viewer, query }) => readRecurring({ listo, viewer }, query.days));
  serve(router, problems.create, ({ viewer, actor, body }) => createProblem({ listo, viewer, actor }, body));
  serve(router, problems.causeKinds, async ({ viewer }) => {
    if (!readsDesk(viewer)) throw new ProblemError('forbidden');
    return { kinds: await readCauseKinds({ listo }), maySet: viewer.isAdministrator };
  });
  serve(router, problems.setCauseKinds, ({ viewer, actor, body }) =>
    setCauseKinds({ listo, viewer, actor }, body.kinds),
  );
  serve(router, problems.get, ({ viewer, params }) => readProblem({ listo, viewer }, params.number));
  serve(router, problems.update, ({ viewer, actor, params, body }) =>
    updateProblem({ listo, viewer, actor }, params.number, body),
  );
  serve(router, problems.tie, ({ viewer, actor, params, body }) =>
    tieIncidents({ listo, viewer, actor }, params.number, body),
  );
  serve(router, problems.article, ({ viewer, actor, params }) =>
    beginArticle({ listo, viewer, actor }, params.number),
  );
  serve(router, problems.ofTicket, ({ viewer, params }) => readProblemsOf({ listo, viewer }, params.number));
};
