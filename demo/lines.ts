import type { ConversationHappened } from '../core/conversations';
import type {
  ChatAgentRow,
  ChatLineRow,
  ConversationEntryRow,
  ConversationRow,
} from '../server/conversations/model';
import type { Listo } from '../server/listo';
import type { Random } from './random';

/** The lines in which one waits for a person. */
export function createLines(): ChatLineRow[] {
  const usual = {
    ...{ skill: null, offerSeconds: 30, askAfter: 5, endAfter: 10, isOn: true, version: 1 },
    facts: ['title', 'site', 'place', 'openTickets', 'goesFirst'] as ChatLineRow['facts'],
  };
  return [
    {
      ...{ ...usual, id: 'desk', teamId: 'desk', serviceId: 'other', position: 1 },
      name: { en: 'Anything else', pt: 'Qualquer outra coisa' },
      about: {
        en: 'The service desk: passwords, programs, and who to ask',
        pt: 'O balcão: palavras-passe, programas, e a quem perguntar',
      },
      closedWords: {
        en: 'The desk is at work again later. Write a ticket, or ask the assistant.',
        pt: 'O balcão volta mais tarde. Faça um pedido, ou pergunte ao assistente.',
      },
    },
    {
      ...{ ...usual, id: 'gates', teamId: 'onboard', serviceId: 'kiosk', position: 0 },
      facts: ['site', 'place', 'device', 'vessel', 'openTickets', 'goesFirst'],
      name: { en: 'Gates, kiosks and on board', pt: 'Portas, quiosques e a bordo' },
      about: { en: 'Something stands still and people wait', pt: 'Algo parou e há gente à espera' },
      closedWords: {
        en: 'Nobody is there now. A ticket that stops work is seen first in the morning.',
        pt: 'Agora não está ninguém. Um pedido que para o trabalho é o primeiro de manhã.',
      },
    },
  ];
}

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;
const OPENINGS = [
  'The kiosk takes cards and gives no ticket',
  'I cannot sign in since this morning',
  'Gate 2 stays open',
  'Where do I order a second screen?',
  'The roster shows me on two ships',
  'The printer at window 2 prints twice',
];

/** Conversations of the last two weeks, so that waits and handling times can be said. */
export async function loadConversations(listo: Listo, random: Random, askers: string[]): Promise<void> {
  const { tables } = listo.db;
  const now = listo.clock.now();
  const lines = createLines();
  await tables.chatLines.insertAll(lines);
  const members = await tables.members.find({ teamId: lines.map(({ teamId }) => teamId) });
  await tables.chatAgents.insertAll(
    [...new Set(members.map(({ personId }) => personId))].map((personId): ChatAgentRow => ({
      ...{ personId, presence: 'available', capacity: 3, alert: 'title', seenAt: 0, lastGivenAt: null },
    })),
  );
  const rows: ConversationRow[] = [];
  const entries: (ConversationHappened &
    Pick<ConversationEntryRow, 'id' | 'conversationId' | 'at' | 'authorId' | 'readBy' | 'text'>)[] = [];
  for (let i = 0; i < 90; i++) {
    const line = random.pick(lines);
    const agents = members.filter(({ teamId }) => teamId === line.teamId);
    const startedAt = now - Math.round(random.between(0.02, 13) * DAY);
    const waited = Math.round(random.between(0.2, 4) * MINUTE);
    const isLeft = random.chance(0.07);
    const takenAt = startedAt + waited;
    const endedAt = isLeft ? takenAt : takenAt + Math.round(random.between(2, 14) * MINUTE);
    if (endedAt > now) continue;
    const id = `c${i}`;
    const agentId = isLeft ? null : random.pick(agents).personId;
    const personId = random.pick(askers);
    rows.push({
      ...{
        id,
        personId,
        lineId: line.id,
        state: 'ended',
        agentId,
        offeredTo: null,
        offeredAt: null,
        passedOver: [],
      },
      ...{ handedBy: null, handedWhy: null, invitedIds: [], assetTag: null, startedAt, lineAt: startedAt },
      ...{
        firstTakenAt: isLeft ? null : takenAt,
        endedAt,
        endedBy: isLeft ? 'left' : random.pick(['person', 'agent', 'silence'] as const),
      },
      ...{
        personSaidAt: startedAt,
        agentSaidAt: isLeft ? null : takenAt,
        askedThereAt: null,
        ticketNumber: null,
      },
      ...{
        isMade: false,
        rating: isLeft || random.chance(0.4) ? null : Math.round(random.between(3, 5.4)),
        ratingWord: null,
        version: 1,
      },
    });
    const said = { conversationId: id, type: 'words' as const, readBy: 'all' as const, data: {} };
    entries.push({ ...said, id: `${id}a`, at: startedAt, authorId: personId, text: random.pick(OPENINGS) });
    if (agentId !== null)
      entries.push({
        ...said,
        id: `${id}b`,
        at: takenAt,
        authorId: agentId,
        text: 'Good day, I look at it now.',
      });
  }
  await tables.conversations.insertAll(rows);
  await tables.conversationEntries.insertAll(entries.sort((a, b) => a.at - b.at));
}
