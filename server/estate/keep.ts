import { nanoid } from 'nanoid';
import type { ThingBody } from '../../contract/estate';
import { checkThing, toMark, type ThingState } from '../../core/estate';
import { checkAnswers, type Answers } from '../../core/forms';
import { mayKeepThings } from '../../core/rights';
import { isDuplicate } from '../database/failures';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { Changing, UnitOfWork, WorkOfViewer } from '../unitOfWork';
import type { ThingKindRow, ThingRow } from './model';
import { seesKind } from './kinds';

type Fault = { field: string; code: string };
/** A thing as it is written by hand, or by a row of a table: then what its kind asks for may be missing. */
export type WrittenThing = { body: ThingBody; isLenient?: boolean };

async function requireKind({ listo, tx }: UnitOfWork, id: string): Promise<ThingKindRow> {
  const kind = await listo.db.tables.thingKinds.findOne({ id }, tx);
  if (!kind) throw new ProblemError('fieldsNotValid', { fields: [{ field: 'kindId', code: 'notAChoice' }] });
  return kind;
}

/** What is named has to be there. */
async function findMissing(
  { listo, tx }: UnitOfWork,
  { ownerId, siteId, teamId }: ThingBody,
): Promise<Fault[]> {
  const { people, sites, teams } = listo.db.tables;
  const faults: Fault[] = [];
  const missing = (field: string): void => void faults.push({ field, code: 'notAChoice' });
  if (ownerId !== null && !(await people.findOne({ id: ownerId }, tx))) missing('ownerId');
  if (siteId !== null && !(await sites.findOne({ id: siteId }, tx))) missing('siteId');
  if (teamId !== null && !(await teams.findOne({ id: teamId }, tx))) missing('teamId');
  return faults;
}

const trimmed = <T extends object>(body: T): T =>
  Object.fromEntries(
    Object.entries(body).map(([name, value]) => [name, typeof value === 'string' ? value.trim() : value]),
  ) as T;

/** The columns that a thing is stored in, as it was written. @throws ProblemError that names every field at fault */
async function toColumns(
  work: UnitOfWork,
  kind: ThingKindRow,
  { body, isLenient = false }: WrittenThing,
): Promise<Omit<ThingBody, 'fields'> & Pick<ThingRow, 'tagMark' | 'serialMark' | 'fields'>> {
  const said = trimmed(body);
  const { answers, problems } = checkAnswers(kind.form, body.fields as Answers);
  const faults: Fault[] = [
    ...checkThing(said),
    ...problems
      .filter(({ code }) => !isLenient || code !== 'missing')
      .map(({ field, code }) => ({ field: `fields.${field}`, code })),
    ...(await findMissing(work, said)),
  ];
  if (faults.length > 0) throw new ProblemError('fieldsNotValid', { fields: faults });
  const markOf = (words: string): string | null => toMark(words) || null;
  return { ...said, fields: answers, tagMark: markOf(said.tag), serialMark: markOf(said.serial) };
}

/** Two things of one tag cannot be told apart by who scans them. */
async function orTaken<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'tag', code: 'taken' }] });
  }
}

/** Makes a thing within a unit of work. */
export async function createWithin(
  { listo, tx, viewer }: WorkOfViewer,
  written: WrittenThing,
  { state, holderId = null }: { state: ThingState; holderId?: string | null },
): Promise<{ id: string }> {
  const kind = await requireKind({ listo, tx }, written.body.kindId);
  if (!mayKeepThings(viewer, kind.keptBy)) throw new ProblemError('forbidden');
  const id = nanoid(12);
  const now = listo.clock.now();
  const columns = await toColumns({ listo, tx }, kind, written);
  await orTaken(
    listo.db.tables.things.insert(
      {
        ...{ ...columns, id, state, holderId, department: null, lentUntil: null, version: 1 },
        ...{ handedAt: holderId === null ? null : now, confirmedAt: null, claim: null, claimAt: null },
        seenAt: null,
      },
      tx,
    ),
  );
  const data = { thingId: id, name: columns.name };
  await appendSetting({ listo, tx }, { by: viewer.id, type: 'thingMade', data });
  return { id };
}

