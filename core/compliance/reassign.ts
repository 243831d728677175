import type { HistoryEvent } from '../targets';

/** Work that another team would have had: that of a service, or all of it. */
export type Reassignment = { serviceId: string | null; fromTeamId: string; toTeamId: string };

/** Which team would have stood where, for work of a service. One that names the service goes before one for all. */
export function movesFor(reassignments: readonly Reassignment[], serviceId: string): Map<string, string> {
  const moves = new Map<string, string>();
  const apply = (wanted: string | null): void => {
    for (const each of reassignments)
      if (each.serviceId === wanted) moves.set(each.fromTeamId, each.toTeamId);
  };
  apply(null);
  apply(serviceId);
  return moves;
}

/** A history as it would read, had other teams had the work. Groups are a team's own, so that they fall away with it. */
export function reassign(
  history: readonly HistoryEvent[],
  moves: ReadonlyMap<string, string>,
): HistoryEvent[] {
  return history.map((event) => {
    const to = moves.get(String(event.set.teamId));
    if (to === undefined) return event;
    return { ...event, set: { ...event.set, teamId: to, groupId: null } };
  });
}
