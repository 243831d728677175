import { isInAudience, type Audience, type AudiencePerson } from '../../core/catalogue';
import type { TeamRole } from '../../core/rights';
import type { Listo } from '../listo';

type Row = Pick<AudiencePerson, 'site' | 'department' | 'title' | 'vessel'> & {
  teams: string | { teamId: string; role: TeamRole }[] | null;
};

const SQL = `SELECT p.siteId AS site, p.department, p.title, p.vessel,
    (SELECT JSON_ARRAYAGG(JSON_OBJECT('teamId', m.teamId, 'role', m.role)) FROM team_members m WHERE m.personId = p.id) AS teams
  FROM people p WHERE p.leftAt IS NULL`;

function toPerson({ teams, ...row }: Row): AudiencePerson {
  const members =
    typeof teams === 'string' ? (JSON.parse(teams) as { teamId: string; role: TeamRole }[]) : (teams ?? []);
  return {
    ...row,
    teams: members.map(({ teamId }) => teamId),
    leads: members.filter(({ role }) => role === 'lead').map(({ teamId }) => teamId),
  };
}

/** What an audience may ask of someone who works here, or null. */
export async function readAudiencePerson({ db }: Listo, personId: string): Promise<AudiencePerson | null> {
  const [row] = await db.select<Row>(`${SQL} AND p.id = :personId`, { personId });
  return row ? toPerson(row) : null;
}

/** How many people an audience is today. */
export async function countAudience({ db }: Listo, audience: Audience): Promise<number> {
  const rows = await db.select<Row>(SQL);
  return rows.filter((row) => isInAudience(audience, toPerson(row))).length;
}

const MOST_WORDS = 300;

/** The departments and jobs that there are, the most common first where there are very many. */
export async function readAudienceWords({ db }: Listo): Promise<{ departments: string[]; titles: string[] }> {
  const read = async (column: 'department' | 'title'): Promise<string[]> => {
    const rows = await db.select<{ word: string }>(
      `SELECT ${column} AS word FROM people WHERE leftAt IS NULL AND ${column} <> '' GROUP BY ${column} ORDER BY COUNT(*) DESC LIMIT :limit`,
      { limit: MOST_WORDS },
    );
    return rows.map(({ word }) => word).sort((a, b) => a.localeCompare(b));
  };
  return { departments: await read('department'), titles: await read('title') };
}
