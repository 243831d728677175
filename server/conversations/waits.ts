import { expectWait, type Candidate, type ExpectedWait } from '../../core/routing';
import type { Listo } from '../listo';
import type { ChatLineRow } from './model';
import { getOwn } from '../../core/records';

/** An agent whose Desk was not seen open for so long is not there. */
export const GONE_AFTER_MS = 45_000;
/** What one takes where none has been yet, in minutes. */
const USUAL_HANDLING = 8;
const LATELY_MS = 14 * 86_400_000;
const LEAST_KNOWN = 5;

export type ChatCandidate = Candidate & { name: string; presence: string; isHere: boolean };

/** The agents of a line's team as they could be given a conversation now. */
export async function readCandidates(
  listo: Listo,
  { teamId }: Pick<ChatLineRow, 'teamId'>,
): Promise<ChatCandidate[]> {
  const now = listo.clock.now();
  const rows = await listo.db.select<{
    id: string;
    name: string;
    presence: string | null;
    capacity: number | null;
    seenAt: number | null;
    lastGivenAt: number | null;
    load: number;
  }>(
    `SELECT p.id, p.name, a.presence, a.capacity, a.seenAt, a.lastGivenAt,
       (SELECT COUNT(*) FROM conversations c WHERE c.agentId = p.id AND c.state = 'open')
         + (SELECT COUNT(*) FROM conversations c WHERE c.offeredTo = p.id AND c.state = 'offered') AS \`load\`
     FROM team_members m JOIN people p ON p.id = m.personId AND p.leftAt IS NULL LEFT JOIN chat_agents a ON a.personId = p.id
     WHERE m.teamId = :teamId ORDER BY p.id`,
    { teamId },
  );
  const ids = rows.map(({ id }) => id);
  const skills = ids.length > 0 ? await listo.db.tables.skills.find({ personId: ids }) : [];
  return rows.map(({ id, name, presence, capacity, seenAt, lastGivenAt, load }) => {
    const isHere = seenAt !== null && now - seenAt < GONE_AFTER_MS;
    return {
      ...{ id, name, load, lastGivenAt, isHere, presence: presence ?? 'away', capacity: capacity ?? 0 },
      isAvailable: presence === 'available',
      // Their being there says more than a calendar.
      isOnShift: isHere,
      isAway: presence === 'away' || presence === null,
      skills: Object.fromEntries(
        skills.filter(({ personId }) => personId === id).map(({ skill, level }) => [skill, level]),
      ),
    };
  });
}

/** How long conversations of a line took of late, in minutes. */
async function readHandling(listo: Listo, lineId: string): Promise<number> {
  const [row] = await listo.db.select<{ count: number; mean: number | null }>(
    `SELECT COUNT(*) AS count, AVG(endedAt - firstTakenAt) AS mean FROM conversations
     WHERE lineId = :lineId AND endedAt IS NOT NULL AND firstTakenAt IS NOT NULL AND startedAt > :since`,
    { lineId, since: listo.clock.now() - LATELY_MS },
  );
  return row && row.count >= LEAST_KNOWN && row.mean !== null
    ? Math.max(0.5, row.mean / 60_000)
    : USUAL_HANDLING;
}

export type LineNow = { waiting: number; places: number; free: number; handling: number; agents: number };

/** A line as it stands: who waits, and how many places there are for them. */
export async function readLineNow(listo: Listo, line: ChatLineRow): Promise<LineNow> {
  const candidates = await readCandidates(listo, line);
  const able = candidates.filter(
    ({ isAvailable, isHere, skills }) =>
      isAvailable && isHere && (line.skill === null || (getOwn(skills, line.skill) ?? 0) > 0),
  );
  const [row] = await listo.db.select<{ waiting: number }>(
    "SELECT COUNT(*) AS waiting FROM conversations WHERE lineId = :lineId AND state = 'waiting'",
    { lineId: line.id },
  );
  const placesOf = ({ capacity }: ChatCandidate): number => capacity ?? 0;
  return {
    waiting: row!.waiting,
    places: able.reduce((sum, each) => sum + placesOf(each), 0),
    free: able.reduce((sum, each) => sum + Math.max(0, placesOf(each) - each.load), 0),
    handling: await readHandling(listo, line.id),
    agents: able.length,
  };
}

/** What someone is told who stands behind so many. */
export function waitBehind({ places, free, handling }: LineNow, ahead: number): ExpectedWait {
  return expectWait({ ahead, places, free, handling });
}

/** Whether the line's team is at work, and when it is again. */
export async function readHours(
  listo: Listo,
  line: ChatLineRow,
): Promise<{ isOpen: boolean; opensAt: number | null }> {
  const team = await listo.db.tables.teams.findOne({ id: line.teamId });
  const calendar = team && (await listo.calendars.getAll())[team.calendarId];
  const now = listo.clock.now();
  if (!calendar || calendar.isWorking(now)) return { isOpen: true, opensAt: null };
  return { isOpen: false, opensAt: calendar.nextWorking(now) };
}
