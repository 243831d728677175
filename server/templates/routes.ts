import { nanoid } from 'nanoid';
import { api } from '../../contract';
import { isAgent } from '../../core/rights';
import { findService, readService } from '../catalogue/services';
import { isDuplicate } from '../database/failures';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import type { SignedIn } from '../sessions/viewer';

const refused = (field: string, code: string): ProblemError =>
  new ProblemError('fieldsNotValid', { fields: [{ field, code }] });

/** What a team prepared, any of its members keeps up. */
const mayEdit = (viewer: SignedIn, teamId: string): boolean =>
  viewer.teams.some((team) => team.teamId === teamId);

export const templateRoutes: Routes = (router, listo) => {
  const { templates } = api;
  const { tables } = listo.db;
  serve(router, templates.list, async ({ viewer }) => {
    if (!isAgent(viewer)) throw new ProblemError('forbidden');
    const teamIds = viewer.teams.map(({ teamId }) => teamId);
    const rows = await tables.templates.find({ teamId: teamIds }, { order: ['teamId', 'name'] });
    return Promise.all(
      rows.map(async (row) => ({
        ...row,
        mayEdit: mayEdit(viewer, row.teamId),
        mayOffer: (await findService(listo, row.serviceId))?.service.teamId === row.teamId,
      })),
    );
  });
  serve(router, templates.create, async ({ viewer, actor, body }) => {
    if (!isAgent(viewer)) throw new ProblemError('forbidden');
    if (!mayEdit(viewer, body.teamId)) throw refused('teamId', 'notAChoice');
    if (!(await findService(listo, body.serviceId))) throw refused('serviceId', 'notAChoice');
    return change(listo, actor, async (tx) => {
      const id = nanoid(12);
      await tables.templates.insert({ ...body, id }, tx);
      return { id };
    }).catch((error: unknown) => {
      throw isDuplicate(error) ? refused('name', 'isKept') : error;
    });
  });
  serve(router, templates.offered, async ({ viewer, params }) => {
    const service = await readService(listo, params.id, viewer.id);
    const rules = await findService(listo, params.id);
    // Another person's form is filled in by those who may not have the service for themselves.
    if (!service || !rules || (!service.isForYou && !viewer.mayAskForOthers))
      throw new ProblemError('notFound');
    return tables.templates.find(
      { serviceId: params.id, teamId: rules.service.teamId, isOffered: true },
      { attributes: ['id', 'name', 'title', 'answers'], order: ['name'] },
    );
  });
  serve(router, templates.update, ({ viewer, actor, params, body }) =>
    change(listo, actor, async (tx) => {
      const row = await tables.templates.findOne({ id: params.id }, tx, true);
      if (!row || !mayEdit(viewer, row.teamId)) throw new ProblemError('notFound');
      await tables.templates.update({ id: params.id }, body, tx);
      return OK;
    }).catch((error: unknown) => {
      throw isDuplicate(error) ? refused('name', 'isKept') : error;
    }),
  );
  serve(router, templates.remove, ({ viewer, actor, params }) =>
    change(listo, actor, async (tx) => {
      const row = await tables.templates.findOne({ id: params.id }, tx, true);
      if (!row || !mayEdit(viewer, row.teamId)) throw new ProblemError('notFound');
      await tables.templates.remove({ id: params.id }, tx);
      return OK;
    }),
  );
};
