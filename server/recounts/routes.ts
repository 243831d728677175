import { api } from '../../contract';
import { readsDesk, maySetUp } from '../../core/rights';
import type { TargetDefinition } from '../../core/targets';
import { mayEditCalendar, readUsers, refuseFaulty } from '../calendars/service';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import { moveDefinition } from '../targets/ofTeam';
import type { Effect } from './effect';
import { findEffect } from './runner';
import type { Viewing } from '../unitOfWork';

/** What another calendar of a team would move: every promise that goes by it there. */
async function findTeamEffect(
  { listo, viewer }: Viewing,
  teamId: string,
  calendarId: string,
): Promise<Effect> {
  if (!maySetUp(viewer, teamId)) throw new ProblemError('forbidden');
  const { tables } = listo.db;
  if (!(await tables.teams.findOne({ id: teamId }))) throw new ProblemError('notFound');
  if (!(await tables.calendars.findOne({ id: calendarId })))
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'calendarId', code: 'notAChoice' }] });
  const targets = (await tables.targets.find({})).map((target) => ({
    id: target.id,
    definition: moveDefinition(target, teamId, calendarId),
  }));
  return findEffect(listo, viewer, { targets });
}

/** What a change would move, before it is made: of a calendar, of a team's, of a target. */
export const effectRoutes: Routes = (router, listo) => {
  const { calendars, targets, teams } = api;
  const { tables } = listo.db;
  serve(router, calendars.effect, async ({ viewer, params, body }) => {
    const calendar = await tables.calendars.findOne({ id: params.id });
    if (!calendar) throw new ProblemError('notFound');
    const usersOf = await readUsers(listo);
    if (!mayEditCalendar(viewer, usersOf(params.id))) throw new ProblemError('forbidden');
    refuseFaulty(listo, body.spec);
    return findEffect(listo, viewer, { calendars: { [params.id]: body.spec } });
  });
  serve(router, targets.effect, ({ viewer, params, body }) => {
    if (!readsDesk(viewer)) throw new ProblemError('forbidden');
    const definition = { ...(body.definition as TargetDefinition), id: params.id };
    return findEffect(listo, viewer, { targets: [{ id: params.id, definition }] });
  });
  serve(router, teams.effect, ({ viewer, params, body }) =>
    findTeamEffect({ listo, viewer }, params.id, body.calendarId),
  );
};
