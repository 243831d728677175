import { nanoid } from 'nanoid';
import type { ThingKind, ThingKindBody } from '../../contract/thingKinds';
import { checkForm, completeText } from '../../core/forms';
import { mayKeepThings, readsDesk } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { SignedIn } from '../sessions/viewer';
import type { Changing, Reading, UnitOfWork, Viewing } from '../unitOfWork';
import type { ThingKindRow } from './model';

/** Whether someone sees the things of a kind at the Desk. */
export const seesKind = (viewer: SignedIn, { seenBy, keptBy }: ThingKindRow): boolean =>
  readsDesk(viewer) && (seenBy !== 'keepers' || mayKeepThings(viewer, keptBy));

/** All kinds by id. They are few. */
export async function readKinds({ listo, tx }: Reading): Promise<Map<string, ThingKindRow>> {
  const rows = await listo.db.tables.thingKinds.find(
    {},
    { order: ['position', 'id'], ...(tx && { transaction: tx }) },
  );
  return new Map(rows.map((row) => [row.id, row]));
}

/** The kinds whose things someone sees; never none, so that it can stand in a list. */
export async function readSeenKinds({ listo, viewer }: Viewing): Promise<Map<string, ThingKindRow>> {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  const kinds = await readKinds({ listo });
  return new Map([...kinds].filter(([, kind]) => seesKind(viewer, kind)));
}

/** The kinds of things, with how many there are of each. */
export async function listKinds({ listo, viewer }: Viewing): Promise<ThingKind[]> {
  const kinds = await readSeenKinds({ listo, viewer });
  const counts = await listo.db.select<{ kindId: string; count: number }>(
    "SELECT kindId, COUNT(*) AS count FROM things WHERE state <> 'retired' GROUP BY kindId",
  );
  return [...kinds.values()].map(({ position: _, ...kind }) => ({
    ...kind,
    form: kind.form,
    count: counts.find(({ kindId }) => kindId === kind.id)?.count ?? 0,
    mayKeep: mayKeepThings(viewer, kind.keptBy),
  }));
}

const refuse = (field: string, code: string): ProblemError =>
  new ProblemError('fieldsNotValid', { fields: [{ field, code }] });

/** What a kind asks of its things comes from them alone: no file, and nothing that is filled from a person. */
const NOT_ASKED = new Set(['files', 'heading', 'asset']);

async function requireFit({ listo, tx }: UnitOfWork, body: ThingKindBody): Promise<void> {
  const { teams, services } = listo.db.tables;
  if (completeText(body.name).en.trim() === '') throw refuse('name', 'missing');
  const [problem] = checkForm(body.form as ThingKindRow['form']);
  if (problem) throw refuse(`form.${problem.field}`, problem.code);
  const odd = body.form.fields.find(({ kind }) => NOT_ASKED.has(kind));
  if (odd) throw refuse(`form.${odd.name}`, 'notAChoice');
  for (const id of body.keptBy) if (!(await teams.findOne({ id }, tx))) throw refuse('keptBy', 'notAChoice');
  if (body.serviceId !== null && !(await services.findOne({ id: body.serviceId }, tx)))
    throw refuse('serviceId', 'notAChoice');
}

function toRow({ name, form, ...body }: ThingKindBody) {
  return { ...body, form: form as ThingKindRow['form'], name: completeText(name) };
}

/** Makes a kind of things. */
export function createKind({ listo, viewer, actor }: Changing, body: ThingKindBody): Promise<{ id: string }> {
  if (!viewer.isAdministrator) throw new ProblemError('forbidden');
  return change(listo, actor, async (tx) => {
    await requireFit({ listo, tx }, body);
    const id = nanoid(12);
    const position = (await readKinds({ listo, tx })).size;
    await listo.db.tables.thingKinds.insert({ ...toRow(body), id, position, version: 1 }, tx);
    const data = { kindId: id, name: completeText(body.name).en };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'thingKindMade', data });
    return { id };
  });
}

/** Changes a kind. What was answered to a question that is gone stays with its thing and is no longer shown. */
export function updateKind(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, ...body }: ThingKindBody & { version: number },
): Promise<{ version: number }> {
  if (!viewer.isAdministrator) throw new ProblemError('forbidden');
  return change(listo, actor, async (tx) => {
    const row = await listo.db.tables.thingKinds.findOne({ id }, tx, true);
    if (!row) throw new ProblemError('notFound');
    if (row.version !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'kind', theirs: row.name, yours: body.name, by: null }],
      });
    await requireFit({ listo, tx }, body);
    await listo.db.tables.thingKinds.update({ id }, { ...toRow(body), version: version + 1 }, tx);
    const data = { kindId: id, name: completeText(body.name).en };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'thingKindChanged', data });
    return { version: version + 1 };
  });
}
