import type { Notice } from '../../contract/notices';
import { mayCallBack, toLine, type LinePoint } from '../../core/notices';
import { readsDesk } from '../../core/rights';
import { isOpen, type TicketState } from '../../core/tickets';
import { countAudience } from '../catalogue/audience';
import { readRefs } from '../estate/cards';
import { readNetwork } from '../estate/network';
import { ProblemError } from '../http/problems';
import { readPeople } from '../people/names';
import { visibleTo } from '../tickets/visibility';
import type { Viewing } from '../unitOfWork';
import { mayChangeNotice } from './keep';
import type { NoticeRow, NoticeUpdateRow } from './model';
import { toNoticeCards } from './read';

/** So many of its tickets are listed. */
const LISTED = 200;

type Tied = {
  number: number;
  title: string;
  state: TicketState;
  requesterId: string;
  siteId: string;
  at: number;
  by: string | null;
};

/** Its tickets, as far as one may read them: what is not seen is counted nowhere. */
async function readTied({ listo, viewer }: Viewing, noticeId: string): Promise<Tied[]> {
  const visible = visibleTo(viewer);
  return listo.db.select<Tied>(
    `SELECT t.number, t.title, t.state, t.requesterId, p.siteId, n.at, b.name AS \`by\` FROM notice_tickets n
       JOIN tickets t ON t.number = n.ticketNumber AND ${visible.sql} JOIN people p ON p.id = t.requesterId
       LEFT JOIN people b ON b.id = n.byId
     WHERE n.noticeId = :noticeId ORDER BY n.at, t.number`,
    { ...visible.values, noticeId },
  );
}

/** What the team wrote on the ticket that it was made from, and who led it. */
async function readDone(
  { listo, viewer }: Viewing,
  { id, ofTicket, createdAt, endedAt }: NoticeRow,
): Promise<LinePoint[]> {
  const visible = visibleTo(viewer);
  const said = await listo.db.select<{ at: number; by: string; words: string }>(
    `SELECT m.at, p.name AS \`by\`, LEFT(m.text, 400) AS words FROM messages m JOIN people p ON p.id = m.authorId
       JOIN tickets t ON t.number = m.ticketNumber AND ${visible.sql}
     WHERE m.ticketNumber = :ofTicket AND m.readBy = 'team' AND m.at BETWEEN :from AND :until ORDER BY m.at LIMIT 500`,
    {
      ...visible.values,
      ofTicket: ofTicket ?? 0,
      from: createdAt - 86_400_000,
      until: endedAt ?? listo.clock.now(),
    },
  );
  const leads = await listo.db.select<{ at: number; name: string | null }>(
    `SELECT j.at, p.name FROM journal j LEFT JOIN people p ON p.id = JSON_VALUE(j.changes, '$.leadId.to')
     WHERE j.aboutId = :id AND j.type = 'noticeChanged' AND JSON_EXISTS(j.changes, '$.leadId') ORDER BY j.id`,
    { id },
  );
  const point = { count: 1, words: '' };
  return [
    ...said.map(({ at, by, words }) => ({ ...point, kind: 'said' as const, at, by, words })),
    ...leads.map(({ at, name }) => ({ ...point, kind: 'lead' as const, at, by: name })),
  ];
}

/** The line of time of a notice, put together from what is on record. */
async function readLine(
  { listo, viewer }: Viewing,
  { notice, updates, tied }: { notice: NoticeRow; updates: NoticeUpdateRow[]; tied: Tied[] },
): Promise<LinePoint[]> {
  const { language } = viewer;
  const names = await readPeople(
    listo,
    updates.map(({ byId }) => byId),
  );
  const told = updates.map(({ at, kind, byId, words }) => ({
    ...{ at, count: 1, by: names.get(byId)?.name ?? null, words: words[language] },
    kind: kind === 'ended' ? ('ended' as const) : ('told' as const),
  }));
  const ties = tied.map(({ at }) => ({ at, kind: 'tied' as const, count: 1, by: null, words: '' }));
  const began = { at: notice.fromAt, kind: 'began' as const, count: 1, by: null, words: '' };
  return toLine([began, ...told, ...ties, ...(await readDone({ listo, viewer }, notice))]);
}

/** A notice with all that is known of it, for those at the Desk. */
export async function readNotice({ listo, viewer }: Viewing, id: string): Promise<Notice> {
  if (!readsDesk(viewer)) throw new ProblemError('notFound');
  const { tables } = listo.db;
  const notice = await tables.notices.findOne({ id });
  if (!notice) throw new ProblemError('notFound');
  const viewing = { listo, viewer };
  const [[card], updates, tied, network, services, team, reach] = await Promise.all([
    toNoticeCards(viewing, [notice]),
    tables.noticeUpdates.find({ noticeId: id }, { order: [['at', 'DESC'], 'id'] }),
    readTied(viewing, id),
    readNetwork(listo),
    tables.services.find({ id: notice.serviceIds }),
    tables.teams.findOne({ id: notice.teamId }),
    countAudience(listo, notice.audience),
  ]);
  const refs = await readPeople(listo, [
    ...[notice.createdById, ...updates.map(({ byId }) => byId)],
    ...tied.slice(0, LISTED).map(({ requesterId }) => requesterId),
  ]);
  const refOf = (personId: string) => refs.get(personId)!;
  const { createdById, version, createdAt, calledBackAt, ofTicket, ofWork, review, leadId, ...rest } = notice;
  return {
    ...{ ...rest, ...card!, audience: notice.audience, leadId, words: notice.words },
    ...{ version, createdAt, calledBackAt, ofTicket, ofWork, review, reach, by: refOf(createdById) },
    team: team!.name,
    things: await readRefs(viewing, network, notice.thingIds),
    services: services.map(({ id: serviceId, title }) => ({ id: serviceId, title })),
    updates: updates.map(({ id: updateId, at, kind, words, byId }) => ({
      ...{ id: updateId, at, kind, words, byName: refOf(byId).name },
    })),
    tied: tied.slice(0, LISTED).map(({ number, title, state, requesterId, at }) => ({
      ...{ number, title, state, at, requester: refOf(requesterId) },
    })),
    openTickets: tied.filter(({ state }) => isOpen(state)).length,
    people: new Set(tied.map(({ requesterId }) => requesterId)).size,
    sites: new Set(tied.map(({ siteId }) => siteId)).size,
    mayChange: mayChangeNotice(viewer, notice),
    mayCallBack: mayChangeNotice(viewer, notice) && mayCallBack(notice, listo.clock.now()),
    line: await readLine(viewing, { notice, updates, tied }),
  };
}
