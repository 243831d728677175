import { api } from '../../contract';
import { serve, type Routes } from '../http/serve';
import { takeAnswer } from './answer';
import { moveStep } from './steps';

export const planRoutes: Routes = (router, listo) => {
  serve(router, api.plans.move, ({ viewer, actor, params, body }) =>
    moveStep(listo, viewer, actor, params, body),
  );
  serve(router, api.plans.answer, ({ params, body }) => takeAnswer(listo, params.token, body));
};
