import { api } from '../../contract';
import { isAgent, readsDesk } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import type { SignedIn } from '../sessions/viewer';
import { findAssets } from './assets';
import { listCategories } from './categories';
import { listAllServices, listServices, readService, searchServices } from './services';

/** For whom it is looked up: for another only by those who may ask for others. */
function personOf(viewer: SignedIn, wanted: string | undefined): string {
  const mayAsk = viewer.mayAskForOthers || isAgent(viewer);
  return wanted !== undefined && mayAsk ? wanted : viewer.id;
}

export const catalogueRoutes: Routes = (router, listo) => {
  const { catalogue } = api;
  serve(router, catalogue.list, ({ viewer, query }) => {
    if (query.of === undefined) return listServices(listo, personOf(viewer, query.for));
    if (!readsDesk(viewer)) throw new ProblemError('forbidden');
    return listAllServices(listo);
  });
  serve(router, catalogue.search, async ({ viewer, query }) => ({
    services: await searchServices(listo, { ...viewer, id: personOf(viewer, query.for) }, query.q),
  }));
  serve(router, catalogue.get, async ({ params, viewer, query }) => {
    const service = await readService(listo, params.id, personOf(viewer, query.for));
    if (!service) throw new ProblemError('notFound');
    return service;
  });
  serve(router, catalogue.categories, () => listCategories(listo));
  serve(router, catalogue.assets, ({ viewer, query }) =>
    findAssets(listo, personOf(viewer, query.for), query),
  );
};
