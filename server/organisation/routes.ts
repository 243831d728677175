import { api } from '../../contract';
import { mayKeepPeople, readsDesk } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import { removeFactor } from '../sessions/factor';
import { signIn } from '../sessions/routes';
import type { SignedIn } from '../sessions/viewer';
import { accept, invite, readInvitation, sendForgotten } from './invitations';
import { createPerson, updatePerson } from './keep';
import { listAlike, listPeople } from './list';
import { createGroup, createSite, removeMember, setMember } from './members';
import { readPerson } from './person';
import { countSetup } from './setup';

function mustKeep(viewer: SignedIn): void {
  if (!mayKeepPeople(viewer)) throw new ProblemError('forbidden');
}

export const organisationRoutes: Routes = (router, listo) => {
  const { organisation } = api;
  serve(router, organisation.setup, async ({ viewer }) => {
    if (!readsDesk(viewer)) throw new ProblemError('forbidden');
    return countSetup(listo);
  });
  serve(router, organisation.people, async ({ viewer, query }) => {
    mustKeep(viewer);
    return listPeople(listo, query);
  });
  serve(router, organisation.alike, async ({ viewer, query }) => {
    mustKeep(viewer);
    return listAlike(listo, query);
  });
  serve(router, organisation.person, async ({ viewer, params }) => {
    mustKeep(viewer);
    return readPerson(listo, params.id);
  });
  serve(router, organisation.create, async ({ viewer, actor, body }) => {
    mustKeep(viewer);
    return createPerson({ listo, viewer, actor }, body);
  });
  serve(router, organisation.update, async ({ viewer, actor, params, body }) => {
    mustKeep(viewer);
    return updatePerson({ listo, viewer, actor }, params.id, body);
  });
  serve(router, organisation.invite, async ({ viewer, actor, params }) => {
    mustKeep(viewer);
    return invite({ listo, viewer, actor }, params.id);
  });
  serve(router, organisation.removeFactor, async ({ viewer, params }) => {
    mustKeep(viewer);
    await removeFactor(listo, params.id, viewer.id);
    return OK;
  });
  serve(router, organisation.setMember, ({ viewer, actor, params, body }) =>
    setMember({ listo, viewer, actor }, { personId: params.id, teamId: params.teamId }, body),
  );
  serve(router, organisation.removeMember, ({ viewer, actor, params }) =>
    removeMember({ listo, viewer, actor }, { personId: params.id, teamId: params.teamId }),
  );
  serve(router, organisation.createGroup, ({ viewer, actor, params, body }) =>
    createGroup({ listo, viewer, actor }, params.id, body.name),
  );
  serve(router, organisation.createSite, ({ viewer, actor, body }) =>
    createSite({ listo, viewer, actor }, body),
  );
  serve(router, organisation.forgotten, async ({ body }) => {
    void sendForgotten(listo, body.email).catch((error: unknown) =>
      listo.log.error(error, 'forgotten password'),
    );
    return Promise.resolve(OK);
  });
  serve(router, organisation.invitation, ({ params }) => readInvitation(listo, params.token));
  serve(router, organisation.accept, async ({ params, body, request, response }) => {
    const personId = await accept(listo, params.token, body);
    await signIn(listo, personId, { request, response, way: 'link' });
    return OK;
  });
};
