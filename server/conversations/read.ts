import type { api } from '../../contract';
import type { AnswerOf } from '../../contract/endpoint';
import type {
  PastConversation,
  Conversation,
  ConversationEntry,
  ConversationShort,
  LineCard,
} from '../../contract/conversations';
import { mayComeBack, whoWaits } from '../../core/conversations';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';
import type { SignedIn } from '../sessions/viewer';
import { visibleTo } from '../tickets/visibility';
import { fileIdsOf } from './files';
import { requireConversation, type Guarded } from './guard';
import type { OfferFact } from '../../contract/talkNames';
import type { ChatLineRow, ConversationRow } from './model';
import { readHours, readLineNow, waitBehind } from './waits';
import { hasOwn } from '../../core/records';
import { hiddenFrom } from '../tickets/hidden';
import type { Viewing } from '../unitOfWork';

const BEFORE = 5;
const OPEN_TICKETS = 8;
const AT_DESK = 60;
const AT_ONCE = { mean: 0, most: 0 };

export async function listLines(listo: Listo): Promise<LineCard[]> {
  const lines = await listo.db.tables.chatLines.find({ isOn: true }, { order: ['position'] });
  return Promise.all(
    lines.map(async (line) => {
      const [now, hours] = await Promise.all([readLineNow(listo, line), readHours(listo, line)]);
      const { id, name, about, closedWords, serviceId } = line;
      return {
        ...{ id, name, about, closedWords, serviceId, ...hours, waiting: now.waiting },
        wait: hours.isOpen ? waitBehind(now, now.waiting) : null,
      };
    }),
  );
}

async function readEntries(listo: Listo, { conversation, side }: Guarded): Promise<ConversationEntry[]> {
  const { tables } = listo.db;
  const rows = await tables.conversationEntries.find(
    { conversationId: conversation.id, ...(side === 'person' && { readBy: 'all' as const }) },
    { order: ['place'] },
  );
  const people = await readPeople(
    listo,
    rows.map(({ authorId }) => authorId),
  );
  const files = await tables.files.find({ conversationId: conversation.id });
  return rows.map(({ place, at, authorId, type, readBy, text, data }) => ({
    ...{ place, at, type, readBy, text, data },
    author: authorId === null ? null : (people.get(authorId) ?? null),
    files: files
      .filter(({ id }) => fileIdsOf({ data }).includes(id))
      .map((file) => ({ id: file.id, name: file.name, type: file.type, size: file.size })),
  }));
}

type TicketShort = { number: number; title: string; state: string };

/** So long after its end one can come back to a conversation, in ms. */
const COMES_BACK_MS = 86_400_000;

/** Someone's conversation that is under way, or the last that they can come back to, with how much was said to them. */
export async function readMine(
  { db, clock }: Listo,
  personId: string,
): Promise<AnswerOf<typeof api.conversations.mine>> {
  const [row] = await db.select<{ id: string; agent: string | null; said: number | string }>(
    `SELECT c.id, p.name AS agent,
       (SELECT COUNT(*) FROM conversation_entries e WHERE e.conversationId = c.id AND e.type = 'words' AND e.readBy = 'all' AND e.authorId <> c.personId) AS said
     FROM conversations c LEFT JOIN people p ON p.id = c.agentId
     WHERE c.personId = :personId AND (c.state <> 'ended' OR (c.endedAt > :since AND c.rating IS NULL))
     ORDER BY c.state = 'ended', c.startedAt DESC LIMIT 1`,
    { personId, since: clock.now() - COMES_BACK_MS },
  );
  const [line] = await db.tables.chatLines.find({ isOn: true }, { limit: 1 });
  return {
    id: row?.id ?? null,
    agent: row?.agent ?? null,
    said: Number(row?.said ?? 0),
    hasLines: line !== undefined,
  };
}

