import { api } from '../../contract';
import { readsDesk } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import { personOf } from '../sessions/forWhom';
import { listCategories } from './categories';
import { listAllServices, listServices, readService, searchServices } from './services';

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
};
