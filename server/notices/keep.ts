import { nanoid } from 'nanoid';
import type { Notice, NoticeBody } from '../../contract/notices';
import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { completeText, type LocalText } from '../../core/forms';
import { CALL_BACK_MS, checkNotice, mayCallBack, overAt } from '../../core/notices';
import { isAgent, mayLead } from '../../core/rights';
import { isOpen } from '../../core/tickets';
import { startBulkWithin } from '../bulk/service';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { SignedIn } from '../sessions/viewer';
import { findGuarded } from '../tickets/guard';
import type { Changing, UnitOfWork, WorkOfViewer } from '../unitOfWork';
import type { NoticeRow, NoticeUpdateRow } from './model';
import { armTelling, disarmTelling } from './tell';
import { tieMany } from './tie';

type Fault = { field: string; code: string };
type Made = BodyOf<typeof api.notices.create>;
type Kind = NoticeUpdateRow['kind'];

const refuse = (fields: Fault[]): ProblemError => new ProblemError('fieldsNotValid', { fields });

/** Whether someone may change a notice: those of its team, who made it, who leads it, and who sets up. */
export const mayChangeNotice = (viewer: SignedIn, notice: NoticeRow): boolean =>
  mayLead(viewer, notice.teamId) ||
  viewer.teams.some(({ teamId }) => teamId === notice.teamId) ||
  [notice.createdById, notice.leadId].includes(viewer.id);

/** The notice, locked, if it may be changed and is still as it was read. @throws ProblemError */
async function requireOwn(
  { listo, tx, viewer }: WorkOfViewer,
  id: string,
  version: number | null,
): Promise<NoticeRow> {
  const notice = await listo.db.tables.notices.findOne({ id }, tx, true);
  if (!notice || !isAgent(viewer)) throw new ProblemError('notFound');
  if (!mayChangeNotice(viewer, notice)) throw new ProblemError('forbidden');
  if (version !== null && notice.version !== version) throw new ProblemError('stale');
  return notice;
}

/** What is named has to be there. */
async function findMissing({ listo, tx }: UnitOfWork, body: NoticeBody): Promise<Fault[]> {
  const { teams, people, services, things } = listo.db.tables;
  const within = { transaction: tx };
  const faults: Fault[] = [];
  const missing = (field: string): void => void faults.push({ field, code: 'notAChoice' });
  if (!(await teams.findOne({ id: body.teamId }, tx))) missing('teamId');
  if (body.leadId !== null && !(await people.findOne({ id: body.leadId, leftAt: null }, tx)))
    missing('leadId');
  const known = await services.find({ id: body.serviceIds }, within);
  if (known.length < new Set(body.serviceIds).size) missing('serviceIds');
  const found = await things.find({ id: body.thingIds }, { ...within, attributes: ['id'] });
  if (found.length < new Set(body.thingIds).size) missing('thingIds');
  return faults;
}

/** The columns of a notice as it was written. @throws ProblemError that names every field at fault */
async function toColumns({ listo, tx }: UnitOfWork, body: NoticeBody) {
  const faults = [...checkNotice(body, listo.clock.now()), ...(await findMissing({ listo, tx }, body))];
  if (faults.length > 0) throw refuse(faults);
  return {
    ...body,
    title: completeText(body.title),
    words: completeText(body.words),
    audience: body.audience as NoticeRow['audience'],
  };
}

/** What is in confidence is told nobody else, not even by its title. */
async function requireOpenSource(
  { listo, tx, viewer }: WorkOfViewer,
  field: 'ofTicket' | 'ofWork',
  number: number | null,
): Promise<void> {
  if (number === null) return;
  const found = await findGuarded(listo, number, tx);
  if (!found) throw refuse([{ field, code: 'notAChoice' }]);
  if (found.ticket.isConfidential)
    throw viewer.teams.some(({ teamId }) => teamId === found.ticket.teamId)
      ? refuse([{ field, code: 'confidential' }])
      : new ProblemError('notFound');
}

