import { api } from '../../contract';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import { listServices, readService, searchServices } from './services';

export const catalogueRoutes: Routes = (router, listo) => {
  const { catalogue } = api;
  serve(router, catalogue.list, () => listServices(listo));
  serve(router, catalogue.search, async ({ viewer, query }) => ({
    services: await searchServices(listo, viewer.language, query.q),
  }));
  serve(router, catalogue.get, async ({ params }) => {
    const service = await readService(listo, params.id);
    if (!service) throw new ProblemError('notFound');
    return service;
  });
};
