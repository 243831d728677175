import { api } from '../../contract';
import { serve, type Routes } from '../http/serve';
import { readBulk, startBulk, stopBulk, undoBulk } from './service';

export const bulkRoutes: Routes = (router, listo) => {
  const { bulk } = api;
  serve(router, bulk.start, ({ viewer, actor, params, body }) =>
    startBulk({ listo, viewer, actor }, params.id, body),
  );
  serve(router, bulk.get, ({ viewer, params }) => readBulk(listo, viewer, params.id));
  serve(router, bulk.stop, ({ viewer, params }) => stopBulk(listo, viewer, params.id));
  serve(router, bulk.undo, ({ viewer, actor, params }) => undoBulk({ listo, viewer, actor }, params.id));
};
