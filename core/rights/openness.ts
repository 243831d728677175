import type { Viewer } from './rights';

/** A team that keeps its work to some teams. */
export type KeptWork = {
  teamId: string;
  /** Teams whose agents may read it beside its own. */
  readBy: string[];
  /** Teams whose agents may take it and give it on: they read it too. null: every team, so that nothing is closed. */
  givenOnBy: string[] | null;
};

/**
 * The teams whose work is closed to someone, by those teams' own choice. Whoever sets Listo up reads all that is not in
 * confidence. Being part of a single ticket (its requester, asked in, asked to agree) opens that ticket all the same.
 */
export function listClosedTeams(
  kept: readonly KeptWork[],
  { isAdministrator, teams }: Pick<Viewer, 'isAdministrator' | 'teams'>,
): string[] {
  if (isAdministrator) return [];
  const own = new Set(teams.map(({ teamId }) => teamId));
  return kept
    .filter(
      ({ teamId, readBy, givenOnBy }) =>
        givenOnBy !== null && ![teamId, ...readBy, ...givenOnBy].some((id) => own.has(id)),
    )
    .map(({ teamId }) => teamId);
}
