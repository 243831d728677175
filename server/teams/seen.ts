import { isAgent, type Viewer } from '../../core/rights';
import type { Listo } from '../listo';

/** The teams whose work someone looks at: an agent's own; for who reads as an administrator alone, all but the confidential. */
export async function listSeenTeams({ db }: Listo, viewer: Viewer): Promise<string[]> {
  if (isAgent(viewer)) return viewer.teams.map(({ teamId }) => teamId);
  if (!viewer.isAdministrator) return [];
  const teams = await db.tables.teams.find({ isConfidential: false }, { order: ['id'] });
  return teams.map(({ id }) => id);
}
