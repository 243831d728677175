import { nanoid } from 'nanoid';
import type { api } from '../../contract';
import { MOST_AT_ONCE, type BulkJob } from '../../contract/bulk';
import type { BodyOf } from '../../contract/endpoint';
import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { fromSql } from '../worklists/query';
import { findDefinition, parseWhere } from '../worklists/lists';
import { listQueries } from '../worklists/shares';
import type { BulkJobRow } from './model';
import { visibleTo } from '../tickets/visibility';
import type { Changing, UnitOfWork, Viewing, WorkOfViewer } from '../unitOfWork';

type Chosen = { number: number; version: number };

/** Refusals listed; the rest is counted. */
const LISTED = 200;

/** Those of a list that are meant, as they are now; steps and approvals are done where they are. */
async function choose(
  { listo, viewer }: Viewing,
  listId: string,
  { numbers, where }: Pick<BodyOf<typeof api.bulk.start>, 'numbers' | 'where'>,
): Promise<Chosen[]> {
  const definition = await findDefinition(listo, viewer, listId);
  if (numbers)
    return listo.db.select<Chosen>('SELECT number, version FROM tickets WHERE number IN (:numbers)', {
      numbers,
    });
  const { queries, reader } = await listQueries({ listo, viewer }, definition, parseWhere(where));
  const tickets = queries.find(({ work }) => work === 'ticket');
  if (!tickets) return [];
  return listo.db.select<Chosen>(
    `SELECT t.number, t.version FROM ${fromSql('ticket')} WHERE ${tickets.where} ORDER BY t.number LIMIT :most`,
    { ...tickets.values, now: reader.now, most: MOST_AT_ONCE + 1 },
  );
}

async function start(
  listo: Listo,
  actor: Actor,
  { chosen, what: { deed, undoes = null } }: Begun,
): Promise<{ id: string; total: number }> {
  return change(listo, actor, (tx) => insertJob({ listo, tx }, actor.id, { chosen, what: { deed, undoes } }));
}

type Begun = {
  chosen: (Chosen & { entryId?: number | null })[];
  what: { deed: BulkJobRow['deed']; undoes?: string | null };
};

/** Begins a job in the transaction of what asks for it; each ticket is judged when it is its turn. */
export function startBulkWithin(
  { listo, tx, viewer }: WorkOfViewer,
  { chosen, deed }: { chosen: Chosen[]; deed: BulkJobRow['deed'] },
): Promise<{ id: string; total: number }> {
  if (chosen.length > MOST_AT_ONCE) throw new ProblemError('tooManyAtOnce');
  return insertJob({ listo, tx }, viewer.id, { chosen, what: { deed } });
}

async function insertJob(
  { listo, tx }: UnitOfWork,
  personId: string,
  { chosen, what: { deed, undoes = null } }: Begun,
): Promise<{ id: string; total: number }> {
  const { tables } = listo.db;
  const id = nanoid(16);
  const total = chosen.length;
  await tables.bulkJobs.insert(
    {
      ...{
        id,
        personId,
        at: listo.clock.now(),
        deed,
        total,
        undoes,
        undoneBy: null,
        leaseUntil: 0,
      },
      state: 'running',
    },
    tx,
  );
  await tables.bulkItems.insertAll(
    chosen.map(({ number, version, entryId = null }) => ({
      ...{ jobId: id, number, version, entryId, code: null },
      state: 'waiting' as const,
    })),
    tx,
  );
  if (undoes) await tables.bulkJobs.update({ id: undoes }, { undoneBy: id }, tx);
  return { id, total };
}

/** Begins to do something to many tickets. Each is judged when it is its turn. */
export async function startBulk(
  { listo, viewer, actor }: Changing,
  listId: string,
  body: BodyOf<typeof api.bulk.start>,
): Promise<{ id: string; total: number }> {
  const chosen = await choose({ listo, viewer }, listId, body);
  if (chosen.length === 0)
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'numbers', code: 'missing' }] });
  if (chosen.length > MOST_AT_ONCE) throw new ProblemError('tooManyAtOnce');
  return start(listo, actor, { chosen, what: { deed: body.deed } });
}

async function requireJob(listo: Listo, viewer: SignedIn, id: string): Promise<BulkJobRow> {
  const job = await listo.db.tables.bulkJobs.findOne({ id, personId: viewer.id });
  if (!job) throw new ProblemError('notFound');
  return job;
}

const LASTING = new Set<BulkJobRow['deed']['kind']>(['words', 'undo', 'tie', 'finishNotice']);
/** Words that were read, and what their requester was asked to let go, cannot be taken back. */
function canUndo({ deed, undoes, undoneBy }: BulkJobRow): boolean {
  if (undoes !== null || undoneBy !== null || LASTING.has(deed.kind)) return false;
  return !(deed.kind === 'move' && deed.name === 'withdraw');
}

export async function readBulk(listo: Listo, viewer: SignedIn, id: string): Promise<BulkJob> {
  const job = await requireJob(listo, viewer, id);
  const counts = await listo.db.select<{ state: string; count: number }>(
    'SELECT state, COUNT(*) AS count FROM bulk_items WHERE jobId = :id GROUP BY state',
    { id },
  );
  const countOf = (state: string): number => counts.find((row) => row.state === state)?.count ?? 0;
  const visible = visibleTo(viewer);
  const refused = await listo.db.select<{ number: number; title: string; code: string; isSeen: number }>(
    `SELECT i.number, COALESCE(t.title, '') AS title, i.code FROM bulk_items i LEFT JOIN tickets t ON t.number = i.number AND ${visible.sql}
     WHERE i.jobId = :id AND i.state = 'refused' ORDER BY i.number LIMIT :most`,
    { ...visible.values, id, most: LISTED },
  );
  const { deed, state, total } = job;
  const done = countOf('done');
  const mayUndo = state !== 'running' && done > 0 && canUndo(job);
  return { id, deed, state, total, done, refused, refusedCount: countOf('refused'), mayUndo };
}

export async function stopBulk(listo: Listo, viewer: SignedIn, id: string): Promise<{ ok: true }> {
  await requireJob(listo, viewer, id);
  await listo.db.tables.bulkJobs.update({ id, state: 'running' }, { state: 'stopped' });
  return OK;
}

/** Takes back what was done: each entry, where the ticket is still as it left it. */
export async function undoBulk({ listo, viewer, actor }: Changing, id: string): Promise<{ id: string }> {
  const job = await requireJob(listo, viewer, id);
  if (job.state === 'running' || !canUndo(job)) throw new ProblemError('moveNotAllowed');
  const done = await listo.db.tables.bulkItems.find({ jobId: id, state: 'done' });
  return start(listo, actor, { chosen: done, what: { deed: { kind: 'undo' }, undoes: id } });
}