/** The last conversations that someone had, as far as an agent may read them; without the one that is open. */
export async function readBefore(
  { listo: { db }, viewer }: Viewing,
  personId: string,
  openId = '',
): Promise<PastConversation[]> {
  const teamIds = viewer.teams.map(({ teamId }) => teamId);
  return db.select<PastConversation>(
    `SELECT c.id, c.startedAt AS at, c.ticketNumber, c.rating, LEFT((SELECT e.text FROM conversation_entries e WHERE e.conversationId = c.id ORDER BY e.place LIMIT 1), 120) AS words
     FROM conversations c JOIN chat_lines l ON l.id = c.lineId JOIN teams tm ON tm.id = l.teamId
     WHERE c.personId = :personId AND c.id <> :openId AND (tm.isConfidential = 0 OR tm.id IN (:teamIds)) ORDER BY c.startedAt DESC LIMIT ${BEFORE}`,
    { personId, openId, teamIds: [...teamIds, ''] },
  );
}

async function readSide(
  listo: Listo,
  viewer: SignedIn,
  conversation: ConversationRow,
): Promise<NonNullable<Conversation['side']>> {
  const { select } = listo.db;
  const { personId, agentId, offeredTo, handedBy, handedWhy, assetTag, invitedIds } = conversation;
  const people = await readPeople(listo, [handedBy, ...invitedIds]);
  const { sql, values } = visibleTo(viewer);
  const openTickets = await select<TicketShort>(
    `SELECT t.number, t.title, t.state FROM tickets t WHERE t.requesterId = :personId AND t.state IN ('received', 'inWork', 'held') AND ${sql}
     ORDER BY t.number DESC LIMIT ${OPEN_TICKETS}`,
    { ...values, personId },
  );
  const before = await readBefore({ listo, viewer }, personId, conversation.id);
  return {
    ...{ isMine: agentId === viewer.id, isOfferedToMe: offeredTo === viewer.id, handedWhy, assetTag },
    handedBy: handedBy === null ? null : (people.get(handedBy)?.name ?? null),
    invited: invitedIds.flatMap((id) => people.get(id) ?? []),
    ...{ openTickets, before },
  };
}

export async function readConversation(listo: Listo, viewer: SignedIn, id: string): Promise<Conversation> {
  const found = await requireConversation({ listo, viewer }, id);
  const { conversation, line, side } = found;
  const { select, tables } = listo.db;
  const { personId, agentId, state, ticketNumber, lineAt } = conversation;
  const people = await readPeople(listo, [personId, agentId]);
  const isWaiting = state === 'waiting' || (state === 'offered' && agentId === null);
  const [row] =
    state === 'waiting'
      ? await select<{ ahead: number }>(
          "SELECT COUNT(*) AS ahead FROM conversations WHERE lineId = :lineId AND state = 'waiting' AND (lineAt, id) < (:lineAt, :id)",
          { lineId: line.id, lineAt, id },
        )
      : [{ ahead: 0 }];
  const ticket = ticketNumber === null ? null : await tables.tickets.findOne({ number: ticketNumber });
  const now = listo.clock.now();
  return {
    ...{ id, state: state === 'offered' && side === 'person' ? 'waiting' : state },
    person: people.get(personId)!,
    line: { id: line.id, name: line.name, serviceId: line.serviceId },
    agent: agentId === null ? null : (people.get(agentId) ?? null),
    startedAt: conversation.startedAt,
    endedAt: conversation.endedAt,
    endedBy: conversation.endedBy,
    ahead: row!.ahead,
    // Who is being offered to someone stands in no line any more.
    wait:
      state === 'waiting'
        ? waitBehind(await readLineNow(listo, line), row!.ahead)
        : isWaiting
          ? AT_ONCE
          : null,
    whoWaits: whoWaits(conversation),
    mayComeBack: state === 'ended' && mayComeBack(conversation.endedAt, now),
    rating: conversation.rating,
    ticket:
      ticket && !(await hiddenFrom(listo, viewer, [ticket.number]))(ticket.number)
        ? { number: ticket.number, title: ticket.title, state: ticket.state }
        : null,
    entries: await readEntries(listo, found),
    side: side === 'agent' ? await readSide(listo, viewer, conversation) : null,
    version: conversation.version,
  };
}

