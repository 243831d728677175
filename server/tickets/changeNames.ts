import type { Changes } from '../../core/journal';
import type { LocalText } from '../../core/forms';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';

type Name = string | LocalText;
/** What becomes of changes, so that they can be said: ids are replaced by names. */
export type NameChanges = (kind: string, changes: Changes) => Changes;

/** Fields that hold ids, by what they are ids of. */
const IDS: Record<string, 'person' | 'team' | 'group' | 'service' | 'progress'> = {
  assigneeId: 'person',
  requesterId: 'person',
  teamId: 'team',
  groupId: 'group',
  serviceId: 'service',
  progressId: 'progress',
};
/** The kinds of entries that say what changed, field by field. */
const SAYS_CHANGES = new Set(['changed', 'undone']);

/** Names for the ids in the changes of some entries; an id that there is no more stays as it is. */
export async function readChangeNames({ db }: Listo, entries: JournalRow[]): Promise<NameChanges> {
  const { tables } = db;
  const ids = new Map<string, Set<string>>();
  for (const { type, changes } of entries)
    if (SAYS_CHANGES.has(type))
      for (const [field, { from, to }] of Object.entries(changes)) {
        const kind = IDS[field];
        if (kind === undefined) continue;
        const known = ids.get(kind) ?? new Set();
        ids.set(kind, known);
        for (const id of [from, to]) if (typeof id === 'string') known.add(id);
      }
  const idsOf = (kind: string) => ({ id: [...(ids.get(kind) ?? [])] });
  const has = (kind: string): boolean => (ids.get(kind)?.size ?? 0) > 0;
  const [people, teams, groups, services, labelled] = await Promise.all([
    has('person') ? tables.people.find(idsOf('person')) : [],
    has('team') ? tables.teams.find(idsOf('team')) : [],
    has('group') ? tables.groups.find(idsOf('group')) : [],
    has('service') ? tables.services.find(idsOf('service'), { attributes: ['id', 'title'] }) : [],
    has('progress') ? tables.teams.find({}, { attributes: ['progressLabels'] }) : [],
  ]);
  const names = new Map<string, Name>([
    ...people.map(({ id, name }) => [`person ${id}`, name] as const),
    ...teams.map(({ id, name }) => [`team ${id}`, name] as const),
    ...groups.map(({ id, name }) => [`group ${id}`, name] as const),
    ...services.map(({ id, title }) => [`service ${id}`, title] as const),
    ...labelled
      .flatMap(({ progressLabels }) => progressLabels)
      .map(({ id, name }) => [`progress ${id}`, name] as const),
  ]);
  return (kind, changes) => {
    if (!SAYS_CHANGES.has(kind)) return changes;
    const nameOf = (field: string, value: unknown): unknown =>
      IDS[field] !== undefined && typeof value === 'string'
        ? (names.get(`${IDS[field]} ${value}`) ?? value)
        : value;
    return Object.fromEntries(
      Object.entries(changes).map(([field, { from, to }]) => [
        field,
        { from: nameOf(field, from), to: nameOf(field, to) },
      ]),
    );
  };
}
