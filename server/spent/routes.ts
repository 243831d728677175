import { api } from '../../contract';
import { serve, type Routes } from '../http/serve';
import {
  addSpent,
  changeSpent,
  readMyTimer,
  readSpent,
  removeSpent,
  setEstimate,
  startTimer,
  stopTimer,
  sumSpent,
} from './service';

export const spentRoutes: Routes = (router, listo) => {
  const { spent } = api;
  serve(router, spent.timer, ({ viewer }) => readMyTimer(listo, viewer));
  serve(router, spent.start, ({ viewer, actor, params }) =>
    startTimer({ listo, viewer, actor }, params.number),
  );
  serve(router, spent.stop, ({ viewer, actor, body }) => stopTimer({ listo, viewer, actor }, body));
  serve(router, spent.list, ({ viewer, params }) => readSpent(listo, viewer, params.number));
  serve(router, spent.add, ({ viewer, actor, params, body }) =>
    addSpent({ listo, viewer, actor }, params.number, body),
  );
  serve(router, spent.change, ({ viewer, actor, params, body }) =>
    changeSpent({ listo, viewer, actor }, params.id, body),
  );
  serve(router, spent.remove, ({ viewer, actor, params }) =>
    removeSpent({ listo, viewer, actor }, params.id),
  );
  serve(router, spent.estimate, ({ viewer, actor, params, body }) =>
    setEstimate({ listo, viewer, actor }, params.number, body.minutes),
  );
  serve(router, spent.sums, ({ viewer, query }) => sumSpent(listo, viewer, query));
};
