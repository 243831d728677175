import { nanoid } from 'nanoid';
import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { completeText } from '../../core/forms';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { Changing, UnitOfWork } from '../unitOfWork';
import { maySetFreezes } from './calendar';
import type { FreezeRow } from './model';

type Body = BodyOf<typeof api.works.createFreeze>;
type Fault = { field: string; code: string };

/** The columns of a freeze as it was written. @throws ProblemError that names every field at fault */
async function toColumns({ listo, tx }: UnitOfWork, { name, fromAt, toAt, thingIds }: Body) {
  const faults: Fault[] = [];
  if (completeText(name).en.trim() === '') faults.push({ field: 'name', code: 'missing' });
  if (toAt <= fromAt) faults.push({ field: 'toAt', code: 'endsBeforeBegins' });
  const found = await listo.db.tables.things.find(
    { id: thingIds ?? [] },
    { transaction: tx, attributes: ['id'] },
  );
  if (thingIds?.length === 0) faults.push({ field: 'things', code: 'missing' });
  else if (found.length < new Set(thingIds).size) faults.push({ field: 'things', code: 'notAChoice' });
  if (faults.length > 0) throw new ProblemError('fieldsNotValid', { fields: faults });
  return {
    name: completeText(name),
    fromAt,
    toAt,
    thingIds: thingIds ?? [],
    isEverything: thingIds === null,
  };
}

export function createFreeze({ listo, viewer, actor }: Changing, body: Body): Promise<{ id: string }> {
  if (!maySetFreezes(viewer)) throw new ProblemError('forbidden');
  return change(listo, actor, async (tx) => {
    const columns = await toColumns({ listo, tx }, body);
    const id = nanoid(12);
    await listo.db.tables.freezes.insert({ ...columns, id, version: 1 }, tx);
    const data = { freezeId: id, name: columns.name.en };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'freezeSet', data });
    return { id };
  });
}

async function requireFreeze({ listo, tx }: UnitOfWork, id: string): Promise<FreezeRow> {
  const freeze = await listo.db.tables.freezes.findOne({ id }, tx, true);
  if (!freeze) throw new ProblemError('notFound');
  return freeze;
}

export function updateFreeze(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, ...body }: BodyOf<typeof api.works.updateFreeze>,
): Promise<{ version: number }> {
  if (!maySetFreezes(viewer)) throw new ProblemError('forbidden');
  return change(listo, actor, async (tx) => {
    const freeze = await requireFreeze({ listo, tx }, id);
    if (freeze.version !== version) throw new ProblemError('stale');
    const columns = await toColumns({ listo, tx }, body);
    await listo.db.tables.freezes.update({ id }, { ...columns, version: version + 1 }, tx);
    const data = { freezeId: id, name: columns.name.en };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'freezeSet', data });
    return { version: version + 1 };
  });
}

export function removeFreeze({ listo, viewer, actor }: Changing, id: string): Promise<{ ok: true }> {
  if (!maySetFreezes(viewer)) throw new ProblemError('forbidden');
  return change(listo, actor, async (tx) => {
    const { name } = await requireFreeze({ listo, tx }, id);
    await listo.db.tables.freezes.remove({ id }, tx);
    await appendSetting(
      { listo, tx },
      { by: viewer.id, type: 'freezeRemoved', data: { freezeId: id, name: name.en } },
    );
    return OK;
  });
}
