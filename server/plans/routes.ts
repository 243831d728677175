import { api } from '../../contract';
import { serve, type Routes } from '../http/serve';
import { addStep } from './addStep';
import { rankRequest } from './rank';
import { readRanking } from './ranking';
import { takeAnswer } from './answer';
import { tellSlip } from './slip';
import { moveStep } from './steps';

export const planRoutes: Routes = (router, listo) => {
  serve(router, api.plans.move, ({ viewer, actor, params, body }) =>
    moveStep({ listo, viewer, actor }, params, body),
  );
  serve(router, api.plans.add, ({ viewer, actor, params, body }) =>
    addStep({ listo, viewer, actor }, params.number, body),
  );
  serve(router, api.plans.tellSlip, ({ viewer, actor, params }) =>
    tellSlip({ listo, viewer, actor }, params.number),
  );
  serve(router, api.plans.ranking, ({ viewer, params }) => readRanking(listo, viewer, params.id));
  serve(router, api.plans.rank, ({ viewer, actor, params, body }) =>
    rankRequest({ listo, viewer, actor }, params.id, body),
  );
  serve(router, api.plans.answer, ({ params, body }) => takeAnswer(listo, params.token, body));
};
