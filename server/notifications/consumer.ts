import { factsOfEntry, toldOf } from '../../core/journal';
import type { LocalText } from '../../core/forms';
import { isNews, whoIsTold, type Parties, type Reader, type ToldEvent } from '../../core/telling';
import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import type { UnitOfWork } from '../unitOfWork';
import type { AskRow } from '../approvals/model';
import type { MemberRow } from '../people/model';
import { lookUp, type LookUp } from './lookUp';
import type { Told } from './model';
import type { FollowerRow, TicketRecord } from '../tickets/model';

/** What people are told of by an entry. */
function eventsOf(entry: JournalRow, ticket: TicketRecord): ToldEvent[] {
  const event = toldOf(entry.type);
  const { personId, mentioned } = factsOfEntry(entry);
  // Where a place to decide goes, nobody is asked.
  if (!event || (event === 'asked' && personId === undefined)) return [];
  if (event === 'sent' && !isNews(ticket)) return [];
  if (mentioned) return ['mentioned', event];
  return event === 'sent' && ticket.raisedById !== null ? ['raisedFor', 'sent'] : [event];
}

/** Whether, at this entry, the team still had to wait for a decision. */
function isAwaiting({ type, data }: JournalRow, ticket: TicketRecord): boolean {
  if (type === 'sent') return data.awaitsApproval;
  if (type === 'decided') return data.outcome !== 'approved';
  return ticket.state === 'held' && ticket.heldFor === 'approval';
}

/** A target's own choice of whom to tell of its warning or breach; else the table's. */
function readersOf(entry: JournalRow): Reader[] | undefined {
  return factsOfEntry(entry).tell;
}

/** The words that an entry has for its readers, in every language; null: those of its kind. */
function ownWordsOf(entry: JournalRow): LocalText | null {
  const { words } = factsOfEntry(entry);
  return typeof words === 'object' ? words : null;
}

type Surroundings = {
  tickets: TicketRecord[];
  followers: FollowerRow[];
  asks: AskRow[];
  members: MemberRow[];
};

/** Everything about some tickets that says who stands where, in four reads however many they are. */
async function readSurroundings(
  { listo, tx }: UnitOfWork,
  numbers: number[],
  stepTeamIds: string[],
): Promise<Surroundings> {
  const { tables } = listo.db;
  const within = { transaction: tx };
  const ofTickets = { ticketNumber: numbers } as never;
  const [tickets, followers, asks] = await Promise.all([
    tables.tickets.find({ number: numbers }, within),
    tables.followers.find(ofTickets, within),
    tables.asks.find(ofTickets, within),
  ]);
  const teamIds = [...new Set([...tickets.map(({ teamId }) => teamId), ...stepTeamIds])];
  return { tickets, followers, asks, members: await tables.members.find({ teamId: teamIds }, within) };
}

/** The team whose turn it is, where an entry says that a step has begun. */
function stepTeamOf({ type, changes }: JournalRow): string | null {
  const to = type === 'stepStarted' ? changes.teamId?.to : null;
  return typeof to === 'string' ? to : null;
}

/** Who stands where to a step that has begun, or to someone who is asked: the others are not concerned. */
function narrowed(entry: JournalRow, parties: Parties, around: Surroundings): Parties {
  // Who was given it is told; the team needs not be.
  if (entry.type === 'routed') return { ...parties, requester: [], alsoTold: [], team: [], lead: [] };
  if (entry.type === 'noticeTold') {
    // Each is told of a notice once, however many tickets they have under it.
    const { personIds = [] } = factsOfEntry(entry);
    const isNew = (id: string): boolean => personIds.includes(id);
    return {
      ...parties,
      mentioned: [],
      requester: parties.requester.filter(isNew),
      alsoTold: parties.alsoTold.filter(isNew),
    };
  }
  if (toldOf(entry.type) === 'asked') return { ...parties, approver: [factsOfEntry(entry).personId!] };
  if (entry.type !== 'stepStarted') return parties;
  const teamId = stepTeamOf(entry);
  // What is ranked is for who ranks.
  const isForLeads = entry.changes.kind?.to === 'ranking';
  const members = around.members.filter(
    (member) => member.teamId === teamId && (!isForLeads || member.role === 'lead'),
  );
  return {
    ...parties,
    assignee: [],
    team: members.map(({ personId }) => personId),
    isAwaitingApproval: false,
  };
}

function partiesOf(entry: JournalRow, ticket: TicketRecord, around: Surroundings): Parties {
  const isOfTicket = ({ ticketNumber }: { ticketNumber: number }): boolean => ticketNumber === ticket.number;
  const members = around.members.filter(({ teamId }) => teamId === ticket.teamId);
  // Within a group, its members are the team.
  const grouped = members.filter(({ groupId }) => ticket.groupId !== null && groupId === ticket.groupId);
  const alsoTold = around.followers.filter(
    (follower) => isOfTicket(follower) && follower.role === 'alsoTold',
  );
  return {
    requester: [ticket.requesterId],
    alsoTold: alsoTold.map(({ personId }) => personId),
    assignee: ticket.assigneeId === null ? [] : [ticket.assigneeId],
    team: (grouped.length > 0 ? grouped : members).map(({ personId }) => personId),
    approver: around.asks.filter(isOfTicket).map(({ askedId }) => askedId),
    lead: members.filter(({ role }) => role === 'lead').map(({ personId }) => personId),
    mentioned: factsOfEntry(entry).mentioned ?? factsOfEntry(entry).personIds ?? [],
    isAwaitingApproval: isAwaiting(entry, ticket),
  };
}

/** Another door by which people are told, of what concerns them. */
export type Teller = (
  work: UnitOfWork,
  told: (Told & { ticket: TicketRecord })[],
  known: LookUp,
) => Promise<void>;

/** Tells people, in the application and by other doors, what concerns them. */
export const createTellingConsumer = (tellers: Teller[]): Consumer => ({
  name: 'telling',
  hears: ({ ticketNumber, type }) => ticketNumber !== null && toldOf(type) !== null,
  async handle(listo, told, tx) {
    const around = await readSurroundings(
      { listo, tx },
      [...new Set(told.map(({ ticketNumber }) => ticketNumber!))],
      told.flatMap((entry) => stepTeamOf(entry) ?? []),
    );
    const others: (Told & { ticket: TicketRecord })[] = [];
    const rows = told.flatMap((entry) => {
      const ticket = around.tickets.find(({ number }) => number === entry.ticketNumber);
      if (!ticket) return [];
      const parties = narrowed(entry, partiesOf(entry, ticket, around), around);
      // Who is called by name hears of it so, and not once more as what else they are.
      const calledIds = new Set(parties.mentioned);
      return eventsOf(entry, ticket).flatMap((event) =>
        whoIsTold(event, parties, entry.actorId, event === 'mentioned' ? undefined : readersOf(entry))
          .filter(({ personId, as }) => as === 'mentioned' || !calledIds.has(personId))
          .map(({ personId, as }) => {
            others.push({ personId, event, relation: as, entry, ticket });
            return {
              personId,
              ticketNumber: ticket.number,
              noticeId: null,
              journalId: entry.id,
              event,
              relation: as,
              at: entry.at,
              words: ownWordsOf(entry),
              readAt: null,
            };
          }),
      );
    });
    await listo.db.tables.notifications.insertAll(rows, tx);
    const known = lookUp(listo, tx);
    for (const tell of tellers) await tell({ listo, tx }, others, known);
  },
});
