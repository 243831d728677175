import { COUNT_LIMIT, type WorklistName } from '../../contract/names';
import type { TicketRow } from '../../contract/tickets';
import type { Viewer } from '../../core/rights';
import { isAgent } from '../../core/rights';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { completeRows, ROW_JOINS, ROW_SELECT, type RowRecord } from './rows';
import { visibleTo } from './visibility';

const MY_TEAMS = 't.teamId IN (:teamIds)';
const WAITING = "t.state IN ('received', 'inWork')";

/** What each given worklist selects, beside what the viewer may see. */
const CONDITIONS: Record<WorklistName, string> = {
  nextUp: `${MY_TEAMS} AND ${WAITING} AND (t.assigneeId IS NULL OR t.assigneeId = :viewerId)`,
  mine: "t.assigneeId = :viewerId AND t.state IN ('received', 'inWork', 'held')",
  unassigned: `${MY_TEAMS} AND ${WAITING} AND t.assigneeId IS NULL`,
  upcoming: `${MY_TEAMS} AND t.state = 'held' AND t.heldFor = 'approval'`,
  held: `${MY_TEAMS} AND t.state = 'held' AND t.heldFor <> 'approval'`,
  done: `${MY_TEAMS} AND t.state = 'done'`,
  everything: 'TRUE',
};

/** A place in a list: the due instant and number of its last row. */
function parsePlace(after: string | undefined): { due: number; number: number } | null {
  if (after === undefined) return null;
  const [due, number] = after.split(':').map(Number);
  if (!Number.isSafeInteger(due) || !Number.isSafeInteger(number))
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'after', code: 'malformed' }] });
  return { due: due!, number: number! };
}

type Page = { rows: TicketRow[]; next: string | null; total: { count: number; isMore: boolean } };

/** A page of a worklist, the tightest clock first, and a bounded count of all of it. */
export async function readWorklist(
  listo: Listo,
  viewer: Viewer,
  name: WorklistName,
  { after, limit }: { after?: string | undefined; limit: number },
): Promise<Page> {
  if (!isAgent(viewer)) throw new ProblemError('forbidden');
  const { select } = listo.db;
  const visible = visibleTo(viewer);
  const where = `${CONDITIONS[name]} AND ${visible.sql}`;
  const place = parsePlace(after);
  const beyond = place
    ? 'AND (t.tightestDueAt > :due OR (t.tightestDueAt = :due AND t.number > :number))'
    : '';
  const values = { ...visible.values, ...place, limit: limit + 1, most: COUNT_LIMIT + 1 };
  const records = await select<RowRecord>(
    `${ROW_SELECT} FROM tickets t ${ROW_JOINS} WHERE ${where} ${beyond} ORDER BY t.tightestDueAt, t.number LIMIT :limit`,
    values,
  );
  const [counted] = await select<{ count: number }>(
    `SELECT COUNT(*) AS count FROM (SELECT 1 FROM tickets t WHERE ${where} LIMIT :most) x`,
    values,
  );
  const shown = records.slice(0, limit);
  const last = records.length > limit ? shown.at(-1) : undefined;
  return {
    rows: await completeRows(listo, shown),
    next: last ? `${last.tightestDueAt}:${last.number}` : null,
    total: { count: Math.min(counted!.count, COUNT_LIMIT), isMore: counted!.count > COUNT_LIMIT },
  };
}

const MINE_PAGE = 50;

/** What someone asked for or follows, the newest first. */
export async function readMine(listo: Listo, viewer: Viewer, which: 'open' | 'past', before?: number) {
  const states = which === 'open' ? ['received', 'inWork', 'held', 'done'] : ['closed', 'withdrawn'];
  const records = await listo.db.select<RowRecord>(
    `${ROW_SELECT} FROM tickets t ${ROW_JOINS}
     WHERE t.number IN (
       SELECT number FROM tickets WHERE requesterId = :id AND state IN (:states)
       UNION SELECT ticketNumber FROM followers WHERE personId = :id AND role = 'alsoTold')
     AND t.state IN (:states) AND t.number < :before ORDER BY t.number DESC LIMIT :limit`,
    { id: viewer.id, states, before: before ?? Number.MAX_SAFE_INTEGER, limit: MINE_PAGE + 1 },
  );
  const shown = records.slice(0, MINE_PAGE);
  return {
    rows: await completeRows(listo, shown),
    next: records.length > MINE_PAGE ? shown.at(-1)!.number : null,
  };
}

/** Tickets and people that fit some words; a number finds its ticket. */
export async function find(listo: Listo, viewer: Viewer, q: string) {
  const { select } = listo.db;
  const words = q.trim();
  if (words === '') return { tickets: [], people: [] };
  const visible = visibleTo(viewer);
  const number = /^\d+$/.test(words) ? Number(words) : null;
  const tickets = await select<{ number: number; title: string; requester: string }>(
    `SELECT t.number, t.title, p.name AS requester FROM tickets t JOIN people p ON p.id = t.requesterId
     WHERE ${number === null ? 'MATCH (t.title) AGAINST (:query IN BOOLEAN MODE)' : 't.number = :number'} AND ${visible.sql}
     ORDER BY t.number DESC LIMIT 6`,
    {
      ...visible.values,
      number,
      query: words
        .split(/[^\p{L}\p{N}]+/u)
        .filter(Boolean)
        .map((word) => `+${word}*`)
        .join(' '),
    },
  );
  const people = isAgent(viewer)
    ? await select<{ id: string; name: string; goesFirst: number; title: string }>(
        'SELECT id, name, goesFirst, title FROM people WHERE name LIKE :pattern AND leftAt IS NULL ORDER BY name LIMIT 5',
        { pattern: `%${words.replace(/[%_\\]/g, '\\$&')}%` },
      )
    : [];
  return { tickets, people: people.map((person) => ({ ...person, goesFirst: Boolean(person.goesFirst) })) };
}