type Said = { notice: NoticeRow; kind: Kind; words: LocalText; isForFollowers?: boolean; journalId: number };

/** Notes words of a notice; everyone tied to it is told of them once, beginning at an instant. */
async function addUpdate(
  { listo, tx, viewer }: WorkOfViewer,
  { notice, isForFollowers = false, ...said }: Said,
  at: number,
): Promise<string> {
  const id = nanoid(12);
  const row = { ...said, isForFollowers, id, noticeId: notice.id, at: listo.clock.now(), byId: viewer.id };
  await listo.db.tables.noticeUpdates.insert(row, tx);
  await armTelling({ listo, tx }, id, at);
  return id;
}

/** Publishes a notice. It stands at once where it is read; for a minute it can be called back before anybody is written to. */
export function createNotice({ listo, viewer, actor }: Changing, body: Made): Promise<{ id: string }> {
  if (!isAgent(viewer)) throw new ProblemError('forbidden');
  return change(listo, actor, async (tx) => {
    const work = { listo, tx, viewer };
    const { ofTicket, ofWork, numbers, ...written } = body;
    await requireOpenSource(work, 'ofTicket', ofTicket);
    await requireOpenSource(work, 'ofWork', ofWork);
    const id = nanoid(12);
    const now = listo.clock.now();
    const notice: NoticeRow = {
      ...(await toColumns(work, written)),
      ...{ id, ofTicket, ofWork, endedAt: null, calledBackAt: null, review: '', version: 1 },
      ...{ createdById: viewer.id, createdAt: now },
    };
    await listo.db.tables.notices.insert(notice, tx);
    const data = { noticeId: id, name: notice.title.en };
    const journalId = await appendSetting(work, { by: viewer.id, type: 'noticeMade', data });
    const words = completeText({
      en: [notice.title.en, notice.words.en].filter(Boolean).join('\n\n'),
      pt: [notice.title.pt, notice.words.pt].filter(Boolean).join('\n\n'),
    });
    await addUpdate(work, { notice, kind: 'opened', words, journalId }, now + CALL_BACK_MS);
    const tied = [...new Set([...(ofTicket === null ? [] : [ofTicket]), ...numbers])];
    if (tied.length > 0) await tieMany(work, notice, tied);
    return { id };
  });
}

/** Changes what a notice is about and whom it concerns. Nobody is told: that is what updates are for. */
export function updateNotice(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, ...body }: BodyOf<typeof api.notices.update>,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const work = { listo, tx, viewer };
    const notice = await requireOwn(work, id, version);
    const columns = await toColumns(work, body);
    await listo.db.tables.notices.update({ id }, { ...columns, version: version + 1 }, tx);
    const lead =
      columns.leadId === notice.leadId ? {} : { leadId: { from: notice.leadId, to: columns.leadId } };
    const data = { noticeId: id, name: columns.title.en };
    await appendSetting(work, { by: viewer.id, type: 'noticeChanged', changes: lead, data });
    return { version: version + 1 };
  });
}

function requireWords(words: LocalText): LocalText {
  const whole = completeText(words);
  if (whole.en.trim() === '') throw refuse([{ field: 'words', code: 'missing' }]);
  return whole;
}

/** Tells everyone who is tied to a notice how it goes on. */
export function sayOfNotice(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, words, untilAt }: BodyOf<typeof api.notices.say>,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const work = { listo, tx, viewer };
    const notice = await requireOwn(work, id, version);
    const now = listo.clock.now();
    if (overAt(notice, now) !== null || notice.calledBackAt !== null)
      throw new ProblemError('moveNotAllowed');
    if (untilAt !== null && untilAt <= notice.fromAt)
      throw refuse([{ field: 'untilAt', code: 'endsBeforeBegins' }]);
    await listo.db.tables.notices.update({ id }, { untilAt, version: version + 1 }, tx);
    const data = { noticeId: id, name: notice.title.en };
    const changes = untilAt === notice.untilAt ? {} : { untilAt: { from: notice.untilAt, to: untilAt } };
    const journalId = await appendSetting(work, { by: viewer.id, type: 'noticeChanged', changes, data });
    // What is said before those who hear of it have heard of the notice itself comes after it.
    const at = Math.max(now, notice.createdAt + CALL_BACK_MS + 1);
    await addUpdate(work, { notice, kind: 'update', words: requireWords(words), journalId }, at);
    return { version: version + 1 };
  });
}

