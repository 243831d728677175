import { dayEdges } from '../../core/figures';
import type { ListReader } from '../../core/worklist';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';

/** The zone in which someone works. */
export async function readZone(listo: Listo, { siteId }: Pick<SignedIn, 'siteId'>): Promise<string> {
  return (await listo.db.tables.sites.findOne({ id: siteId }))?.timeZone ?? 'UTC';
}

/** For whom, and when, a list is read: their teams, and their day where they work. */
export async function createReader(listo: Listo, viewer: SignedIn): Promise<ListReader> {
  const now = listo.clock.now();
  const [dayStart, dayEnd] = dayEdges(now, await readZone(listo, viewer), 1) as [number, number];
  const memberships = await listo.db.tables.members.find({ personId: viewer.id });
  return {
    viewerId: viewer.id,
    teamIds: viewer.teams.map(({ teamId }) => teamId),
    groupIds: memberships.flatMap(({ groupId }) => groupId ?? []),
    now,
    dayStart,
    dayEnd,
  };
}
