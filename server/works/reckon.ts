import type { Reckoned, WorkClash } from '../../contract/works';
import {
  fallsWithAll,
  findClashes,
  findSlot,
  impactOf,
  likelihoodOf,
  riskOf,
  wilson,
  type Clash,
  type Freeze,
  type Work,
} from '../../core/estate';
import { countPeople } from '../estate/hangs';
import { MOST_NAMED, readRefs } from '../estate/cards';
import { readSeenKinds } from '../estate/kinds';
import { readNetwork, type Network } from '../estate/network';
import type { Listo } from '../listo';
import { visibleTo } from '../tickets/visibility';
import type { Viewing } from '../unitOfWork';
import type { FreezeRow } from './model';

/** So long a change is remembered when it is asked how such changes went (ms): a year. */
const YEAR_MS = 365 * 86_400_000;
/** So many people feel it, and the impact is high. */
export const MANY_PEOPLE = 100;
/** The one that is asked about stands under this id, so that it is none of those that there are. */
const ASKED = '0';

/** A change with its stretch, as clashes are reckoned. */
type Planned = Work & { title: string };
export type Asked = { number: number | null; serviceId: string; thingIds: string[] };
type Stretch = { from: number; to: number };

/** Every thing, as far as clashes go by it: those that are retired count no more. */
export type Ground = { network: Network; things: string[]; watched: string[] };

export async function readGround(listo: Listo): Promise<Ground> {
  const network = await readNetwork(listo);
  const watched = await listo.db.select<{ id: string }>(
    "SELECT id FROM things WHERE isWatched AND state <> 'retired'",
  );
  return {
    network,
    things: [...network.things.keys()],
    watched: watched.flatMap(({ id }) => (network.things.has(id) ? [id] : [])),
  };
}

/** The works that are to be or go on within a stretch, as far as one sees them; drafts are in nobody's way. */
async function readPlanned({ listo, viewer }: Viewing, { from, to }: Stretch): Promise<Planned[]> {
  const visible = visibleTo(viewer);
  const rows = await listo.db.select<{
    number: number;
    title: string;
    fromAt: number;
    toAt: number;
    thingIds: string | null;
  }>(
    `SELECT t.number, t.title, w.fromAt, w.toAt, GROUP_CONCAT(x.thingId) AS thingIds FROM works w
       JOIN tickets t ON t.number = w.ticketNumber AND ${visible.sql} LEFT JOIN work_things x ON x.ticketNumber = w.ticketNumber
     WHERE w.submittedAt IS NOT NULL AND w.outcome IS NULL AND t.state IN ('received', 'inWork', 'held')
       AND w.toAt > :from AND w.fromAt < :to GROUP BY t.number ORDER BY w.fromAt, t.number`,
    { ...visible.values, from, to },
  );
  return rows.map(({ number, title, fromAt, toAt, thingIds }) => ({
    ...{ id: String(number), title, from: fromAt, to: toAt, takesOut: thingIds?.split(',') ?? [] },
  }));
}

export async function readFreezes({ db }: Listo, { from, to }: Stretch): Promise<FreezeRow[]> {
  const all = await db.tables.freezes.find({}, { order: ['fromAt', 'id'] });
  return all.filter(({ fromAt, toAt }) => toAt > from && fromAt < to);
}

const toFreeze = ({ id, thingIds, isEverything, fromAt, toAt }: FreezeRow): Freeze => ({
  ...{ id, from: fromAt, to: toAt, things: isEverything ? null : thingIds },
});

/** What is known at a place in time; things that there are no more are left out, since nothing hangs on them. */
function toKnown<T extends { takesOut: string[] }>({ network }: Ground, works: T[]): T[] {
  return works.map((work) => ({ ...work, takesOut: work.takesOut.filter((id) => network.things.has(id)) }));
}

async function toViews(
  viewing: Viewing,
  { network }: Ground,
  { clashes, works, freezes }: { clashes: Clash[]; works: Planned[]; freezes: FreezeRow[] },
): Promise<WorkClash[]> {
  const names = new Map(works.map(({ id, title }) => [id, title]));
  return Promise.all(
    clashes.map(async ({ kind, works: ids, things, from, to, freeze }) => {
      const row = freezes.find(({ id }) => id === freeze);
      return {
        ...{ kind, from, to, things: await readRefs(viewing, network, things.slice(0, MOST_NAMED)) },
        works: ids.map((id) => ({ number: Number(id), title: names.get(id) ?? '' })),
        freeze: row ? { id: row.id, name: row.name } : null,
      };
    }),
  );
}

