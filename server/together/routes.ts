import { api } from '../../contract';
import { serve, type Routes } from '../http/serve';
import { readReported, readSimilar } from './similar';
import { putAllUnder, putUnder, readTogether, takeApart } from './under';

export const togetherRoutes: Routes = (router, listo) => {
  const { together } = api;
  serve(router, together.similar, ({ viewer, params }) => readSimilar(listo, viewer, params.number));
  serve(router, together.reported, ({ viewer, query }) => readReported(listo, viewer, query));
  serve(router, together.get, ({ viewer, params }) => readTogether(listo, viewer, params.number));
  serve(router, together.put, ({ viewer, actor, params, body }) =>
    putUnder({ listo, viewer, actor }, params.number, body),
  );
  serve(router, together.putAll, ({ viewer, actor, params, body }) =>
    putAllUnder({ listo, viewer, actor }, params.number, body.numbers),
  );
  serve(router, together.takeApart, ({ viewer, actor, params }) =>
    takeApart({ listo, viewer, actor }, params.number),
  );
};