/** The tickets of a notice that are still to be done. */
async function listOpen({ listo, tx }: UnitOfWork, noticeId: string) {
  const rows = await listo.db.select<{ number: number; version: number; state: never }>(
    `SELECT t.number, t.version, t.state FROM notice_tickets n JOIN tickets t ON t.number = n.ticketNumber
     WHERE n.noticeId = :noticeId ORDER BY t.number`,
    { noticeId },
    tx,
  );
  return rows.filter(({ state }) => isOpen(state));
}

/** Says that it is over. Its tickets are done with it in the background, or stay to be confirmed one by one. */
export function endNotice(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, words, isFinishing }: BodyOf<typeof api.notices.end>,
): Promise<{ version: number; jobId: string | null }> {
  return change(listo, actor, async (tx) => {
    const work = { listo, tx, viewer };
    const notice = await requireOwn(work, id, version);
    const now = listo.clock.now();
    if (notice.endedAt !== null || notice.calledBackAt !== null) throw new ProblemError('moveNotAllowed');
    const said = requireWords(words);
    await listo.db.tables.notices.update({ id }, { endedAt: now, version: version + 1 }, tx);
    const data = { noticeId: id, name: notice.title.en };
    const changes = { endedAt: { from: null, to: now } };
    const journalId = await appendSetting(work, { by: viewer.id, type: 'noticeEnded', changes, data });
    const open = isFinishing ? await listOpen(work, id) : [];
    const at = Math.max(now, notice.createdAt + CALL_BACK_MS + 2);
    await addUpdate(
      work,
      { notice, kind: 'ended', words: said, isForFollowers: open.length > 0, journalId },
      at,
    );
    if (open.length === 0) return { version: version + 1, jobId: null };
    const deed = { kind: 'finishNotice' as const, noticeId: id, words: said };
    const job = await startBulkWithin(work, { chosen: open, deed });
    return { version: version + 1, jobId: job.id };
  });
}

/** Calls a notice back: it is gone from every page, and nobody is written to. */
export function callBackNotice({ listo, viewer, actor }: Changing, id: string): Promise<{ ok: true }> {
  return change(listo, actor, async (tx) => {
    const work = { listo, tx, viewer };
    const notice = await requireOwn(work, id, null);
    const now = listo.clock.now();
    if (!mayCallBack(notice, now)) throw new ProblemError('moveNotAllowed');
    await listo.db.tables.notices.update({ id }, { calledBackAt: now, version: notice.version + 1 }, tx);
    await disarmTelling(work, id);
    const data = { noticeId: id, name: notice.title.en };
    await appendSetting(work, { by: viewer.id, type: 'noticeCalledBack', data });
    return { ok: true as const };
  });
}

/** Keeps what was learned. */
export function reviewNotice(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, review }: Pick<Notice, 'version' | 'review'>,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const work = { listo, tx, viewer };
    const notice = await requireOwn(work, id, version);
    if (overAt(notice, listo.clock.now()) === null) throw new ProblemError('moveNotAllowed');
    await listo.db.tables.notices.update({ id }, { review, version: version + 1 }, tx);
    const data = { noticeId: id, name: notice.title.en };
    await appendSetting(work, { by: viewer.id, type: 'noticeReviewed', data });
    return { version: version + 1 };
  });
}
