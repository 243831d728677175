import type { Reading, UnitOfWork, WorkOfViewer } from '../unitOfWork';
import type { Changing } from '../unitOfWork';
import { isAgent } from '../../core/rights';
import type { LocalText } from '../../core/forms';
import { inLanguage } from '../../core/knowledge';
import { startBulkWithin } from '../bulk/service';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { requireTicket } from '../tickets/guard';
import type { TicketRecord } from '../tickets/model';
import { moveWithin } from '../tickets/move';
import { recordChange } from '../tickets/record';
import type { NoticeRow, NoticeUpdateRow } from './model';

/** So many are tied while one waits; more are a job. */
const AT_ONCE = 20;

/** The people who hear of a ticket: who asked, and who is also told. */
export async function listHearers(
  { listo, tx }: Reading,
  { number, requesterId }: TicketRecord,
): Promise<string[]> {
  const followers = await listo.db.tables.followers.find(
    { ticketNumber: number, role: 'alsoTold' },
    tx ? { transaction: tx } : {},
  );
  return [...new Set([requesterId, ...followers.map(({ personId }) => personId)])];
}

/** Tells those of a locked ticket of an update who have not been told of it yet. */
export async function tellOnTicket(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  { notice, update }: { notice: NoticeRow; update: NoticeUpdateRow },
): Promise<void> {
  const hearers = await listHearers({ listo, tx }, ticket);
  const { noticeTold } = listo.db.tables;
  const told = await noticeTold.find({ updateId: update.id, personId: hearers }, { transaction: tx });
  const personIds = hearers.filter((id) => !told.some(({ personId }) => personId === id));
  await noticeTold.insertAll(
    personIds.map((personId) => ({ updateId: update.id, personId })),
    tx,
  );
  await recordChange({ listo, tx }, ticket, {
    changes: {},
    entry: {
      ...{ type: 'noticeTold', actorId: update.byId, via: 'desk', audience: 'requester' },
      data: { noticeId: notice.id, title: notice.title, words: update.words, personIds },
    },
  });
}

/** The newest words of a notice that its people have been told; null: they have yet to be. */
async function lastTold({ listo, tx }: UnitOfWork, noticeId: string): Promise<NoticeUpdateRow | null> {
  const { noticeUpdates, timers } = listo.db.tables;
  const updates = await noticeUpdates.find({ noticeId }, { transaction: tx, order: [['at', 'DESC'], 'id'] });
  const waiting = await timers.find({ ticketNumber: 0, kind: 'tellNotice' }, { transaction: tx });
  return updates.find(({ id }) => !waiting.some(({ ref }) => ref.startsWith(`${id} `))) ?? null;
}

/** Ties one ticket to a notice; those of the ticket hear what is known. Nothing happens where it is tied already. */
export async function tieWithin(
  { listo, tx, viewer }: WorkOfViewer,
  notice: NoticeRow,
  number: number,
): Promise<void> {
  const { ticket } = await requireTicket({ listo, tx, viewer }, { number, action: 'note' });
  // Words to many must not lead back to what only a few may know of.
  if (ticket.isConfidential)
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'numbers', code: 'confidential' }] });
  const { noticeTickets } = listo.db.tables;
  const key = { noticeId: notice.id, ticketNumber: number };
  if (await noticeTickets.findOne(key, tx)) return;
  await noticeTickets.insert({ ...key, at: listo.clock.now(), byId: viewer.id }, tx);
  await recordChange({ listo, tx }, ticket, {
    changes: {},
    entry: {
      ...{ type: 'noticeTied', actorId: viewer.id, via: 'desk', audience: 'team' },
      data: { noticeId: notice.id, title: notice.title },
    },
  });
  const update = await lastTold({ listo, tx }, notice.id);
  if (update) await tellOnTicket({ listo, tx }, ticket, { notice, update });
}

/** Marks a ticket done in the words that ended its notice, as its requester reads them. */
export async function finishWith(
  { listo, tx, viewer }: WorkOfViewer,
  words: LocalText,
  { number, version }: { number: number; version: number },
): Promise<void> {
  const { ticket } = await requireTicket({ listo, tx, viewer }, { number, action: 'work' });
  const requester = await listo.db.tables.people.findOne({ id: ticket.requesterId }, tx);
  const solution = inLanguage(words, requester?.language ?? 'en');
  const move = { name: 'finish' as const, by: 'agent' as const, version, input: { solution } };
  await moveWithin({ listo, tx, viewer }, number, { move });
}

/** Ties tickets: few at once, more as a job in the background. @returns the job, where it is one */
export async function tieMany(
  work: WorkOfViewer,
  notice: NoticeRow,
  numbers: number[],
): Promise<string | null> {
  if (numbers.length <= AT_ONCE) {
    for (const number of numbers) await tieWithin(work, notice, number);
    return null;
  }
  const { listo, tx } = work;
  const chosen = await listo.db.select<{ number: number; version: number }>(
    'SELECT number, version FROM tickets WHERE number IN (:numbers) ORDER BY number',
    { numbers },
    tx,
  );
  const job = await startBulkWithin(work, { chosen, deed: { kind: 'tie', noticeId: notice.id } });
  return job.id;
}

/** The notice, if tickets can still be tied to it. @throws ProblemError */
export async function requireTiable({ listo, tx, viewer }: WorkOfViewer, id: string): Promise<NoticeRow> {
  const notice = await listo.db.tables.notices.findOne({ id }, tx);
  if (!notice || !isAgent(viewer)) throw new ProblemError('notFound');
  if (notice.calledBackAt !== null) throw new ProblemError('moveNotAllowed');
  return notice;
}

export function tieTickets(
  { listo, viewer, actor }: Changing,
  id: string,
  numbers: number[],
): Promise<{ jobId: string | null }> {
  return change(listo, actor, async (tx) => {
    const work = { listo, tx, viewer };
    return { jobId: await tieMany(work, await requireTiable(work, id), [...new Set(numbers)]) };
  });
}

/** Takes a ticket off a notice: it was another matter. */
export function untieTicket(
  { listo, viewer, actor }: Changing,
  { id, number }: { id: string; number: number },
): Promise<{ ok: true }> {
  return change(listo, actor, async (tx) => {
    const { ticket } = await requireTicket({ listo, tx, viewer }, { number, action: 'note' });
    const { notices, noticeTickets } = listo.db.tables;
    const notice = await notices.findOne({ id }, tx);
    const key = { noticeId: id, ticketNumber: number };
    if (!notice || !(await noticeTickets.findOne(key, tx))) throw new ProblemError('notFound');
    await noticeTickets.remove(key, tx);
    await recordChange({ listo, tx }, ticket, {
      changes: {},
      entry: {
        ...{ type: 'noticeUntied', actorId: viewer.id, via: 'desk', audience: 'team' },
        data: { noticeId: id, title: notice.title },
      },
    });
    return OK;
  });
}
