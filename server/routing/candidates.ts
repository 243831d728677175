import type { Candidate, RoutingSettings } from '../../core/routing';
import type { Viewer } from '../../core/rights';
import type { Listo } from '../listo';
import type { TeamRow } from '../people/model';
import { visibleTo } from '../tickets/visibility';
import type { Reading } from '../unitOfWork';

export type Member = Candidate & { name: string; groupId: string | null };

type Row = {
  id: string;
  name: string;
  groupId: string | null;
  capacity: number | null;
  lastGivenAt: number | null;
  presence: string;
  isAway: number;
  load: number;
};

/** Everyone of a team as they could be given work now. Load counts all their open work, in units of this team. */
export async function readMembers(
  { listo, tx }: Reading,
  team: Pick<TeamRow, 'id' | 'calendarId'>,
  { units }: Pick<RoutingSettings, 'units'>,
): Promise<Member[]> {
  const now = listo.clock.now();
  const rows = await listo.db.select<Row>(
    `SELECT p.id, p.name, m.groupId, m.capacity, m.lastGivenAt, p.presence,
       EXISTS (SELECT 1 FROM absences b WHERE b.personId = p.id AND b.fromAt <= :now AND b.toAt > :now) AS isAway,
       (SELECT CAST(COALESCE(SUM(IF(t.kind = 'incident', :incident, :request)), 0) AS SIGNED) FROM tickets t WHERE t.assigneeId = p.id AND t.state IN ('received', 'inWork')) AS \`load\`
     FROM team_members m JOIN people p ON p.id = m.personId AND p.leftAt IS NULL WHERE m.teamId = :teamId ORDER BY p.id`,
    { teamId: team.id, now, ...units },
    tx,
  );
  const ids = rows.map(({ id }) => id);
  const skills = await listo.db.tables.skills.find({ personId: ids }, tx ? { transaction: tx } : {});
  const calendar = (await listo.calendars.getAll())[team.calendarId];
  return rows.map(({ presence, isAway, load, ...row }) => ({
    ...row,
    load,
    isAway: Boolean(isAway),
    isAvailable: presence === 'available',
    isOnShift: calendar?.isWorking(now) ?? true,
    skills: Object.fromEntries(
      skills.filter(({ personId }) => personId === row.id).map(({ skill, level }) => [skill, level]),
    ),
  }));
}

/** What people carry of what someone may read: a number tells of the work that it counts. */
export async function readShownLoads(
  { db }: Listo,
  viewer: Viewer,
  { ids, settings: { units } }: { ids: string[]; settings: Pick<RoutingSettings, 'units'> },
): Promise<Map<string, number>> {
  const visible = visibleTo(viewer);
  const rows = await db.select<{ id: string; load: number | string }>(
    `SELECT t.assigneeId AS id, SUM(IF(t.kind = 'incident', :incident, :request)) AS \`load\` FROM tickets t
     WHERE t.assigneeId IN (:ids) AND t.state IN ('received', 'inWork') AND ${visible.sql} GROUP BY t.assigneeId`,
    { ...visible.values, ...units, ids },
  );
  return new Map(rows.map(({ id, load }) => [id, Number(load)]));
}
