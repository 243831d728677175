import { mayLead } from '../../core/rights';
import type { ChatOverview } from '../../contract/conversations';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import type { ChatLineRow } from './model';
import { readCandidates, readLineNow, waitBehind } from './waits';

const DAY_MS = 86_400_000;

type Day = {
  taken: number;
  abandoned: number;
  meanWait: number | null;
  meanHandling: number | null;
  rating: number | null;
};

/** What the lines did today, by line. Times in minutes. */
async function readToday(listo: Listo, lineId: string, since: number): Promise<Day> {
  const [row] = await listo.db.select<Record<keyof Day, number | string | null>>(
    `SELECT COUNT(firstTakenAt) AS taken, COALESCE(SUM(endedBy = 'left'), 0) AS abandoned, AVG(firstTakenAt - startedAt) / 60000 AS meanWait,
       AVG(IF(firstTakenAt IS NULL, NULL, endedAt - firstTakenAt)) / 60000 AS meanHandling, AVG(rating) AS rating
     FROM conversations WHERE lineId = :lineId AND startedAt >= :since`,
    { lineId, since },
  );
  const numberOf = (value: number | string | null): number | null => (value === null ? null : Number(value));
  return {
    taken: Number(row!.taken),
    abandoned: Number(row!.abandoned),
    meanWait: numberOf(row!.meanWait),
    meanHandling: numberOf(row!.meanHandling),
    rating: numberOf(row!.rating),
  };
}

async function readAgents(
  listo: Listo,
  lines: ChatLineRow[],
  since: number,
): Promise<ChatOverview['agents']> {
  const agents = new Map<string, ChatOverview['agents'][number]>();
  for (const line of lines)
    for (const { id, name, presence, isHere, load, capacity } of await readCandidates(listo, line))
      agents.set(id, {
        id,
        name,
        presence,
        isHere,
        load,
        capacity: capacity ?? 0,
        taken: 0,
        meanHandling: null,
      });
  const done = await listo.db.select<{ agentId: string; taken: number; mean: string | null }>(
    `SELECT agentId, COUNT(*) AS taken, AVG(endedAt - firstTakenAt) / 60000 AS mean FROM conversations
     WHERE startedAt >= :since AND agentId IN (:ids) GROUP BY agentId`,
    { since, ids: [...agents.keys(), ''] },
  );
  for (const { agentId, taken, mean } of done)
    Object.assign(agents.get(agentId)!, { taken, meanHandling: mean === null ? null : Number(mean) });
  return [...agents.values()].sort((a, b) => b.load - a.load || a.name.localeCompare(b.name));
}

/** Lines, waits, those who left, handling times, agents and their load: for those who lead a line's team. */
export async function readOverview(listo: Listo, viewer: SignedIn): Promise<ChatOverview> {
  const all = await listo.db.tables.chatLines.find({}, { order: ['position'] });
  const lines = all.filter(({ teamId }) => mayLead(viewer, teamId));
  if (lines.length === 0) throw new ProblemError('forbidden');
  const since = listo.clock.now() - DAY_MS;
  const shown = [];
  for (const line of lines) {
    const now = await readLineNow(listo, line);
    const [first] = await listo.db.select<{ longest: number | null }>(
      "SELECT MIN(lineAt) AS longest FROM conversations WHERE lineId = :id AND state IN ('waiting', 'offered')",
      { id: line.id },
    );
    shown.push({
      ...{ id: line.id, name: line.name, waiting: now.waiting, longest: first?.longest ?? null },
      ...{ wait: waitBehind(now, now.waiting), agents: now.agents },
      today: await readToday(listo, line.id, since),
    });
  }
  return { lines: shown, agents: await readAgents(listo, lines, since) };
}
