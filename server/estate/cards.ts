import type { ThingCard, ThingRef } from '../../contract/estate';
import type { LocalText } from '../../core/forms';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';
import type { SignedIn } from '../sessions/viewer';
import { visibleTo } from '../tickets/visibility';
import type { Viewing } from '../unitOfWork';
import { readSeenKinds } from './kinds';
import type { ThingRow } from './model';
import { standingOf, type Network } from './network';

/** How many open tickets there are about things, of those that someone may read. */
export async function countOpen(
  { db }: Listo,
  viewer: SignedIn,
  ids: string[],
): Promise<Map<string, number>> {
  if (ids.length === 0) return new Map();
  const visible = visibleTo(viewer);
  const rows = await db.select<{ thingId: string; count: number }>(
    `SELECT x.thingId, COUNT(*) AS count FROM ticket_things x JOIN tickets t ON t.number = x.ticketNumber
     WHERE x.thingId IN (:ids) AND t.state IN ('received', 'inWork', 'held') AND ${visible.sql} GROUP BY x.thingId`,
    { ...visible.values, ids },
  );
  return new Map(rows.map(({ thingId, count }) => [thingId, count]));
}

const CARD_FIELDS = [
  ...(['id', 'name', 'tag', 'serial', 'model', 'kindId', 'state', 'place', 'vessel'] as const),
  ...(['warrantyUntil', 'lentUntil', 'isWatched', 'claim'] as const),
];
type Plain = Pick<ThingRow, (typeof CARD_FIELDS)[number]>;

/** Things as lists show them. */
export async function toCards(
  { listo, viewer }: Viewing,
  rows: ThingRow[],
  kindName: (kindId: string) => LocalText,
): Promise<ThingCard[]> {
  const [people, open, sites] = await Promise.all([
    readPeople(
      listo,
      rows.map(({ holderId }) => holderId),
    ),
    countOpen(
      listo,
      viewer,
      rows.map(({ id }) => id),
    ),
    listo.db.tables.sites.find({ id: [...new Set(rows.flatMap(({ siteId }) => siteId ?? []))] }),
  ]);
  return rows.map((row) => {
    const site = sites.find(({ id }) => id === row.siteId);
    const plain = Object.fromEntries(CARD_FIELDS.map((field) => [field, row[field]])) as Plain;
    return {
      ...plain,
      kind: kindName(row.kindId),
      holder: row.holderId === null ? null : (people.get(row.holderId) ?? null),
      site: site ? { id: site.id, name: site.name } : null,
      openTickets: open.get(row.id) ?? 0,
    };
  });
}

/** So many things are named at once. */
export const MOST_NAMED = 50;

/** Things by their names, in the order of the ids: those that someone sees. */
export async function readRefs(
  { listo, viewer }: Viewing,
  network: Network,
  ids: readonly string[],
): Promise<ThingRef[]> {
  const kinds = await readSeenKinds({ listo, viewer });
  const seen = ids.filter((id) => kinds.has(network.things.get(id)?.kindId ?? ''));
  if (seen.length === 0) return [];
  const rows = await listo.db.select<{ id: string; name: string }>(
    'SELECT id, name FROM things WHERE id IN (:seen)',
    { seen },
  );
  const names = new Map(rows.map(({ id, name }) => [id, name]));
  return seen.flatMap((id) => {
    const { kindId, state } = network.things.get(id)!;
    const name = names.get(id);
    const kind = kinds.get(kindId)!.name;
    return name === undefined ? [] : [{ id, name, kind, state, standing: standingOf(network, id) }];
  });
}
