import type { EstateFigures } from '../../contract/estate';
import { batches, worthOn, type Fared } from '../../core/estate';
import { visibleTo } from '../tickets/visibility';
import type { Viewing } from '../unitOfWork';
import { readSeenKinds } from './kinds';
import { listThings } from './list';
import type { ThingRow } from './model';

const DAY_MS = 86_400_000;
const dayOf = (at: number): string => new Date(at).toISOString().slice(0, 10);

type Summed = Pick<ThingRow, 'id' | 'kindId' | 'model' | 'cost' | 'boughtOn'> & { department: string | null };
const MOST_SHOWN = 20;

/** Sums of what things cost and are still worth, by name, the dearest first. */
function sumBy(
  things: Summed[],
  { nameOf, worthOf }: { nameOf(thing: Summed): string; worthOf(thing: Summed): number },
) {
  const sums = new Map<string, EstateFigures['byYear'][number]>();
  for (const thing of things) {
    const name = nameOf(thing);
    const sum = sums.get(name) ?? { name, count: 0, cost: 0, worth: 0 };
    sums.set(name, {
      ...{ name, count: sum.count + 1, cost: sum.cost + (thing.cost ?? 0) },
      worth: sum.worth + worthOf(thing),
    });
  }
  return [...sums.values()];
}

/** Cost, worth, age and failures of the things that someone sees. Tickets that they may not read count nothing. */
export async function readFigures(
  { listo, viewer }: Viewing,
  { kindId }: { kindId?: string | undefined },
): Promise<EstateFigures> {
  const kinds = await readSeenKinds({ listo, viewer });
  const kindIds = [...kinds.keys()].filter((id) => kindId === undefined || id === kindId);
  const now = listo.clock.now();
  const things = await listo.db.select<Summed>(
    `SELECT a.id, a.kindId, a.model, a.cost, a.boughtOn, COALESCE(p.department, a.department) AS department
     FROM things a LEFT JOIN people p ON p.id = a.holderId WHERE a.kindId IN (:kindIds) AND a.state <> 'retired'`,
    { kindIds: kindIds.length > 0 ? kindIds : [''] },
  );
  const visible = visibleTo(viewer);
  const failures = await listo.db.select<{ thingId: string; count: number }>(
    `SELECT x.thingId, COUNT(*) AS count FROM ticket_things x JOIN tickets t ON t.number = x.ticketNumber
     WHERE t.kind = 'incident' AND t.createdAt >= :since AND ${visible.sql} GROUP BY x.thingId`,
    { ...visible.values, since: now - 365 * DAY_MS },
  );
  const failed = new Map(failures.map(({ thingId, count }) => [thingId, count]));
  const worthOf = ({ kindId: kind, cost, boughtOn }: Summed): number => {
    const months = kinds.get(kind)?.months;
    if (cost === null) return 0;
    return boughtOn && months ? worthOn({ cost: cost, boughtOn, months }, dayOf(now)) : cost;
  };
  // A model is compared with the others of its kind: a kiosk is used otherwise than a laptop.
  const fared = (kind: string): Fared[] =>
    things
      .filter((thing) => thing.kindId === kind)
      .map(({ id, model }) => ({ id, model, failures: failed.get(id) ?? 0 }));
  const byDepartment = sumBy(things, { worthOf, nameOf: ({ department }) => department ?? '' });
  const byYear = sumBy(things, { worthOf, nameOf: ({ boughtOn }) => boughtOn?.slice(0, 4) ?? '' });
  const { rows: expiring } = await listThings(
    { listo, viewer },
    { q: '', only: 'warranty', ...(kindId !== undefined && { kindId }) },
  );
  return {
    count: things.length,
    cost: things.reduce((sum, { cost }) => sum + (cost ?? 0), 0),
    worth: things.reduce((sum, thing) => sum + worthOf(thing), 0),
    byDepartment: byDepartment.sort((a, b) => b.cost - a.cost || b.count - a.count).slice(0, MOST_SHOWN),
    byYear: byYear.sort((a, b) => a.name.localeCompare(b.name)),
    batches: kindIds
      .flatMap((kind) => batches(fared(kind)))
      .sort((a, b) => b.low - a.low)
      .slice(0, MOST_SHOWN),
    expiring,
  };
}
