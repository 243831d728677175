import type { ThingClaim } from '../../contract/estateNames';
import { actOn, listActs, type ThingAct } from '../../core/estate';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { Changing, WorkOfViewer } from '../unitOfWork';
import { changesOf, requireThing } from './keep';
import type { ThingRow } from './model';

type Said = { version: number; act: ThingAct; holderId: string | null; lentUntil: number | null };

/** Does something with a thing within a unit of work: who has it and where it is in its life. */
export async function actWithin(
  work: WorkOfViewer,
  id: string,
  { version, act, holderId, lentUntil }: Said,
): Promise<{ version: number }> {
  const { listo, tx, viewer } = work;
  const { thing, kind } = await requireThing(work, id, version);
  if (!listActs(thing.state, kind.isHandedOut).includes(act))
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'act', code: 'notNow' }] });
  const now = listo.clock.now();
  const result = actOn(thing, act, { holderId, lentUntil, now });
  if ('problem' in result) throw new ProblemError('fieldsNotValid', { fields: [result.problem] });
  const { after } = result;
  if (holderId !== null && after.holderId === holderId) {
    const person = await listo.db.tables.people.findOne({ id: holderId, leftAt: null }, tx);
    if (!person)
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'holderId', code: 'notAChoice' }] });
  }
  const isHanded = after.holderId !== thing.holderId || act === 'handOver' || act === 'lend';
  const wanted: Partial<ThingRow> = {
    ...after,
    ...(isHanded && { handedAt: after.holderId === null ? null : now, confirmedAt: null }),
    // Whoever does something with it has dealt with what was said of it.
    ...{ claim: null, claimAt: null, version: version + 1 },
  };
  await listo.db.tables.things.update({ id }, wanted, tx);
  const personIds = [...new Set([thing.holderId, after.holderId].filter((each) => each !== null))];
  await appendSetting(
    { listo, tx },
    {
      ...{ by: viewer.id, type: 'thingActed', changes: changesOf(thing, wanted) },
      data: { thingId: id, name: thing.name, act, personIds },
    },
  );
  return { version: version + 1 };
}

/** Hands over, lends, takes back, sends to repair, retires a thing. */
export function actOnThing(
  { listo, viewer, actor }: Changing,
  id: string,
  said: Said,
): Promise<{ version: number }> {
  return change(listo, actor, (tx) => actWithin({ listo, tx, viewer }, id, said));
}

/** What a holder said of a thing, or that this is dealt with, on the (locked) thing. */
export async function claimWithin(
  { listo, tx, viewer }: WorkOfViewer,
  thing: ThingRow,
  { claim, confirmedAt }: { claim: ThingClaim | null; confirmedAt?: number },
): Promise<{ version: number }> {
  const wanted: Partial<ThingRow> = {
    ...{ claim, claimAt: claim === null ? null : listo.clock.now(), version: thing.version + 1 },
    ...(confirmedAt !== undefined && { confirmedAt }),
  };
  await listo.db.tables.things.update({ id: thing.id }, wanted, tx);
  await appendSetting(
    { listo, tx },
    {
      ...{ by: viewer.id, type: 'thingSaid', changes: changesOf(thing, wanted) },
      data: {
        ...{ thingId: thing.id, name: thing.name, claim },
        personIds: thing.holderId === null ? [] : [thing.holderId],
      },
    },
  );
  return { version: thing.version + 1 };
}

/** Says that what a holder said of a thing is dealt with. */
export function settleClaim(
  { listo, viewer, actor }: Changing,
  id: string,
  version: number,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const { thing } = await requireThing({ listo, tx, viewer }, id, version);
    return thing.claim === null ? { version } : claimWithin({ listo, tx, viewer }, thing, { claim: null });
  });
}
