import { nanoid } from 'nanoid';
import { api } from '../../contract';
import type { Absence } from '../../contract/absences';
import type { BodyOf } from '../../contract/endpoint';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';
import type { SignedIn } from '../sessions/viewer';
import type { AbsenceRow } from './model';
import type { Changing, UnitOfWork } from '../unitOfWork';

/** One's absences that are not over yet, the next first. */
async function readMine(listo: Listo, personId: string): Promise<Absence[]> {
  const rows = await listo.db.select<AbsenceRow>(
    'SELECT * FROM absences WHERE personId = :personId AND toAt > :now ORDER BY fromAt',
    { personId, now: listo.clock.now() },
  );
  const people = await readPeople(
    listo,
    rows.map(({ delegateId }) => delegateId),
  );
  return rows.map(({ id, fromAt, toAt, delegateId }) => ({
    ...{ id, fromAt, toAt },
    delegate: delegateId === null ? null : (people.get(delegateId) ?? null),
  }));
}

const refuse = (field: string, code: string) =>
  new ProblemError('fieldsNotValid', { fields: [{ field, code }] });

async function check(
  { listo, tx }: UnitOfWork,
  viewer: SignedIn,
  { fromAt, toAt, delegateId }: BodyOf<typeof api.absences.add>,
): Promise<void> {
  if (toAt <= fromAt || toAt <= listo.clock.now()) throw refuse('toAt', 'notPossible');
  if (delegateId === viewer.id) throw refuse('delegateId', 'notAChoice');
  if (delegateId !== null && !(await listo.db.tables.people.findOne({ id: delegateId, leftAt: null }, tx)))
    throw refuse('delegateId', 'notAChoice');
  // Locked, so that two browsers of one person cannot add the same at once.
  await listo.db.tables.people.findOne({ id: viewer.id }, tx, true);
  const overlapping = await listo.db.select(
    'SELECT id FROM absences WHERE personId = :id AND fromAt < :toAt AND toAt > :fromAt LIMIT 1',
    { id: viewer.id, fromAt, toAt },
    tx,
  );
  if (overlapping.length > 0) throw refuse('fromAt', 'overlaps');
}

async function add(
  { listo, viewer, actor }: Changing,
  body: BodyOf<typeof api.absences.add>,
): Promise<{ id: string }> {
  return change(listo, actor, async (tx) => {
    await check({ listo, tx }, viewer, body);
    const id = nanoid();
    await listo.db.tables.absences.insert({ id, personId: viewer.id, ...body }, tx);
    const at = Math.max(body.fromAt, listo.clock.now());
    await listo.db.tables.timers.insert({ ticketNumber: 0, kind: 'comesBack', ref: id, at }, tx);
    return { id };
  });
}

export const absenceRoutes: Routes = (router, listo) => {
  serve(router, api.absences.mine, ({ viewer }) => readMine(listo, viewer.id));
  serve(router, api.absences.add, ({ viewer, actor, body }) => add({ listo, viewer, actor }, body));
  serve(router, api.absences.remove, async ({ viewer, actor, params }) => {
    await change(listo, actor, async (tx) => {
      const removed = await listo.db.tables.absences.remove({ id: params.id, personId: viewer.id }, tx);
      if (removed === 0) throw new ProblemError('notFound');
      await listo.db.tables.timers.remove({ ticketNumber: 0, kind: 'comesBack', ref: params.id }, tx);
    });
    return OK;
  });
};