/** Makes a thing. */
export function createThing(
  { listo, viewer, actor }: Changing,
  { state, ...body }: ThingBody & { state: 'ordered' | 'inStore' | 'inUse' },
): Promise<{ id: string }> {
  return change(listo, actor, (tx) => createWithin({ listo, tx, viewer }, { body }, { state }));
}

/** A thing that is about to be changed, locked. @throws ProblemError where it may not be, or has changed meanwhile */
export async function requireThing(
  { listo, tx, viewer }: WorkOfViewer,
  id: string,
  version?: number,
): Promise<{ thing: ThingRow; kind: ThingKindRow }> {
  const thing = await listo.db.tables.things.findOne({ id }, tx, true);
  const kind = thing && (await listo.db.tables.thingKinds.findOne({ id: thing.kindId }, tx));
  // What one does not see is not there.
  if (!thing || !kind || !seesKind(viewer, kind)) throw new ProblemError('notFound');
  if (!mayKeepThings(viewer, kind.keptBy)) throw new ProblemError('forbidden');
  if (version !== undefined && thing.version !== version)
    throw new ProblemError('stale', {
      differences: [{ field: 'thing', theirs: thing.state, yours: null, by: null }],
    });
  return { thing, kind };
}

/** The fields in which a thing differs from what is wanted. */
export function differencesOf(thing: ThingRow, wanted: Partial<ThingRow>): (keyof ThingRow)[] {
  return (Object.keys(wanted) as (keyof ThingRow)[]).filter(
    (field) => JSON.stringify(wanted[field] ?? null) !== JSON.stringify(thing[field] ?? null),
  );
}

/** What follows from another and says nothing by itself. */
const UNSAID = new Set<keyof ThingRow>(['tagMark', 'serialMark', 'version', 'claimAt', 'handedAt', 'seenAt']);

/** Every change of a thing, with what was so before, as its history keeps it. */
export const changesOf = (thing: ThingRow, wanted: Partial<ThingRow>) =>
  Object.fromEntries(
    differencesOf(thing, wanted)
      .filter((field) => !UNSAID.has(field))
      .map((field) => [field, { from: thing[field] ?? null, to: wanted[field] ?? null }]),
  );

/** Changes a thing within a unit of work. */
export async function updateWithin(
  { listo, tx, viewer }: WorkOfViewer,
  id: string,
  { version, ...written }: WrittenThing & { version: number },
): Promise<{ version: number }> {
  const { thing } = await requireThing({ listo, tx, viewer }, id);
  const kind = await requireKind({ listo, tx }, written.body.kindId);
  if (!mayKeepThings(viewer, kind.keptBy)) throw new ProblemError('forbidden');
  const wanted = await toColumns({ listo, tx }, kind, written);
  const changes = changesOf(thing, wanted);
  if (thing.version !== version)
    throw new ProblemError('stale', {
      differences: Object.entries(changes).map(([field, { from, to }]) => ({
        ...{ field, theirs: from, yours: to, by: null },
      })),
    });
  if (Object.keys(changes).length === 0) return { version };
  await orTaken(listo.db.tables.things.update({ id }, { ...wanted, version: version + 1 }, tx));
  const data = { thingId: id, name: wanted.name };
  await appendSetting({ listo, tx }, { by: viewer.id, type: 'thingChanged', changes, data });
  return { version: version + 1 };
}

/** Changes what is known of a thing. */
export function updateThing(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, ...body }: ThingBody & { version: number },
): Promise<{ version: number }> {
  return change(listo, actor, (tx) => updateWithin({ listo, tx, viewer }, id, { version, body }));
}
