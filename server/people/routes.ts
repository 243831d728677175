import { escapeLike } from '../database/like';
import { api } from '../../contract';
import type { Team } from '../../contract/people';
import { maySetUp, mayLead } from '../../core/rights';
import { DEFAULT_WEIGHTS } from '../../core/worklist';
import { serve, type Routes } from '../http/serve';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';

const FOUND = 12;
/** A telephone number is found by its end, nearly whole: by single digits it could be tried out. */
const FEWEST_DIGITS = 6;
type Card = { id: string; name: string; goesFirst: boolean | number; title: string; site: string };

/** All teams with their groups and members, and what someone may do with each. */
async function listTeams(listo: Listo, viewer: SignedIn): Promise<Team[]> {
  const { tables, select } = listo.db;
  const teams = await tables.teams.find({}, { order: ['id'] });
  const groups = await tables.groups.find({}, { order: ['name'] });
  const members = await select<{
    teamId: string;
    id: string;
    name: string;
    role: string;
    groupId: string | null;
  }>(
    `SELECT m.teamId, p.id, p.name, m.role, m.groupId FROM team_members m
     JOIN people p ON p.id = m.personId AND p.leftAt IS NULL ORDER BY p.name`,
  );
  return teams.map(
    ({
      id,
      name,
      isConfidential,
      calendarId,
      outOfHours,
      decidesInChat,
      answersMail,
      givenOnBy,
      readBy,
      progressLabels,
      orderWeights,
      version,
    }) => ({
      outOfHours,
      decidesInChat,
      answersMail,
      givenOnBy,
      readBy: readBy ?? null,
      progressLabels,
      version,
      orderWeights: orderWeights ?? DEFAULT_WEIGHTS,
      mayEdit: maySetUp(viewer, id),
      mayLead: mayLead(viewer, id),
      id,
      name,
      isConfidential,
      calendarId,
      groups: groups
        .filter(({ teamId }) => teamId === id)
        .map(({ id: groupId, name: groupName }) => ({ id: groupId, name: groupName })),
      members: members.filter(({ teamId }) => teamId === id).map(({ teamId: _, ...member }) => member),
    }),
  );
}

export const peopleRoutes: Routes = (router, listo) => {
  const { people } = api;
  const { select } = listo.db;

  serve(router, people.search, async ({ query }) => {
    const pattern = `%${escapeLike(query.q.trim())}%`;
    const rows = await select<Card>(
      `SELECT p.id, p.name, p.goesFirst, p.title, s.name AS site FROM people p JOIN sites s ON s.id = p.siteId
       WHERE (p.name LIKE :pattern OR p.device LIKE :pattern OR p.vessel LIKE :pattern OR s.name LIKE :pattern
         OR (:digits <> '' AND REPLACE(REPLACE(p.phone, ' ', ''), '-', '') LIKE CONCAT('%', :digits)))
         AND p.leftAt IS NULL ORDER BY p.name NOT LIKE :pattern, p.name LIMIT :limit`,
      {
        pattern,
        limit: FOUND,
        digits: query.q.replace(/\D/g, '').length >= FEWEST_DIGITS ? query.q.replace(/\D/g, '') : '',
      },
    );
    return rows.map((row) => ({ ...row, goesFirst: Boolean(row.goesFirst) }));
  });

  serve(router, people.teams, ({ viewer }) => listTeams(listo, viewer));
};
