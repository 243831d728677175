import { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { checkRouting, ROUTED_BY_HAND } from '../../core/routing';
import { isAgent, readsDesk, mayLead } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { readMembers, readShownLoads } from './candidates';
import type { Changing, UnitOfWork } from '../unitOfWork';

type Body = BodyOf<typeof api.routing.set>;

async function readRouting(listo: Listo, viewer: SignedIn, teamId: string) {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  const team = await listo.db.tables.teams.findOne({ id: teamId });
  if (!team) throw new ProblemError('notFound');
  const settings = team.routing ?? ROUTED_BY_HAND;
  const members = await readMembers({ listo }, team, settings);
  const shown = await readShownLoads(listo, viewer, { ids: members.map(({ id }) => id), settings });
  return {
    settings,
    version: team.version,
    mayEdit: mayLead(viewer, teamId),
    people: members.map(({ id, name, capacity, isAvailable, isAway, skills }) => ({
      ...{ id, name, capacity, load: shown.get(id) ?? 0, isAvailable, isAway, skills },
    })),
  };
}

async function savePeople({ listo, tx }: UnitOfWork, teamId: string, people: Body['people']): Promise<void> {
  const { tables } = listo.db;
  for (const { id, capacity, skills } of people) {
    if (!(await tables.members.findOne({ teamId, personId: id }, tx))) continue;
    await tables.members.update({ teamId, personId: id }, { capacity }, tx);
    await tables.skills.remove({ personId: id }, tx);
    await tables.skills.insertAll(
      Object.entries(skills).map(([skill, level]) => ({ personId: id, skill, level })),
      tx,
    );
  }
}

async function setRouting(
  { listo, viewer, actor }: Changing,
  teamId: string,
  { settings, people, version }: Body,
): Promise<{ version: number }> {
  if (!mayLead(viewer, teamId)) throw new ProblemError('forbidden');
  return change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    const team = await tables.teams.findOne({ id: teamId }, tx, true);
    if (!team) throw new ProblemError('notFound');
    if (team.version !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'routing', theirs: team.routing, yours: settings, by: null }],
      });
    const problems = checkRouting(settings, { id: teamId, skills: people.map(({ skills }) => skills) });
    if (settings.next && !(await tables.teams.findOne({ id: settings.next.teamId }, tx)))
      problems.push({ code: 'nowhereToGo', field: 'next' });
    if (problems.length > 0) throw new ProblemError('fieldsNotValid', { fields: problems });
    await tables.teams.update({ id: teamId }, { routing: settings, version: version + 1 }, tx);
    await savePeople({ listo, tx }, teamId, people);
    await appendSetting(
      { listo, tx },
      {
        by: viewer.id,
        type: 'routingSet',
        changes: { routing: { from: team.routing, to: settings } },
        data: { teamId },
      },
    );
    return { version: version + 1 };
  });
}

export const routingRoutes: Routes = (router, listo) => {
  const { routing } = api;
  serve(router, routing.get, ({ viewer, params }) => readRouting(listo, viewer, params.id));
  serve(router, routing.set, ({ viewer, actor, params, body }) =>
    setRouting({ listo, viewer, actor }, params.id, body),
  );
  serve(router, routing.setPresence, async ({ viewer, actor, body: { presence } }) => {
    if (!isAgent(viewer)) throw new ProblemError('forbidden');
    return change(listo, actor, async (tx) => {
      await listo.db.tables.people.update({ id: viewer.id }, { presence }, tx);
      await appendSetting(
        { listo, tx },
        {
          by: viewer.id,
          type: 'presenceSet',
          data: { personId: viewer.id, presence, teamIds: viewer.teams.map(({ teamId }) => teamId) },
        },
      );
      return OK;
    });
  });
};
