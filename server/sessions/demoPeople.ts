import type { AnswerOf } from '../../contract/endpoint';
import type { api } from '../../contract';
import type { LocalText } from '../../core/forms';
import type { Listo } from '../listo';

type DemoPerson = AnswerOf<typeof api.session.demoPeople>[number];
type Row = {
  id: string;
  name: string;
  title: string;
  site: string;
  isAdministrator: number;
  mayAskForOthers: number;
  reports: number;
};

/** The people that the demo offers, as its data names them, and what each may do. */
export async function listDemoPeople(listo: Listo): Promise<DemoPerson[]> {
  const { db } = listo;
  const demo = (await db.tables.settings.findOne({ name: 'demo' }))?.value as
    { people: string[] } | undefined;
  if (!demo) return [];
  const rows = await db.select<Row>(
    `SELECT p.id, p.name, p.title, s.name AS site, p.isAdministrator, p.mayAskForOthers,
       (SELECT COUNT(*) FROM people r WHERE r.managerId = p.id) AS reports
     FROM people p JOIN sites s ON s.id = p.siteId WHERE p.id IN (:ids)`,
    { ids: demo.people },
  );
  const memberships = await db.select<{ personId: string; role: string; name: LocalText }>(
    'SELECT m.personId, m.role, t.name FROM team_members m JOIN teams t ON t.id = m.teamId WHERE m.personId IN (:ids)',
    { ids: demo.people },
  );
  return demo.people.flatMap((id) => {
    const row = rows.find((candidate) => candidate.id === id);
    if (!row) return [];
    const teams = memberships.filter(({ personId }) => personId === id);
    const mayDo = [
      'ask',
      ...(row.reports > 0 ? ['approve'] : []),
      ...(row.mayAskForOthers ? ['askForOthers'] : []),
      ...new Set(teams.map(({ role }) => role)),
      ...(row.isAdministrator ? ['administrator'] : []),
    ];
    const group = teams.length > 0 ? 'desk' : row.reports > 0 ? 'approve' : 'ask';
    return [
      {
        id,
        name: row.name,
        title: row.title,
        site: row.site,
        group,
        teams: teams.map(({ name }) => name.en),
        mayDo,
      } as const,
    ];
  });
}
