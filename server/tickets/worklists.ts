import { COUNT_LIMIT, type WorklistName } from '../../contract/names';
import type { TicketRow } from '../../contract/tickets';
import type { LocalText } from '../../core/forms';
import type { Viewer } from '../../core/rights';
import { isAgent } from '../../core/rights';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { completeRows, ROW_JOINS, ROW_SELECT, type RowRecord, type StepOfRow } from './rows';
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

/** Steps of plans whose turn it is, where a list shows them beside tickets. */
const STEP_CONDITIONS: Partial<Record<WorklistName, string>> = {
  nextUp: 'ps.teamId IN (:teamIds) AND (ps.assigneeId IS NULL OR ps.assigneeId = :viewerId)',
  mine: 'ps.assigneeId = :viewerId',
  unassigned: 'ps.teamId IN (:teamIds) AND ps.assigneeId IS NULL',
};

type ListPlace = { due: number; number: number; stepId: string };

/** A place in a list: the due instant, the number and the step of its last row. */
function parsePlace(after: string | undefined): ListPlace | null {
  if (after === undefined) return null;
  const [due, number, stepId = ''] = after.split(':');
  if (!Number.isSafeInteger(Number(due)) || !Number.isSafeInteger(Number(number)))
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'after', code: 'malformed' }] });
  return { due: Number(due), number: Number(number), stepId };
}

type StepRecord = RowRecord & StepOfRow;

/** The steps of a list in their order, each on the columns of its ticket, with the step's own team and assignee. */
async function readSteps(
  listo: Listo,
  name: WorklistName,
  visible: ReturnType<typeof visibleTo>,
  values: object,
  place: ListPlace | null,
): Promise<StepRecord[]> {
  const condition = STEP_CONDITIONS[name];
  if (!condition) return [];
  const beyond = place ? 'AND (ps.neededBy, ps.ticketNumber, ps.stepId) > (:due, :number, :stepId)' : '';
  return listo.db.select<StepRecord>(
    `${ROW_SELECT.replace('t.assigneeId, t.teamId', 'ps.assigneeId, ps.teamId')}, ps.stepId, ps.definition, ps.neededBy
     FROM plan_steps ps JOIN tickets t ON t.number = ps.ticketNumber JOIN services s ON s.id = t.serviceId JOIN teams tm ON tm.id = ps.teamId
     LEFT JOIN plans pl ON pl.ticketNumber = t.number
     WHERE ps.state = 'active' AND t.state IN ('received', 'inWork', 'held') AND ${condition} AND ${visible.sql} ${beyond}
     ORDER BY ps.neededBy, ps.ticketNumber, ps.stepId LIMIT :limit`,
    { ...values },
  );
}

/** Lists in which what waits for one's decision stands beside tickets. */
const WITH_ASKS: readonly WorklistName[] = ['nextUp', 'mine'];
/** Where no promise says by when, a decision is wanted within two days. */
const DECIDE_MS = 2 * 86_400_000;

/** What waits for the viewer's decision, by when a promise wants it. */
async function readAskRows(
  listo: Listo,
  name: WorklistName,
  values: { viewerId?: unknown } & object,
  place: ListPlace | null,
): Promise<StepRecord[]> {
  if (!WITH_ASKS.includes(name)) return [];
  const rows = await listo.db.select<StepRecord & { asked: LocalText }>(
    `${ROW_SELECT.replace('t.assigneeId, t.teamId', 'a.askedId AS assigneeId, t.teamId')}, CONCAT('ask:', a.id) AS stepId, ap.name AS asked,
       COALESCE((SELECT MIN(c.dueAt) FROM clocks c WHERE c.ticketNumber = a.ticketNumber AND c.work = CONCAT('approval:', ap.id) AND c.state = 'running'),
         a.askedAt + :decideMs) AS neededBy
     FROM asks a JOIN approvals ap ON ap.id = a.approvalId AND ap.outcome = 'open' JOIN tickets t ON t.number = a.ticketNumber ${ROW_JOINS}
     WHERE a.askedId = :viewerId AND a.decision IS NULL ORDER BY neededBy, t.number LIMIT :most`,
    { ...values, decideMs: DECIDE_MS },
  );
  return rows
    .map(({ asked, ...row }) => ({ ...row, definition: { name: asked, kind: 'approval' as const } }))
    .filter((row) => !place || compare(placeOf(row), place) > 0);
}

const placeOf = (record: RowRecord | StepRecord): ListPlace =>
  'stepId' in record
    ? { due: record.neededBy, number: record.number, stepId: record.stepId }
    : { due: record.tightestDueAt, number: record.number, stepId: '' };

function compare(one: ListPlace, other: ListPlace): number {
  return one.due - other.due || one.number - other.number || (one.stepId < other.stepId ? -1 : 1);
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
    ? `AND (t.tightestDueAt > :due OR (t.tightestDueAt = :due AND t.number > :number))`
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
  const steps = await readSteps(listo, name, visible, values, place);
  const asks = await readAskRows(listo, name, values, place);
  const all = [...records, ...steps, ...asks].sort((one, other) => compare(placeOf(one), placeOf(other)));
  const shown = all.slice(0, limit);
  const last = all.length > limit ? shown.at(-1) : undefined;
  const next = last && placeOf(last);
  const count = counted!.count + (place ? 0 : steps.length + asks.length);
  return {
    rows: await completeRows(listo, shown),
    next: next ? `${next.due}:${next.number}:${next.stepId}` : null,
    total: { count: Math.min(count, COUNT_LIMIT), isMore: count > COUNT_LIMIT },
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
