import { nanoid } from 'nanoid';
import type { ProcedureBody } from '../../contract/procedures';
import { completeText } from '../../core/forms';
import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import type { ProcedureRow } from './model';
import type { Changing, UnitOfWork, Viewing, WorkOfViewer } from '../unitOfWork';

/** Those who lead or set up a team say how it works. */
export const mayWrite = ({ isAdministrator, teams }: SignedIn, teamId: string): boolean =>
  isAdministrator || teams.some((team) => team.teamId === teamId && team.role !== 'agent');

function completeAll(body: ProcedureBody): ProcedureBody {
  return {
    ...body,
    name: completeText(body.name),
    overview: completeText(body.overview),
    steps: body.steps.map((step) => ({
      ...step,
      name: completeText(step.name),
      who: completeText(step.who),
      instruction: completeText(step.instruction),
    })),
  };
}

async function refuse(
  { listo, tx, viewer }: WorkOfViewer,
  { body, id }: { body: ProcedureBody; id: string | null },
): Promise<void> {
  const { tables } = listo.db;
  const problem = (field: string, code: string) =>
    new ProblemError('fieldsNotValid', { fields: [{ field, code }] });
  if (!mayWrite(viewer, body.teamId)) throw new ProblemError('forbidden');
  const { teamId, serviceId, kind, name, steps } = completeAll(body);
  if (name.en.trim() === '') throw problem('name', 'missing');
  const nameless = steps.findIndex((step) => step.name.en.trim() === '');
  if (nameless !== -1) throw problem(`steps.${nameless}.name`, 'missing');
  if (new Set(steps.map((step) => step.id)).size < steps.length) throw problem('steps', 'malformed');
  if ((serviceId === null) === (kind === null)) throw problem('serviceId', 'notAChoice');
  if (serviceId !== null) {
    const service = await tables.services.findOne({ id: serviceId }, tx);
    if (service?.teamId !== teamId) throw problem('serviceId', 'notAChoice');
  }
  const same = await tables.procedures.find({ teamId, serviceId, kind }, { transaction: tx });
  if (same.some((other) => other.id !== id)) throw problem('serviceId', 'isWritten');
}

async function requireOwn({ listo, tx }: UnitOfWork, viewer: SignedIn, id: string): Promise<ProcedureRow> {
  const row = await listo.db.tables.procedures.findOne({ id }, tx, true);
  if (!row) throw new ProblemError('notFound');
  if (!mayWrite(viewer, row.teamId)) throw new ProblemError('forbidden');
  return row;
}

export function createProcedure(
  { listo, viewer, actor }: Changing,
  body: ProcedureBody,
): Promise<{ id: string }> {
  return change(listo, actor, async (tx) => {
    await refuse({ listo, tx, viewer }, { body, id: null });
    const id = nanoid(12);
    await listo.db.tables.procedures.insert({ ...completeAll(body), id, version: 1 }, tx);
    return { id };
  });
}

export function updateProcedure(
  { listo, viewer }: Viewing,
  { actor, id }: { actor: Actor; id: string },
  { version, ...body }: ProcedureBody & { version: number },
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const row = await requireOwn({ listo, tx }, viewer, id);
    if (row.version !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'procedure', theirs: row.name, yours: body.name, by: null }],
      });
    await refuse({ listo, tx, viewer }, { body, id });
    await listo.db.tables.procedures.update({ id }, { ...completeAll(body), version: version + 1 }, tx);
    return { version: version + 1 };
  });
}

export function removeProcedure(
  listo: Listo,
  viewer: SignedIn,
  { actor, id }: { actor: Actor; id: string },
): Promise<{ ok: true }> {
  return change(listo, actor, async (tx) => {
    await requireOwn({ listo, tx }, viewer, id);
    await listo.db.tables.procedures.remove({ id }, tx);
    return OK;
  });
}
