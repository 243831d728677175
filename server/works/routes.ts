import { api } from '../../contract';
import { isAgent } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import { endWork, reviewWork, startWork } from './acts';
import { findNextFree, readCalendar } from './calendar';
import { feedRoute, makeFeed } from './feed';
import { createFreeze, removeFreeze, updateFreeze } from './freezes';
import { createWork, moveWork, submitWork, updateWork } from './keep';
import { reckon } from './reckon';
import { listWorks, readBeside, readWork } from './read';
import { listTemplates, setTemplate } from './templates';

export const workRoutes: Routes = (router, listo) => {
  const { works } = api;
  serve(router, works.calendar, ({ viewer, query }) => readCalendar({ listo, viewer }, query));
  serve(router, works.list, ({ viewer }) => listWorks({ listo, viewer }));
  serve(router, works.templates, ({ viewer }) => listTemplates({ listo, viewer }));
  serve(router, works.setTemplate, ({ viewer, actor, params, body }) =>
    setTemplate({ listo, viewer, actor }, params.id, body),
  );
  serve(router, works.check, async ({ viewer, body }) => {
    if (!isAgent(viewer)) throw new ProblemError('forbidden');
    return reckon({ listo, viewer }, body);
  });
  serve(router, works.slot, ({ viewer, body }) => findNextFree({ listo, viewer }, body));
  serve(router, works.create, ({ viewer, actor, body }) => createWork({ listo, viewer, actor }, body));
  serve(router, works.makeFeed, ({ viewer, actor }) => makeFeed({ listo, viewer, actor }));
  serve(router, works.get, ({ viewer, params }) => readWork({ listo, viewer }, params.number));
  serve(router, works.update, ({ viewer, actor, params, body }) =>
    updateWork({ listo, viewer, actor }, params.number, body),
  );
  serve(router, works.move, ({ viewer, actor, params, body }) =>
    moveWork({ listo, viewer, actor }, params.number, body),
  );
  serve(router, works.submit, ({ viewer, actor, params, body }) =>
    submitWork({ listo, viewer, actor }, params.number, body.version),
  );
  serve(router, works.start, ({ viewer, actor, params, body }) =>
    startWork({ listo, viewer, actor }, params.number, body.version),
  );
  serve(router, works.end, ({ viewer, actor, params, body }) =>
    endWork({ listo, viewer, actor }, params.number, body),
  );
  serve(router, works.review, ({ viewer, actor, params, body }) =>
    reviewWork({ listo, viewer, actor }, params.number, body),
  );
  serve(router, works.beside, ({ viewer, params }) => readBeside({ listo, viewer }, params.number));
  serve(router, works.createFreeze, ({ viewer, actor, body }) =>
    createFreeze({ listo, viewer, actor }, body),
  );
  serve(router, works.updateFreeze, ({ viewer, actor, params, body }) =>
    updateFreeze({ listo, viewer, actor }, params.id, body),
  );
  serve(router, works.removeFreeze, ({ viewer, actor, params }) =>
    removeFreeze({ listo, viewer, actor }, params.id),
  );
  feedRoute(router, listo);
};
