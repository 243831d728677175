import { api } from '../../contract';
import { serve, type Routes } from '../http/serve';
import { createTeam, updateSite, updateTeam } from './service';

export const teamRoutes: Routes = (router, listo) => {
  const { teams } = api;
  serve(router, teams.create, ({ viewer, actor, body }) => createTeam({ listo, viewer, actor }, body));
  serve(router, teams.update, ({ viewer, actor, params, body }) =>
    updateTeam({ listo, viewer, actor }, params.id, body),
  );
  serve(router, teams.sites, () => listo.db.tables.sites.find({}, { order: ['name'] }));
  serve(router, teams.updateSite, ({ viewer, actor, params, body }) =>
    updateSite({ listo, viewer, actor }, params.id, body.calendarId),
  );
};
