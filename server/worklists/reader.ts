import { dayEdges } from '../../core/figures';
import type { ListReader } from '../../core/worklist';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { listSeenTeams } from '../teams/seen';

/** The zone in which someone works. */
export async function readZone(listo: Listo, { siteId }: Pick<SignedIn, 'siteId'>): Promise<string> {
  return (await listo.db.tables.sites.findOne({ id: siteId }))?.timeZone ?? 'UTC';
}

/** For whom, and when, a list is read: the teams that they look at, and their day where they work. */
export async function createReader(listo: Listo, viewer: SignedIn): Promise<ListReader> {
  const now = listo.clock.now();
  const [dayStart, dayEnd] = dayEdges(now, await readZone(listo, viewer), 1) as [number, number];
  const memberships = await listo.db.tables.members.find({ personId: viewer.id });
  return {
    viewerId: viewer.id,
    teamIds: await listSeenTeams(listo, viewer),
    groupIds: memberships.flatMap(({ groupId }) => groupId ?? []),
    now,
    dayStart,
    dayEnd,
  };
}
