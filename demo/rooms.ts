import { composeCard } from '../server/chat/compose';
import { CHAT_SETTING, USUAL_CHAT } from '../server/chat/settings';
import type { Listo } from '../server/listo';
import type { PersonRow } from '../server/people/model';
import type { RoomMessageRow, RoomRow } from '../server/standIns/rooms/model';
import type { TicketRecord } from '../server/tickets/model';

const MINUTE = 60_000;
const chatIdOf = (personId: string): string => `c-${personId}`;

/** Everyone has an account in the workplace chat; one works ashore with it and has none here. */
export function createRoomPeople(people: PersonRow[]) {
  return [
    ...people.map(({ id, name, email }) => ({
      ...{ id: chatIdOf(id), handle: id.slice(0, 60), name, email, personId: id },
    })),
    {
      ...{ id: 'c-visitor', handle: 'visitor', name: 'Jonas Ek (harbour pilot)', personId: null },
      email: 'jonas@pilots.example',
    },
  ];
}

type Spec = [id: string, name: string, kind: 'open' | 'closed', topic: string, members: string[]];
const SPECS: Spec[] = [
  [
    'alder',
    'Port Alder',
    'open',
    'all who work at the terminal',
    ['tomas', 'ana', 'lena', 'bia', 'rui', 'helder'],
  ],
  ['ombra', 'Santa Ombra', 'open', 'all who work at the terminal', ['lena', 'graca', 'bia', 'rui', 'hanna']],
  [
    'desk',
    'Ask the desk',
    'open',
    'say what is wrong: it becomes a ticket',
    ['tomas', 'lena', 'bia', 'helge'],
  ],
  ['onboard', 'Onboard systems', 'closed', "the team's own room: new tickets are written up here", []],
  ['weather', 'Harbour weather', 'open', 'wind, swell, and who is late', ['aro', 'tomas', 'lena', 'duarte']],
  ['gannet', 'Crew, MV Gannet', 'closed', 'watches and stores', ['aro', 'tomas']],
];

type Said = [roomId: string, minutesAgo: number, personId: string, text: string];
const SAID: Said[] = [
  ['weather', 330, 'aro', 'Swell 2.4 m off Cape Lorne until noon, we take the inner route'],
  ['weather', 320, 'lena', 'Ombra has it calm, 20 minutes late on the 08:10'],
  ['weather', 95, 'duarte', 'wind turning NW, gate 2 at Quell closes at gusts over 60'],
  ['gannet', 200, 'aro', 'Bridge tablet two is back from the dockyard, charge it before watch'],
  ['gannet', 190, 'tomas', 'on the charger'],
  ['alder', 140, 'ana', 'School holidays start tomorrow: three extra queues from 07:00'],
  ['alder', 120, 'tomas', 'kiosks 1 to 4 have fresh rolls, 5 is empty'],
  ['alder', 41, 'lena', 'gate 4 at Quell just went dark too, can someone look'],
  ['alder', 38, 'rui', 'same reader model. that makes three this morning'],
  [
    'ombra',
    75,
    'graca',
    'The ticket printer at window 2 prints everything twice. Can someone have a look? Thanks',
  ],
  ['ombra', 60, 'lena', 'it did that last week as well, off and on again helped for a day'],
  ['onboard', 35, 'duarte', 'I have the reader from gate 2 on the bench, firmware is the same on both'],
  ['onboard', 22, 'hanna', 'then it is the cable run behind the pillar again'],
];

const emptyMessage = { card: null, actions: [], files: [], forId: null, editedAt: null, deletedAt: null };

/** The rooms of the workplace chat, what was said there today, and what Listo does in them. */
export async function loadRooms(listo: Listo, people: PersonRow[]): Promise<void> {
  const { tables, select } = listo.db;
  const now = listo.clock.now();
  await tables.roomPeople.insertAll(createRoomPeople(people));
  const team = await tables.members.find({ teamId: 'onboard' });
  const rooms = SPECS.map(([id, name, kind, topic]): RoomRow => ({
    ...{ id, name, topic, kind, pair: null, hasListo: ['desk', 'onboard'].includes(id), toldSeq: 0 },
    createdAt: now - 90 * 24 * 60 * MINUTE,
  }));
  await tables.rooms.insertAll(rooms);
  const known = new Set(people.map(({ id }) => id));
  await tables.roomMembers.insertAll(
    SPECS.flatMap(([roomId, , , , named]) =>
      (roomId === 'onboard' ? team.map(({ personId }) => personId) : named)
        .filter((id) => known.has(id))
        .map((id) => ({ roomId, personId: chatIdOf(id), joinedAt: now - MINUTE, readPlace: 0 })),
    ),
  );
  const messages = SAID.filter(([, , personId]) => known.has(personId)).map(
    ([roomId, minutes, personId, text], i): Omit<RoomMessageRow, 'place'> => ({
      ...{
        id: `demo-${i}`,
        roomId,
        threadId: null,
        byId: chatIdOf(personId),
        at: now - minutes * MINUTE,
        text,
      },
      ...{ ...emptyMessage, replies: 0, lastReplyAt: null },
    }),
  );
  const formServiceIds = ['bridge-tablet', 'roster', 'access'];
  await tables.settings.insert({ name: CHAT_SETTING, value: { ...USUAL_CHAT, formServiceIds } });
  const service = await tables.services.findOne({ id: 'other' });
  const common = { isEach: false, language: 'en' as const, state: 'on' as const, reason: null, version: 1 };
  await tables.chatRooms.insertAll([
    {
      ...common,
      roomId: 'onboard',
      name: 'Onboard systems',
      job: 'team',
      teamId: 'onboard',
      serviceId: null,
    },
    {
      ...{ ...common, isEach: true, roomId: 'desk', name: 'Ask the desk', job: 'ask', teamId: null },
      serviceId: service ? 'other' : null,
    },
  ]);
  // Its latest tickets stand in the team's room as they came.
  const tickets = await select<TicketRecord>(
    "SELECT * FROM tickets WHERE teamId = 'onboard' AND state IN ('received', 'inWork') ORDER BY number DESC LIMIT 2",
  );
  for (const [i, ticket] of tickets.reverse().entries()) {
    const card = await composeCard(listo, ticket, { role: 'card', language: 'en' });
    const id = `demo-card-${i}`;
    messages.push({
      ...{ id, roomId: 'onboard', threadId: null, byId: null, at: now - (70 - i * 40) * MINUTE, text: '' },
      ...{ ...emptyMessage, card, replies: 0, lastReplyAt: null },
    });
    await tables.chatMarks.insert({
      ...{
        messageId: id,
        roomId: 'onboard',
        ticketNumber: ticket.number,
        role: 'card',
        personId: null,
        wordsId: null,
        place: 0,
      },
    });
    await tables.chatOut.insert({
      ...{
        id,
        at: now,
        kind: 'card',
        ticketNumber: ticket.number,
        roomId: 'onboard',
        personId: null,
        tries: 1,
      },
      ...{ body: { do: 'card' }, state: 'sent', nextAt: now, sentAt: now, error: null },
    });
  }
  await tables.roomMessages.insertAll(messages.sort((a, b) => a.at - b.at));
}
