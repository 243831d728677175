import type { NoticeCard, ReaderNotice } from '../../contract/notices';
import { isInAudience } from '../../core/catalogue';
import {
  fitsNotice,
  isLongerThanSaid,
  isShownNow,
  noticeState,
  overAt,
  STILL_SHOWN_MS,
} from '../../core/notices';
import { isAgent, readsDesk } from '../../core/rights';
import { readAudiencePerson } from '../catalogue/audience';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';
import { personOf } from '../sessions/forWhom';
import { requireTicket } from '../tickets/guard';
import { visibleTo } from '../tickets/visibility';
import type { Viewing } from '../unitOfWork';
import type { NoticeRow, NoticeUpdateRow } from './model';

/** So many notices of the past are listed. */
const PAST = 100;
/** How many that fit a ticket are offered. */
const OFFERED = 3;

/** Those that are not over, and those that are so only shortly. They are few. */
export async function listShown({ db, clock }: Listo): Promise<NoticeRow[]> {
  const now = clock.now();
  const rows = await db.select<{ id: string }>(
    'SELECT id FROM notices WHERE calledBackAt IS NULL AND (endedAt IS NULL OR endedAt > :since)',
    { since: now - STILL_SHOWN_MS },
  );
  const ids = rows.map(({ id }) => id);
  if (ids.length === 0) return [];
  const notices = await db.tables.notices.find({ id: ids }, { order: [['fromAt', 'DESC'], 'id'] });
  return notices.filter((notice) => isShownNow(notice, now));
}

async function readUpdates({ db }: Listo, ids: string[]): Promise<NoticeUpdateRow[]> {
  return ids.length === 0
    ? []
    : db.tables.noticeUpdates.find({ noticeId: ids }, { order: [['at', 'DESC'], 'id'] });
}

const factsOf = (notice: NoticeRow, now: number) => {
  const { id, kind, title, words, fromAt, untilAt, isMajor } = notice;
  const facts = { id, kind, title, words, fromAt, untilAt, isMajor };
  return {
    ...facts,
    endedAt: overAt(notice, now),
    state: noticeState(notice, now),
    isLonger: isLongerThanSaid(notice, now),
  };
};

const updatesOf = (updates: NoticeUpdateRow[], noticeId: string) =>
  updates
    .filter((update) => update.noticeId === noticeId && update.kind !== 'opened')
    .map(({ id, at, kind, words }) => ({ id, at, kind, words }));

type Asked = { q: string; service?: string | undefined; for?: string | undefined };

/** The notices that concern someone now: by who they are, because they follow them, or by a ticket of theirs. */
export async function listMine(
  { listo, viewer }: Viewing,
  { q, service, for: forId }: Asked,
): Promise<ReaderNotice[]> {
  const shown = await listShown(listo);
  if (shown.length === 0) return [];
  const personId = personOf(viewer, forId);
  const ids = shown.map(({ id }) => id);
  const { select } = listo.db;
  const [person, updates, own, followers] = await Promise.all([
    readAudiencePerson(listo, personId),
    readUpdates(listo, ids),
    select<{ noticeId: string; number: number }>(
      `SELECT n.noticeId, t.number FROM notice_tickets n JOIN tickets t ON t.number = n.ticketNumber
       WHERE n.noticeId IN (:ids) AND t.requesterId = :personId ORDER BY t.number DESC`,
      { ids, personId },
    ),
    select<{ noticeId: string; count: number; isOwn: number }>(
      `SELECT noticeId, COUNT(*) AS count, MAX(personId = :personId) AS isOwn FROM notice_followers
       WHERE noticeId IN (:ids) GROUP BY noticeId`,
      { ids, personId },
    ),
  ]);
  const now = listo.clock.now();
  return shown
    .flatMap((notice): ReaderNotice[] => {
      const ownTicket = own.find(({ noticeId }) => noticeId === notice.id)?.number ?? null;
      const followed = followers.find(({ noticeId }) => noticeId === notice.id);
      const isFollowed = followed?.isOwn === 1;
      const concerns = person !== null && isInAudience(notice.audience, person);
      if (!concerns && !isFollowed && ownTicket === null) return [];
      const fit = fitsNotice(notice, { words: q, serviceIds: service ? [service] : [] });
      const facts = { ...factsOf(notice, now), updates: updatesOf(updates, notice.id) };
      return [{ ...facts, followers: followed?.count ?? 0, isFollowed, ownTicket, fit }];
    })
    .sort((a, b) => b.fit - a.fit);
}

