import { nanoid } from 'nanoid';
import { Worker } from 'node:worker_threads';
import { api } from '../../contract';
import type { Asked } from '../../contract/compliance';
import { readsDesk } from '../../core/rights';
import { checkTarget, type TargetDefinition } from '../../core/targets';
import { refuseFaulty } from '../calendars/service';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import type { ReplayTask } from '../replayWorker';
import { hasOwn } from '../../core/records';

/** A replay that says nothing for so long has died with its process. */
const STALE_MS = 900_000;

export const replayRoutes: Routes = (router, listo) => {
  const { compliance } = api;
  const { tables } = listo.db;

  serve(router, compliance.replay, async ({ viewer, body }) => {
    if (!readsDesk(viewer)) throw new ProblemError('forbidden');
    const targets = body.targets.map(({ id, definition }) => ({
      id,
      definition: { ...(definition as TargetDefinition), id },
    }));
    Object.values(body.calendars).forEach((spec) => refuseFaulty(listo, spec));
    const known = await listo.calendars.getAll();
    for (const { definition } of targets) {
      const fields: { field: string; code: string }[] = checkTarget(definition).map(({ field, code }) => ({
        field,
        code: code,
      }));
      if (
        definition.calendars.some(
          ({ calendarId }) => !hasOwn(known, calendarId) && !hasOwn(body.calendars, calendarId),
        )
      )
        fields.push({ field: 'calendars', code: 'notAChoice' });
      if (fields.length > 0) throw new ProblemError('fieldsNotValid', { fields });
    }
    const { from, to, calendars, moves } = body;
    const teams = await tables.teams.find({});
    const isTeam = (teamId: string): boolean => teams.some(({ id }) => id === teamId);
    if (!moves.every(({ fromTeamId, toTeamId }) => isTeam(fromTeamId) && isTeam(toTeamId)))
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'moves', code: 'notAChoice' }] });
    // One at a time: each takes a thread of its own, and reads a whole period.
    const since = listo.clock.now() - STALE_MS;
    const [going] = await listo.db.select(
      "SELECT 1 FROM replays WHERE personId = :personId AND state = 'running' AND at > :since LIMIT 1",
      { personId: viewer.id, since },
    );
    if (going) throw new ProblemError('busy');
    const asked: Asked = { from, to, targets, calendars, moves };
    const id = nanoid(12);
    await tables.replays.insert({
      ...{
        id,
        personId: viewer.id,
        at: listo.clock.now(),
        asked,
        state: 'running',
        done: 0,
        total: 0,
        result: null,
      },
    });
    const { id: viewerId, isAdministrator, mayAskForOthers, language } = viewer;
    const task: ReplayTask = {
      ...{ config: listo.config, clockOffset: listo.clock.now() - Date.now(), id },
      viewer: { id: viewerId, isAdministrator, mayAskForOthers, language, teams: viewer.teams },
    };
    const worker = new Worker(new URL('./thread.mjs', import.meta.url), { workerData: task, execArgv: [] });
    worker.unref();
    worker.once('error', (error) => {
      listo.log.error({ err: error, replay: id }, 'a replay failed');
      void tables.replays.update({ id }, { state: 'failed' }).catch(() => undefined);
    });
    return { id };
  });

  serve(router, compliance.replayOf, async ({ viewer, params }) => {
    const row = await tables.replays.findOne({ id: params.id, personId: viewer.id });
    if (!row) throw new ProblemError('notFound');
    const { id, state, done, total, result } = row;
    return { id, state, done, total, result };
  });

  serve(router, compliance.stopReplay, async ({ viewer, params }) => {
    await tables.replays.update(
      { id: params.id, personId: viewer.id, state: 'running' },
      { state: 'stopped' },
    );
    return OK;
  });
};
