import { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { readsDesk, maySetUp, type Viewer } from '../../core/rights';
import { listWarnPercents } from '../../core/targets';
import type { TargetRow } from '../clocks/model';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import { appendSetting } from '../journal/append';
import { askForRecount } from '../clocks/askForRecount';
import { defineTarget, listEditions, previewTarget } from './define';
import { visibleTo } from '../tickets/visibility';
import type { Changing } from '../unitOfWork';

const mayEdit = (viewer: Viewer, { teamId }: Pick<TargetRow, 'teamId'>): boolean => maySetUp(viewer, teamId);

async function updateTarget(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, isOn, notices }: BodyOf<typeof api.targets.update>,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    const target = await tables.targets.findOne({ id }, tx, true);
    if (!target) throw new ProblemError('notFound');
    if (!mayEdit(viewer, target)) throw new ProblemError('forbidden');
    if (target.version !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'isOn', theirs: target.isOn, yours: isOn, by: null }],
      });
    const percents = notices?.map(({ percent }) => percent) ?? [];
    if (new Set(percents).size < percents.length)
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'notices', code: 'repeated' }] });
    const changed = {
      ...(isOn !== undefined && { isOn }),
      ...(notices && {
        notices,
        definition: { ...target.definition, warnAtPercent: listWarnPercents(notices) },
      }),
      version: version + 1,
    };
    await tables.targets.update({ id }, changed, tx);
    await appendSetting(
      { listo, tx },
      {
        by: viewer.id,
        type: 'targetChanged',
        changes: {
          isOn: { from: target.isOn, to: isOn ?? target.isOn },
          notices: { from: target.notices, to: notices ?? target.notices },
        },
        data: { targetId: id, name: target.definition.name },
      },
    );
    await askForRecount({ listo, tx }, target.definition.name);
    return { version: version + 1 };
  });
}

export const targetRoutes: Routes = (router, listo) => {
  const { targets } = api;
  serve(router, targets.list, async ({ viewer }) => {
    const rows = await listo.db.tables.targets.find({}, { order: ['position'] });
    const visible = visibleTo(viewer);
    const going = await listo.db.select<{ targetId: string; count: number }>(
      `SELECT c.targetId, COUNT(*) AS count FROM clocks c JOIN tickets t ON t.number = c.ticketNumber
       WHERE c.state IN ('running', 'paused') AND ${visible.sql} GROUP BY c.targetId`,
      visible.values,
    );
    return rows.map(({ position: _, newFrom: __, ...row }) => ({
      ...row,
      mayEdit: mayEdit(viewer, row),
      going: row.isOn ? (going.find(({ targetId }) => targetId === row.id)?.count ?? 0) : 0,
    }));
  });
  serve(router, targets.preview, ({ viewer, body }) => previewTarget(listo, viewer, body));
  serve(router, targets.define, ({ viewer, actor, params, body }) =>
    defineTarget({ listo, viewer, actor }, params.id, body),
  );
  serve(router, targets.editions, ({ viewer, params }) => {
    if (!readsDesk(viewer)) throw new ProblemError('forbidden');
    return listEditions(listo, viewer, params.id);
  });
  serve(router, targets.update, ({ viewer, actor, params, body }) =>
    updateTarget({ listo, viewer, actor }, params.id, body),
  );
};
