import { nanoid } from 'nanoid';
import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { BadEstate, standings } from '../../core/estate';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { Changing, WorkOfViewer } from '../unitOfWork';
import { requireThing } from './keep';
import { readSeenKinds } from './kinds';
import type { ThingRow } from './model';

type Wanted = BodyOf<typeof api.estate.setNeeds>['needs'];
const refuse = (code: string): ProblemError =>
  new ProblemError('fieldsNotValid', { fields: [{ field: 'needs', code }] });

const CODES = {
  unknown: 'notAChoice',
  doubled: 'namedTwice',
  atLeast: 'moreThanThere',
  itself: 'needsItself',
} as const;

/** Refuses what the rules of the estate refuse, and what could never be met. */
function requireFit(id: string, wanted: Wanted, there: ThingRow[]): void {
  const ids = new Set([id, ...there.map((each) => each.id)]);
  try {
    standings(
      [...ids],
      wanted.map((need) => ({ thing: id, ...need })),
      [],
    );
  } catch (error) {
    if (!(error instanceof BadEstate)) throw error;
    const [problem] = error.problems;
    throw refuse(CODES[problem!.code as keyof typeof CODES]);
  }
  if (wanted.some(({ atLeast, of }) => atLeast > of.length)) throw refuse('moreThanThere');
  if (there.some(({ state }) => state === 'retired')) throw refuse('isRetired');
}

/** Puts other needs in the place of those that a thing had. @returns both in words, for its history */
async function replaceNeeds(
  { listo, tx }: WorkOfViewer,
  id: string,
  { wanted, there }: { wanted: Wanted; there: ThingRow[] },
): Promise<{ from: string; to: string }> {
  const { thingNeeds, things } = listo.db.tables;
  const before = await thingNeeds.find({ thingId: id, isGone: false }, { transaction: tx });
  const former = await things.find({ id: before.flatMap(({ members }) => members) }, { transaction: tx });
  await thingNeeds.update({ thingId: id, isGone: false }, { isGone: true }, tx);
  await thingNeeds.insertAll(
    wanted.map(({ atLeast, of }) => ({ id: nanoid(12), thingId: id, atLeast, members: of, isGone: false })),
    tx,
  );
  const names = new Map([...there, ...former].map((each) => [each.id, each.name]));
  const say = (all: Wanted): string =>
    all.map(({ atLeast, of }) => `${atLeast}: ${of.map((each) => names.get(each)).join(', ')}`).join('; ');
  return { from: say(before.map(({ atLeast, members }) => ({ atLeast, of: members }))), to: say(wanted) };
}

/** Says what a thing needs to work, within a unit of work. @param version that it has to have; absent: any */
export async function setNeedsWithin(
  work: WorkOfViewer,
  id: string,
  { version, needs: wanted }: { version?: number; needs: Wanted },
): Promise<{ version: number }> {
  const { listo, tx, viewer } = work;
  const { things } = listo.db.tables;
  const { thing } = await requireThing(work, id, version);
  const kinds = await readSeenKinds({ listo, viewer });
  const named = await things.find({ id: [...new Set(wanted.flatMap(({ of }) => of))] }, { transaction: tx });
  const there = named.filter(({ kindId }) => kinds.has(kindId));
  requireFit(id, wanted, there);
  const needs = await replaceNeeds(work, id, { wanted, there });
  if (needs.from === needs.to) return { version: thing.version };
  await things.update({ id }, { version: thing.version + 1 }, tx);
  await appendSetting(
    { listo, tx },
    { by: viewer.id, type: 'thingNeeds', data: { thingId: id, name: thing.name }, changes: { needs } },
  );
  return { version: thing.version + 1 };
}

/** Says what a thing needs to work. */
export function setNeeds(
  { listo, viewer, actor }: Changing,
  id: string,
  body: { version: number; needs: Wanted },
): Promise<{ version: number }> {
  return change(listo, actor, (tx) => setNeedsWithin({ listo, tx, viewer }, id, body));
}
