import { api } from '../../contract';
import { serve, type Routes } from '../http/serve';
import { personOf } from '../sessions/forWhom';
import { actOnThing, settleClaim } from './acts';
import { findThings } from './choices';
import { readHangs, readMap } from './hangs';
import { setNeeds } from './needs';
import { createThing, updateThing } from './keep';
import { createKind, listKinds, updateKind } from './kinds';
import { readFigures } from './figures';
import { listByMark, listThings } from './list';
import { takeStock } from './stock';
import { listMine, sayOfMine } from './mine';
import { readThingsOf, tieThing, untieThing } from './ofTicket';
import { readThing } from './page';

export const estateRoutes: Routes = (router, listo) => {
  const { estate } = api;
  serve(router, estate.list, ({ viewer, query }) => listThings({ listo, viewer }, query));
  serve(router, estate.create, ({ viewer, actor, body }) => createThing({ listo, viewer, actor }, body));
  serve(router, estate.figures, ({ viewer, query }) => readFigures({ listo, viewer }, query));
  serve(router, estate.byMark, ({ viewer, query }) => listByMark({ listo, viewer }, query.mark));
  serve(router, estate.choices, ({ viewer, query }) => findThings(listo, personOf(viewer, query.for), query));
  serve(router, estate.count, ({ viewer, actor, body }) => takeStock({ listo, viewer, actor }, body));
  serve(router, estate.kinds, ({ viewer }) => listKinds({ listo, viewer }));
  serve(router, estate.createKind, ({ viewer, actor, body }) => createKind({ listo, viewer, actor }, body));
  serve(router, estate.updateKind, ({ viewer, actor, params, body }) =>
    updateKind({ listo, viewer, actor }, params.id, body),
  );
  serve(router, estate.get, ({ viewer, params }) => readThing({ listo, viewer }, params.id));
  serve(router, estate.update, ({ viewer, actor, params, body }) =>
    updateThing({ listo, viewer, actor }, params.id, body),
  );
  serve(router, estate.act, ({ viewer, actor, params, body }) =>
    actOnThing({ listo, viewer, actor }, params.id, body),
  );
  serve(router, estate.settle, ({ viewer, actor, params, body }) =>
    settleClaim({ listo, viewer, actor }, params.id, body.version),
  );
  serve(router, estate.setNeeds, ({ viewer, actor, params, body }) =>
    setNeeds({ listo, viewer, actor }, params.id, body),
  );
  serve(router, estate.hangs, ({ viewer, params }) => readHangs({ listo, viewer }, params.id));
  serve(router, estate.map, ({ viewer, params, query }) => readMap({ listo, viewer }, params.id, query));
  serve(router, estate.mine, ({ viewer }) => listMine({ listo, viewer }));
  serve(router, estate.say, ({ viewer, actor, params, body }) =>
    sayOfMine({ listo, viewer, actor }, params.id, body),
  );
  serve(router, estate.ofTicket, ({ viewer, params }) => readThingsOf({ listo, viewer }, params.number));
  serve(router, estate.tie, ({ viewer, actor, params, body }) =>
    tieThing({ listo, viewer, actor }, params.number, body),
  );
  serve(router, estate.untie, ({ viewer, actor, params }) => untieThing({ listo, viewer, actor }, params));
};
