import type { TeamFigures } from '../../contract/figures';
import { dayEdges, listBehind, TEAM_NUMBER_NAMES, type TeamNumber } from '../../core/figures';
import { readsDesk } from '../../core/rights';
import { standingSql } from '../../core/targets';
import { GIVEN_LISTS } from '../../core/worklist';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { listRanked } from '../plans/ranking';
import type { SignedIn } from '../sessions/viewer';
import { listSeenTeams } from '../teams/seen';
import { readZone } from '../worklists/reader';
import { countValues } from '../worklists/shares';

const DAYS = 14;
const WEEK = 7;

/** Sums come from the database as decimals, in letters. */
type Sums<Name extends keyof TeamFigures> = Record<Name, number | string | null> & { teamId: string };
type OfWeek = Sums<'promised' | 'inTime' | 'ratings' | 'rating'>;
type OfDay = { teamId: string; day: number | string; count: number | string };

/** Days as a table, numbered from 0. */
const EDGES = `JSON_TABLE(:edges, '$[*]' COLUMNS (day FOR ORDINALITY, start BIGINT PATH '$[0]', end BIGINT PATH '$[1]')) e`;

type Numbers = Record<TeamNumber, number>;

/** The numbers of teams, each counted by the very list that it opens. */
async function countNumbers(
  listo: Listo,
  viewer: SignedIn,
  teamIds: string[],
): Promise<(teamId: string) => Numbers> {
  const counted = await Promise.all(
    TEAM_NUMBER_NAMES.map(async (name) => {
      const { list, where } = listBehind(name, teamIds);
      const { counts } = await countValues({ listo, viewer }, GIVEN_LISTS[list], { where, by: ['teamId'] });
      return [name, counts[0]!] as const;
    }),
  );
  return (teamId) =>
    Object.fromEntries(counted.map(([name, counts]) => [name, counts.get(teamId) ?? 0])) as Numbers;
}

/** How the viewer's teams stand, in the viewer's day. */
export async function readToday(listo: Listo, viewer: SignedIn): Promise<TeamFigures[]> {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  const teamIds = await listSeenTeams(listo, viewer);
  if (teamIds.length === 0) return [];
  const { db, clock } = listo;
  const now = clock.now();
  const edges = dayEdges(now, await readZone(listo, viewer), DAYS);
  const kept = standingSql('c', now);
  const values = {
    ...kept.values,
    ...{ teamIds, since: edges[0]!, weekSince: edges[DAYS - WEEK]! },
    edges: JSON.stringify(edges.slice(0, -1).map((edge, i) => [edge, edges[i + 1]])),
  };
  // What was resolved lately is still done, or was closed later than it was resolved: both are short stretches of an index.
  const resolvedSince = (since: string): string =>
    `t.teamId IN (:teamIds) AND t.resolvedAt >= :${since} AND (t.state = 'done' OR (t.state = 'closed' AND t.closedAt >= :${since}))`;
  const [teams, ranked, standing, ofWeek, arrived, resolved] = await Promise.all([
    db.tables.teams.find({ id: teamIds }, { order: ['id'] }),
    listRanked(listo, teamIds),
    countNumbers(listo, viewer, teamIds),
    db.select<OfWeek>(
      `SELECT teamId, SUM(isPromised) AS promised, SUM(isPromised AND NOT isMissed) AS inTime, COUNT(rating) AS ratings, AVG(rating) AS rating
       FROM (SELECT t.teamId, t.rating, COALESCE(MAX(${kept.sql} IN ('met', 'missed')), 0) AS isPromised, COALESCE(MAX(${kept.sql} = 'missed'), 0) AS isMissed
         FROM tickets t LEFT JOIN (clocks c JOIN targets g ON g.id = c.targetId AND g.measures = 'resolution')
           ON c.ticketNumber = t.number AND c.work = 'ticket'
         WHERE ${resolvedSince('weekSince')} GROUP BY t.number) resolved GROUP BY teamId`,
      values,
    ),
    db.select<OfDay>(
      `SELECT t.teamId, e.day - 1 AS day, COUNT(*) AS count FROM ${EDGES}
       JOIN tickets t ON t.createdAt >= e.start AND t.createdAt < e.end AND t.teamId IN (:teamIds) GROUP BY t.teamId, e.day`,
      values,
    ),
    db.select<OfDay>(
      `SELECT r.teamId, e.day - 1 AS day, COUNT(*) AS count
       FROM (SELECT t.teamId, t.resolvedAt FROM tickets t WHERE ${resolvedSince('since')}) r
       JOIN ${EDGES} ON r.resolvedAt >= e.start AND r.resolvedAt < e.end GROUP BY r.teamId, e.day`,
      values,
    ),
  ]);
  const countOf = (rows: OfDay[], teamId: string, day: number): number =>
    Number(rows.find((row) => row.teamId === teamId && Number(row.day) === day)?.count ?? 0);
  return teams.map(({ id, name }) => {
    const week = ofWeek.find(({ teamId }) => teamId === id);
    return {
      ...{ id, name },
      ...standing(id),
      ranked: ranked.filter(({ teamId }) => teamId === id).length,
      promised: Number(week?.promised ?? 0),
      inTime: Number(week?.inTime ?? 0),
      ratings: Number(week?.ratings ?? 0),
      rating: week?.rating === null || week?.rating === undefined ? null : Number(week.rating),
      days: edges.slice(0, -1).map((at, day) => ({
        at,
        arrived: countOf(arrived, id, day),
        resolved: countOf(resolved, id, day),
      })),
    };
  });
}
