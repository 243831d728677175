import type { api } from '../../contract';
import type { AnswerOf, BodyOf } from '../../contract/endpoint';
import type { ThingCard } from '../../contract/estate';
import { mayKeepThings } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { Changing } from '../unitOfWork';
import { toCards } from './cards';
import { findByMark } from './choices';
import { readSeenKinds } from './kinds';
import type { ThingRow } from './model';

type Counted = AnswerOf<typeof api.estate.count>;

/** Compares what was scanned at a place with what should be there, and notes it as seen there, where that is wanted. */
export async function takeStock(
  { listo, viewer, actor }: Changing,
  { siteId, place, marks, isKept }: BodyOf<typeof api.estate.count>,
): Promise<Counted> {
  const kinds = await readSeenKinds({ listo, viewer });
  const { tables } = listo.db;
  if (!(await tables.sites.findOne({ id: siteId })))
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'siteId', code: 'notAChoice' }] });
  const found = new Map<string, ThingRow>();
  const [unknown, several]: [string[], string[]] = [[], []];
  for (const mark of new Set(marks)) {
    const rows = (await findByMark({ listo }, mark)).filter(({ kindId }) => kinds.has(kindId));
    if (rows.length === 0) unknown.push(mark);
    else if (rows.length > 1) several.push(mark);
    else found.set(rows[0]!.id, rows[0]!);
  }
  const isOf = (row: ThingRow): boolean =>
    row.siteId === siteId && (place === '' || row.place === place) && row.state !== 'retired';
  const supposed = (await tables.things.find({ siteId, kindId: [...kinds.keys()] })).filter(
    (row) => isOf(row) && row.state !== 'lost' && row.state !== 'ordered',
  );
  const cards = (rows: ThingRow[]): Promise<ThingCard[]> =>
    toCards({ listo, viewer }, rows, (kindId) => kinds.get(kindId)!.name);
  const scanned = [...found.values()];
  const answer = {
    here: await cards(scanned.filter(isOf)),
    missing: await cards(supposed.filter(({ id }) => !found.has(id))),
    strangers: await cards(scanned.filter((row) => !isOf(row))),
    ...{ unknown, several },
  };
  if (!isKept) return answer;
  const mine = scanned.filter(({ kindId }) => mayKeepThings(viewer, kinds.get(kindId)!.keptBy));
  return change(listo, actor, async (tx) => {
    for (const { id, name } of mine) {
      await tables.things.update({ id }, { seenAt: listo.clock.now() }, tx);
      await appendSetting(
        { listo, tx },
        { by: viewer.id, type: 'thingsCounted', data: { thingId: id, name } },
      );
    }
    return answer;
  });
}
