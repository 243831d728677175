import { api } from '../../contract';
import { mayKeepPrograms } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import type { SignedIn } from '../sessions/viewer';
import { createKey, createProgram, listPrograms, revokeKey, updateProgram } from './programs';

function requireKeeper(viewer: SignedIn): void {
  if (!mayKeepPrograms(viewer)) throw new ProblemError('forbidden');
}

export const programRoutes: Routes = (router, listo) => {
  const { programs } = api;
  serve(router, programs.list, async ({ viewer }) => {
    requireKeeper(viewer);
    return listPrograms(listo);
  });
  serve(router, programs.create, async ({ viewer, actor, body }) => {
    requireKeeper(viewer);
    return createProgram({ listo, viewer, actor }, body);
  });
  serve(router, programs.update, async ({ viewer, actor, params, body }) => {
    requireKeeper(viewer);
    return updateProgram({ listo, viewer, actor }, params.id, body);
  });
  serve(router, programs.createKey, async ({ viewer, actor, params, body }) => {
    requireKeeper(viewer);
    return createKey({ listo, viewer, actor }, params.id, body.endsAt);
  });
  serve(router, programs.revokeKey, async ({ viewer, actor, params }) => {
    requireKeeper(viewer);
    return revokeKey({ listo, viewer, actor }, params.id, params.keyId);
  });
  serve(router, programs.self, async ({ viewer }) => {
    const { byKey, id, name, isAdministrator, teams } = viewer;
    if (!byKey) throw new ProblemError('forProgramsOnly');
    const { mayChange, perMinute, endsAt } = byKey;
    return Promise.resolve({
      ...{ id, name, isAdministrator, teams, mayChange, perMinute, keyId: byKey.id, keyEndsAt: endsAt },
    });
  });
};
