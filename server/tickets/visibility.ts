import { readsDesk, type Viewer } from '../../core/rights';

/**
 * The SQL reading of the right to read a ticket `t`, for lists. Says the same as core/rights row for row; the
 * tests hold the two against each other.
 */
export function visibleTo(viewer: Viewer): { sql: string; values: Record<string, unknown> } {
  const teamIds = viewer.teams.map(({ teamId }) => teamId);
  // What is cheap to ask comes first.
  const closed = viewer.closedTeamIds ?? [];
  const open =
    closed.length > 0
      ? '(t.isConfidential = 0 AND t.teamId NOT IN (:closedTeamIds))'
      : 't.isConfidential = 0';
  const parts = [
    ...(readsDesk(viewer) ? [open] : []),
    ...(teamIds.length > 0 ? ['t.teamId IN (:teamIds)'] : []),
    't.requesterId = :viewerId',
    'EXISTS (SELECT 1 FROM followers f WHERE f.ticketNumber = t.number AND f.personId = :viewerId)',
    'EXISTS (SELECT 1 FROM asks ra WHERE ra.ticketNumber = t.number AND (ra.askedId = :viewerId OR ra.voterId = :viewerId))',
    ...(teamIds.length > 0
      ? [
          "EXISTS (SELECT 1 FROM plan_steps st WHERE st.ticketNumber = t.number AND st.teamId IN (:teamIds) AND st.state IN ('active', 'done', 'failed'))",
        ]
      : []),
  ];
  return {
    sql: `(${parts.join(' OR ')})`,
    values: {
      viewerId: viewer.id,
      ...(teamIds.length > 0 && { teamIds }),
      ...(closed.length > 0 && { closedTeamIds: [...closed] }),
    },
  };
}
