import { api } from '../../contract';
import { createRights, may } from '../../core/rights';
import { serve, type Routes } from '../http/serve';
import { requireTicket } from '../tickets/guard';
import { readReckoning } from './read';

export const clockRoutes: Routes = (router, listo) => {
  const { clocks } = api;
  serve(router, clocks.reckoning, async ({ viewer, params, query }) => {
    const { guarded } = await requireTicket({ listo, viewer }, { number: params.number, action: 'read' });
    const isTeamSide = may(createRights(viewer), 'readNotes', guarded);
    return readReckoning(listo, { ...params, ...query }, isTeamSide);
  });
};
