import type { Hangs, ThingMap } from '../../contract/estate';
import type { api } from '../../contract';
import type { QueryOf } from '../../contract/endpoint';
import { availability, fallsWith, loneFailures, reach, TooEntangled } from '../../core/estate';
import type { Listo } from '../listo';
import type { Viewing } from '../unitOfWork';
import { countOpen, MOST_NAMED, readRefs } from './cards';
import { readSeenKinds } from './kinds';
import { readNetwork, standingOf, type Network } from './network';
import { requireSeen } from './page';

/** More is not drawn. */
const MOST_DRAWN = 2_000;
/** With more things of which none is sure, the exact chance may take seconds: it is not asked for while others wait. */
const MOST_UNCERTAIN = 16;

/** The part of the network that a thing hangs on, itself included. */
function below({ needs, index, ...rest }: Network, id: string) {
  const things = [...reach({ needs, index }, [id], { way: 'below' }).keys()];
  const places = things.flatMap((thing) => index.ofThing.get(thing) ?? []);
  return { ...rest, ids: things, needs: places.map((place) => needs[place]!) };
}

/** Which part of the time a thing works, given what it stands on. */
async function readAvailability(
  { db }: Listo,
  network: Network,
  id: string,
): Promise<Pick<Hangs, 'availability' | 'isTooEntangled'>> {
  const { ids, needs } = below(network, id);
  const rows = await db.select<{ id: string; dependable: number }>(
    'SELECT id, dependable FROM things WHERE id IN (:ids) AND dependable IS NOT NULL',
    { ids },
  );
  const own = Object.fromEntries(rows.map((row) => [row.id, row.dependable]));
  if (rows.length === 0) return { availability: null, isTooEntangled: false };
  if (rows.filter(({ dependable }) => dependable > 0 && dependable < 1).length > MOST_UNCERTAIN)
    return { availability: null, isTooEntangled: true };
  try {
    return { availability: availability(ids, needs, id, own), isTooEntangled: false };
  } catch (error) {
    if (!(error instanceof TooEntangled)) throw error;
    return { availability: null, isTooEntangled: true };
  }
}

/** How many people feel it when things are down: who has one, and those of the sites of watched ones (of all, without a site). */
export async function countPeople({ db }: Listo, ids: string[]): Promise<number> {
  const [row] = await db.select<{ count: number }>(
    `SELECT COUNT(*) AS count FROM people p WHERE p.leftAt IS NULL AND (
       EXISTS (SELECT 1 FROM things a WHERE a.id IN (:ids) AND a.isWatched AND a.siteId IS NULL)
       OR p.siteId IN (SELECT a.siteId FROM things a WHERE a.id IN (:ids) AND a.isWatched)
       OR p.id IN (SELECT a.holderId FROM things a WHERE a.id IN (:ids)))`,
    { ids },
  );
  return row!.count;
}

/** What hangs on a thing, what it hangs on, and what would fall with it. */
export async function readHangs({ listo, viewer }: Viewing, id: string): Promise<Hangs> {
  const { row } = await requireSeen({ listo, viewer }, id);
  const network = await readNetwork(listo);
  const { needs, index, base, isFailed } = network;
  const kinds = await readSeenKinds({ listo, viewer });
  const isSeen = (each: string): boolean => kinds.has(network.things.get(each)!.kindId);
  const refs = (ids: string[]) => readRefs({ listo, viewer }, network, ids);
  const fallen = fallsWith({ needs, index }, id, { base, isFailed });
  const [down, weakened] = [fallen.down.filter(isSeen), fallen.weakened.filter(isSeen)];
  const needers = [...new Set((index.ofMember.get(id) ?? []).map((place) => needs[place]!.thing))].filter(
    isSeen,
  );
  const watched = await listo.db.select<{ id: string }>(
    'SELECT id FROM things WHERE isWatched AND id IN (:down)',
    { down: down.length > 0 ? down : [''] },
  );
  const { ids, needs: itsNeeds } = below(network, id);
  const own = (index.ofThing.get(id) ?? []).map((place) => needs[place]!);
  return {
    standing: standingOf(network, id),
    needs: await Promise.all(
      own.map(async ({ atLeast, of }) => ({
        ...{ atLeast, of: await refs(of) },
        isMet: of.filter((each) => base.get(each) !== 'down').length >= atLeast,
      })),
    ),
    neededBy: await refs(needers.slice(0, MOST_NAMED)),
    neededByCount: needers.length,
    falls: {
      ...{ down: await refs(down.slice(0, MOST_NAMED)), downCount: down.length },
      ...{ weakened: await refs(weakened.slice(0, MOST_NAMED)), weakenedCount: weakened.length },
      watched: await refs(watched.slice(0, MOST_NAMED).map((each) => each.id)),
      people: await countPeople(listo, [id, ...down]),
    },
    alone: row.isWatched ? await refs(loneFailures(ids, itsNeeds, id).slice(0, MOST_NAMED)) : [],
    ...(row.isWatched
      ? await readAvailability(listo, network, id)
      : { availability: null, isTooEntangled: false }),
  };
}

/** The map around a thing: what someone sees of it, the nearest first. */
export async function readMap(
  { listo, viewer }: Viewing,
  id: string,
  { way, depth }: QueryOf<typeof api.estate.map>,
): Promise<ThingMap> {
  await requireSeen({ listo, viewer }, id);
  const network = await readNetwork(listo);
  const found = new Set<string>();
  for (const each of way === 'both' ? (['below', 'above'] as const) : [way])
    for (const other of reach(network, [id], { way: each, depth, most: MOST_DRAWN }).keys()) found.add(other);
  const refs = await readRefs({ listo, viewer }, network, [...found].slice(0, MOST_DRAWN));
  const drawn = new Set(refs.map((ref) => ref.id));
  const [facts, open] = await Promise.all([
    listo.db.select<{ id: string; isWatched: number; place: string }>(
      `SELECT a.id, a.isWatched, COALESCE(NULLIF(a.vessel, ''), s.name, '') AS place FROM things a LEFT JOIN sites s ON s.id = a.siteId
       WHERE a.id IN (:drawn)`,
      { drawn: [...drawn] },
    ),
    countOpen(listo, viewer, [...drawn]),
  ]);
  const byId = new Map(facts.map((fact) => [fact.id, fact]));
  const places = new Set([...drawn].flatMap((each) => network.index.ofThing.get(each) ?? []));
  const next = [...drawn].flatMap((each) => [
    ...(network.index.ofThing.get(each) ?? []).flatMap((place) => network.needs[place]!.of),
    ...(network.index.ofMember.get(each) ?? []).map((place) => network.needs[place]!.thing),
  ]);
  const kinds = await readSeenKinds({ listo, viewer });
  return {
    things: refs.map((ref) => ({
      ...ref,
      place: byId.get(ref.id)?.place ?? '',
      isWatched: Boolean(byId.get(ref.id)?.isWatched),
      openTickets: open.get(ref.id) ?? 0,
    })),
    needs: [...places].map((place) => {
      const { thing, atLeast, of } = network.needs[place]!;
      return { thing, atLeast, of: of.filter((each) => drawn.has(each)) };
    }),
    isCut: next.some((other) => !drawn.has(other) && kinds.has(network.things.get(other)!.kindId)),
  };
}
