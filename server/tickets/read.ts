import type { Ticket } from '../../contract/tickets';
import { TICKET_ACTIONS } from '../../core/rights';
import { isOpen, listMoves, type MoverRole } from '../../core/tickets';
import { listAnswered } from './answered';
import { definitionOf } from '../catalogue/versions';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';
import type { SignedIn } from '../sessions/viewer';
import { readDue } from './dueByHand';
import { readEntries } from './entries';
import { listRights, requireTicket } from './guard';
import { noteLook } from './looks';
import type { TicketRecord } from './model';
import { closesAt } from './waitingConsumer';
import { visibleTo } from './visibility';
import { listMissing, withoutFiles } from '../../core/forms';

async function readRequester(
  listo: Listo,
  viewer: SignedIn,
  { requesterId, number }: TicketRecord,
): Promise<Ticket['requester']> {
  const visible = visibleTo(viewer);
  const [row] = await listo.db.select<Omit<Ticket['requester'], 'goesFirst'> & { goesFirst: number }>(
    `SELECT p.id, p.name, p.goesFirst, p.title, p.phone, p.vessel, p.device, s.name AS site, s.timeZone, m.name AS manager,
       (SELECT COUNT(*) FROM tickets t WHERE t.requesterId = p.id AND t.state IN ('received', 'inWork', 'held') AND t.number <> :number AND ${visible.sql}) AS openBesides
     FROM people p JOIN sites s ON s.id = p.siteId LEFT JOIN people m ON m.id = p.managerId WHERE p.id = :requesterId`,
    { ...visible.values, requesterId, number },
  );
  return { ...row!, goesFirst: Boolean(row!.goesFirst) };
}

function movesFor(ticket: TicketRecord, rights: readonly string[]): Ticket['moves'] {
  const of = (by: MoverRole & ('agent' | 'requester')) => listMoves(ticket, by).map((name) => ({ name, by }));
  return [
    ...of('agent').filter(({ name }) => rights.includes(name === 'give' ? 'giveOn' : 'work')),
    ...(rights.includes('own') ? of('requester') : []),
  ];
}

/** The page of a ticket, as far as the viewer may see it. */
export async function readTicket(listo: Listo, viewer: SignedIn, number: number): Promise<Ticket> {
  const { tables } = listo.db;
  const { ticket, guarded } = await requireTicket({ listo, viewer }, { number, action: 'read' });
  await noteLook(listo, viewer, ticket);
  const rights = listRights(viewer, guarded, TICKET_ACTIONS);
  const isTeamSide = rights.includes('readNotes');
  const { alsoToldIds, collaboratorIds } = guarded;
  const [service, team, group, people, requester, closing, above, said] = await Promise.all([
    definitionOf(listo, ticket),
    tables.teams.findOne({ id: ticket.teamId }).then((found) => found!),
    ticket.groupId === null ? null : tables.groups.findOne({ id: ticket.groupId }),
    readPeople(listo, [ticket.raisedById, ticket.assigneeId, ...alsoToldIds, ...collaboratorIds]),
    readRequester(listo, viewer, ticket),
    ticket.state === 'done' ? closesAt(listo, ticket) : null,
    listo.ports.tickets.read({ listo, viewer }, ticket, rights),
    readEntries(listo, number, isTeamSide),
  ]);
  const personOf = (id: string | null) => (id === null ? null : (people.get(id) ?? null));
  const { approvals, plan, clocks, room, conversation } = above;
  const {
    version,
    kind,
    title,
    state,
    heldFor,
    heldUntil,
    solution,
    priority,
    impact,
    urgency,
    via,
    createdAt,
  } = ticket;
  return {
    number,
    version,
    kind,
    title,
    state,
    heldFor,
    heldUntil,
    solution,
    priority,
    impact,
    urgency,
    via,
    createdAt,
    due: readDue(ticket, listo.clock.now()),
    rating: ticket.rating,
    ratingWord: ticket.ratingWord,
    rights,
    isDeclined: ticket.isDeclined,
    ownWords: service.stateWords[state] ?? null,
    progress: team.progressLabels.find(({ id }) => id === ticket.progressId) ?? null,
    progressFinishedAt: ticket.progressFinishedAt,
    service: { id: ticket.serviceId, title: service.title },
    requester,
    raisedBy: personOf(ticket.raisedById),
    assignee: personOf(ticket.assigneeId),
    isTakenUp: ticket.takenUp,
    team: { id: team.id, name: team.name, calendarId: team.calendarId },
    group: group && { id: group.id, name: group.name },
    heldReason: isTeamSide || heldFor === 'requester' ? ticket.heldReason : null,
    priorityReason: isTeamSide ? ticket.priorityReason : null,
    closesAt: closing,
    answers: listAnswered(service.form, ticket.answers),
    questions:
      isOpen(state) && (rights.includes('mend') || rights.includes('own')) ? service.form.fields : [],
    missing: isOpen(state) ? listMissing(withoutFiles(service.form), ticket.answers) : [],
    place: ticket.place,
    files: said.files,
    room,
    conversation,
    // Someone who was put there by hand and is in no list of people takes no page down.
    alsoTold: alsoToldIds.flatMap((id) => people.get(id) ?? []),
    collaborators: isTeamSide ? collaboratorIds.flatMap((id) => people.get(id) ?? []) : [],
    approvals,
    plan,
    entries: said.entries,
    clocks: isTeamSide ? clocks : clocks.filter(({ kind: kindOfTarget }) => kindOfTarget === 'serviceLevel'),
    moves: movesFor(ticket, rights),
  };
}