/** The notices that everyone may read. */
export async function listOpenNotices(listo: Listo) {
  const shown = (await listShown(listo)).filter(({ isPublic }) => isPublic);
  const updates = await readUpdates(
    listo,
    shown.map(({ id }) => id),
  );
  const now = listo.clock.now();
  return shown.map((notice) => ({ ...factsOf(notice, now), updates: updatesOf(updates, notice.id) }));
}

/** Notices as lists at the Desk show them, with how many tickets of theirs one sees. */
export async function toNoticeCards({ listo, viewer }: Viewing, notices: NoticeRow[]): Promise<NoticeCard[]> {
  if (notices.length === 0) return [];
  const visible = visibleTo(viewer);
  const ids = notices.map(({ id }) => id);
  const { select } = listo.db;
  const [tied, followers, refs] = await Promise.all([
    select<{ noticeId: string; count: number }>(
      `SELECT n.noticeId, COUNT(*) AS count FROM notice_tickets n JOIN tickets t ON t.number = n.ticketNumber AND ${visible.sql}
       WHERE n.noticeId IN (:ids) GROUP BY n.noticeId`,
      { ...visible.values, ids },
    ),
    select<{ noticeId: string; count: number }>(
      'SELECT noticeId, COUNT(*) AS count FROM notice_followers WHERE noticeId IN (:ids) GROUP BY noticeId',
      { ids },
    ),
    readPeople(
      listo,
      notices.map(({ leadId }) => leadId),
    ),
  ]);
  const now = listo.clock.now();
  const countOf = (rows: { noticeId: string; count: number }[], id: string): number =>
    rows.find(({ noticeId }) => noticeId === id)?.count ?? 0;
  return notices.map((notice) => {
    const { words: _, ...facts } = factsOf(notice, now);
    const { isPublic, teamId, leadId } = notice;
    return {
      ...{ ...facts, isPublic, teamId, lead: leadId === null ? null : (refs.get(leadId) ?? null) },
      ...{ tickets: countOf(tied, notice.id), followers: countOf(followers, notice.id) },
    };
  });
}

/** Notices at the Desk. */
export async function listNotices(
  { listo, viewer }: Viewing,
  { only }: { only: 'now' | 'past' },
): Promise<NoticeCard[]> {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  if (only === 'now') return toNoticeCards({ listo, viewer }, await listShown(listo));
  const now = listo.clock.now();
  const all = await listo.db.tables.notices.find({}, { order: [['fromAt', 'DESC'], 'id'], limit: PAST });
  return toNoticeCards(
    { listo, viewer },
    all.filter((notice) => !isShownNow(notice, now)),
  );
}

/** The notices that a ticket is tied to, and those that fit it. */
export async function readNoticesOf(
  { listo, viewer }: Viewing,
  number: number,
): Promise<{ tied: NoticeCard[]; fitting: NoticeCard[] }> {
  const { ticket } = await requireTicket({ listo, viewer }, { number, action: 'readNotes' });
  const { notices, noticeTickets } = listo.db.tables;
  const ties = await noticeTickets.find({ ticketNumber: number });
  const ids = ties.map(({ noticeId }) => noticeId);
  const tied = ids.length === 0 ? [] : await notices.find({ id: ids }, { order: [['fromAt', 'DESC']] });
  const written = { words: ticket.title, serviceIds: [ticket.serviceId] };
  const mayTie = isAgent(viewer) && !ticket.isConfidential;
  const fitting = (mayTie ? await listShown(listo) : [])
    .filter((notice) => !ids.includes(notice.id) && noticeState(notice, listo.clock.now()) !== 'ended')
    .map((notice) => ({ notice, fit: fitsNotice(notice, written) }))
    .filter(({ fit }) => fit > 0)
    .sort((a, b) => b.fit - a.fit)
    .slice(0, OFFERED);
  const viewing = { listo, viewer };
  return {
    tied: await toNoticeCards(viewing, tied),
    fitting: await toNoticeCards(
      viewing,
      fitting.map(({ notice }) => notice),
    ),
  };
}