type DeskRow = ConversationRow & {
  line: ChatLineRow['name'];
  shownFacts: OfferFact[];
  offerSeconds: number;
  agent: string | null;
  handedByName: string | null;
  lastWords: string | null;
  title: string;
  site: string;
  personPlace: string | null;
  device: string | null;
  vessel: string | null;
  openTickets: number;
};

function factsOf(row: DeskRow, goesFirst: boolean): Record<string, string> {
  const all: Record<OfferFact, string | null> = {
    ...{ title: row.title, site: row.site, place: row.personPlace, device: row.device, vessel: row.vessel },
    openTickets: row.openTickets > 0 ? String(row.openTickets) : null,
    goesFirst: goesFirst ? '✓' : null,
  };
  return Object.fromEntries(
    row.shownFacts.flatMap((fact) => (hasOwn(all, fact) && all[fact] ? [[fact, all[fact]]] : [])),
  );
}

/** What an agent has to do with now: offered, theirs, and waiting in the lines of their teams; who waits longest first. */
export async function readAtDesk(
  listo: Listo,
  viewer: SignedIn,
): Promise<AnswerOf<typeof api.conversations.atDesk>> {
  const { select, tables } = listo.db;
  const teamIds = viewer.teams.map(({ teamId }) => teamId);
  const rows = await select<DeskRow>(
    `SELECT c.*, l.name AS line, l.facts AS shownFacts, l.offerSeconds, a.name AS agent, h.name AS handedByName, p.title, s.name AS site, p.place AS personPlace, p.device, p.vessel,
       (SELECT COUNT(*) FROM tickets t WHERE t.requesterId = c.personId AND t.isConfidential = 0 AND t.teamId NOT IN (:closed) AND t.state IN ('received', 'inWork', 'held')) AS openTickets,
       (SELECT LEFT(e.text, 160) FROM conversation_entries e WHERE e.conversationId = c.id AND e.type = 'words' AND e.readBy = 'all' ORDER BY e.place DESC LIMIT 1) AS lastWords
     FROM conversations c JOIN chat_lines l ON l.id = c.lineId JOIN people p ON p.id = c.personId JOIN sites s ON s.id = p.siteId
     LEFT JOIN people a ON a.id = c.agentId LEFT JOIN people h ON h.id = c.handedBy
     WHERE c.state <> 'ended' AND (c.agentId = :me OR c.offeredTo = :me OR JSON_CONTAINS(c.invitedIds, JSON_QUOTE(:me))
       OR (l.teamId IN (:teamIds) AND c.agentId IS NULL)) ORDER BY c.lineAt LIMIT ${AT_DESK}`,
    { me: viewer.id, teamIds: [...teamIds, ''], closed: [...(viewer.closedTeamIds ?? []), ''] },
  );
  const people = await readPeople(
    listo,
    rows.map(({ personId }) => personId),
  );
  const known = await tables.chatAgents.findOne({ personId: viewer.id });
  const shown = rows.map((row): ConversationShort => {
    const person = people.get(row.personId)!;
    const isOfferedToMe = row.offeredTo === viewer.id;
    return {
      ...{ id: row.id, state: row.state, person, line: row.line, agent: row.agent, isOfferedToMe },
      isMine: row.agentId === viewer.id,
      offeredUntil: isOfferedToMe && row.offeredAt !== null ? row.offeredAt + row.offerSeconds * 1_000 : null,
      handedBy: row.handedByName,
      since: row.lineAt,
      whoWaits: whoWaits(row),
      lastWords: row.lastWords ?? '',
      facts: factsOf(row, person.goesFirst),
    };
  });
  return {
    agent: {
      presence: known?.presence ?? 'away',
      capacity: known?.capacity ?? 3,
      alert: known?.alert ?? 'sound',
    },
    rows: shown,
  };
}