/** All clashes within a stretch. */
export async function listClashes(viewing: Viewing, ground: Ground, stretch: Stretch): Promise<WorkClash[]> {
  const works = toKnown(ground, await readPlanned(viewing, stretch));
  const freezes = await readFreezes(viewing.listo, stretch);
  const { things, watched, network } = ground;
  const clashes = findClashes(things, [...network.needs], watched, works, freezes.map(toFreeze));
  return toViews(viewing, ground, { clashes, works, freezes });
}

/** What a change would get in the way of, at a stretch. */
async function clashesOf(
  viewing: Viewing,
  ground: Ground,
  { asked: { number, thingIds }, from, to }: { asked: Asked } & Stretch,
): Promise<WorkClash[]> {
  const id = number === null ? ASKED : String(number);
  const others = (await readPlanned(viewing, { from, to })).filter((work) => work.id !== id);
  const works = toKnown(ground, [...others, { id, title: '', from, to, takesOut: thingIds }]);
  const freezes = await readFreezes(viewing.listo, { from, to });
  const { things, watched, network } = ground;
  const clashes = findClashes(things, [...network.needs], watched, works, freezes.map(toFreeze));
  const own = clashes.filter((clash) => clash.works.includes(id));
  return toViews(viewing, ground, { clashes: own, works, freezes });
}

/** How changes of a template went within a year. */
export async function readPast({ db, clock }: Listo, serviceId: string) {
  const rows = await db.select<{ outcome: 'done' | 'failed' | 'takenBack' }>(
    `SELECT w.outcome FROM works w JOIN tickets t ON t.number = w.ticketNumber
     WHERE t.serviceId = :serviceId AND w.outcome IS NOT NULL AND w.endedAt > :since ORDER BY w.endedAt, t.number`,
    { serviceId, since: clock.now() - YEAR_MS },
  );
  const outcomes = rows.map(({ outcome }) => outcome);
  return { outcomes, failed: outcomes.filter((outcome) => outcome !== 'done').length, all: outcomes.length };
}

/** What is reckoned of a change: whom it reaches, how such changes went, what it gets in the way of. */
export async function reckon(
  viewing: Viewing,
  asked: Asked & { fromAt: number | null; toAt: number | null },
): Promise<Reckoned> {
  const { listo } = viewing;
  const ground = await readGround(listo);
  const { network } = ground;
  const known = asked.thingIds.filter((id) => network.things.has(id));
  const kinds = await readSeenKinds(viewing);
  const isSeen = (id: string): boolean => kinds.has(network.things.get(id)!.kindId);
  const fallen = fallsWithAll(network, known, network);
  const down = fallen.down.filter(isSeen);
  const watched = [...known, ...down].filter((id) => ground.watched.includes(id));
  // People feel what they know by name; a line that nobody has heard of is felt by what hangs on it.
  const people = known.length === 0 ? 0 : await countPeople(listo, [...known, ...fallen.down]);
  const { failed, all } = await readPast(listo, asked.serviceId);
  const impact = impactOf({ down: watched.length, weakened: fallen.weakened.length, people }, MANY_PEOPLE);
  const likelihood = likelihoodOf({ failed, all });
  const { fromAt, toAt } = asked;
  const hasStretch = fromAt !== null && toAt !== null && toAt > fromAt;
  const retired = known.filter((id) => network.things.get(id)!.state === 'retired');
  return {
    ...{ down: await readRefs(viewing, network, down.slice(0, MOST_NAMED)), downCount: down.length },
    weakenedCount: fallen.weakened.filter(isSeen).length,
    watched: await readRefs(viewing, network, watched.filter(isSeen).slice(0, MOST_NAMED)),
    ...{
      people,
      past: { failed, all, ...wilson(failed, all) },
      impact,
      likelihood,
      risk: riskOf(impact, likelihood),
    },
    clashes: hasStretch ? await clashesOf(viewing, ground, { asked, from: fromAt, to: toAt }) : [],
    retired: await readRefs(viewing, network, retired),
  };
}

/** The next free time for a change. Bounds and windows in ms since 1970. */
export async function findFree(
  viewing: Viewing,
  asked: Asked,
  {
    duration,
    notBefore,
    notAfter,
    windows,
  }: { duration: number; notBefore: number; notAfter: number; windows: Stretch[] },
): Promise<number | null> {
  const ground = await readGround(viewing.listo);
  const stretch = { from: notBefore, to: notAfter };
  const id = asked.number === null ? ASKED : String(asked.number);
  const works = toKnown(ground, await readPlanned(viewing, stretch));
  const freezes = (await readFreezes(viewing.listo, stretch)).map(toFreeze);
  const { things, watched, network } = ground;
  const [work] = toKnown(ground, [{ id, takesOut: asked.thingIds }]);
  const ask = { work: work!, duration, notBefore, notAfter };
  return findSlot(ask, windows, things, [...network.needs], watched, works, freezes);
}
