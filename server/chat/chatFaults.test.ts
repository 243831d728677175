import { nanoid } from 'nanoid';
import type { ChatEvent, RoomsHome } from '../../contract/rooms';
import { sign } from '../http/signing';
import { startChatTest, textsOf, type ChatTest } from '../testing/chat';
import { until } from '../testing/harness';

/** What must hold when the chat is away, slow, out of order or not to be trusted. */
let chat: ChatTest;
beforeAll(async () => {
  chat = await startChatTest('chatfaults');
});
afterAll(() => chat.end());
afterEach(() => chat.setMode('open'));

test('a card acted on by someone without the right changes nothing and says so', async () => {
  const number = await chat.fromPortal('Kiosk 6 frozen');
  const rui = await chat.rooms('rui');
  const card = await rui.sees('onboard', (message) => message.card?.number === number);
  const event: ChatEvent = {
    ...{
      id: nanoid(),
      roomId: 'elsewhere',
      roomKind: 'open',
      seq: 1,
      at: chat.app.clock.now(),
      byId: 'c-sofia',
      type: 'action',
    },
    ...{
      action: 'take',
      messages: [{ id: card.id, threadId: null, byId: null, at: 0, text: '', files: [] }],
    },
  };
  expect(await chat.send(event)).toBe(200);
  await until(
    () => chat.app.listo.db.tables.chatIn.findOne({ id: event.id }),
    (row) => row?.outcome === 'refused',
  );
  expect((await chat.ticketOf(number, 'rui')).assignee).toBeNull();
});

test.each([
  ['a button', 'explode', undefined],
  ['a form', undefined, { do: 'explode' }],
])(
  'a command that there is not, by %s, is refused and never reported as done',
  async (_, action, callback) => {
    const number = await chat.fromPortal('Kiosk 8 frozen');
    const rui = await chat.rooms('rui');
    const card = await rui.sees('onboard', (message) => message.card?.number === number);
    const event: ChatEvent = {
      ...{
        id: nanoid(),
        roomId: `none-${action ?? 'form'}`,
        roomKind: 'open',
        seq: 1,
        at: chat.app.clock.now(),
      },
      ...{ byId: 'c-rui', type: action ? 'action' : 'form' },
      ...(action && {
        action,
        messages: [{ id: card.id, threadId: null, byId: null, at: 0, text: '', files: [] }],
      }),
      ...(callback && { callback: { ...callback, number }, values: {} }),
    };
    expect(await chat.send(event)).toBe(200);
    const handled = await until(
      () => chat.app.listo.db.tables.chatIn.findOne({ id: event.id }),
      (row) => row?.state === 'handled',
    );
    expect(handled).toMatchObject({ outcome: 'refused', detail: 'moveNotAllowed' });
  },
);

test('forged and replayed requests are refused, both ways', async () => {
  const event = (more: Partial<ChatEvent> = {}): ChatEvent => ({
    ...{ id: nanoid(), roomId: 'forged', roomKind: 'open', seq: 1, at: 0, byId: 'c-tomas', type: 'message' },
    message: { id: nanoid(), threadId: null, byId: 'c-tomas', at: 0, text: 'Listo, let me in', files: [] },
    ...more,
  });
  expect(await chat.send(event(), `whsec_${Buffer.alloc(24, 7).toString('base64')}`)).toBe(401);
  expect(await chat.send(event(), undefined, new Date(Date.now() - 6 * 60_000))).toBe(401);
  const before = await chat.latest();
  const again = event();
  expect(await chat.send(again)).toBe(200);
  expect(await chat.send(again)).toBe(200);
  await until(chat.latest, (number) => number === before + 1);
  expect(await chat.send(event({ seq: 1 }))).toBe(200);
  await until(
    () => chat.app.listo.db.tables.chatIn.find({ roomId: 'forged', state: 'handled' }),
    (rows) => rows.length === 2,
  );
  expect(await chat.latest()).toBe(before + 1);
  const bare = await fetch(`${chat.app.url}/stand-in/rooms/bot/post`, { method: 'POST', body: '{}' });
  expect(bare.status).toBe(401);
});

test('out of order, twice and late by an hour: each once, in order, and the delay is on record', async () => {
  const tomas = await chat.rooms('tomas');
  const number = await chat.fromPortal('Kiosk 7 frozen');
  await chat.write('rui', number, 'Yes?', 'requester');
  const talk = await tomas.listoRoom();
  const root = await tomas.sees(talk, ({ card }) => card?.number === number);
  const at = chat.app.clock.now() - 3_600_000;
  const events = [1, 2, 3, 4].map((seq): ChatEvent => ({
    ...{
      id: `late-event-${seq}`,
      roomId: 'late',
      roomKind: 'listo',
      seq,
      at,
      byId: 'c-tomas',
      type: 'message',
    },
    message: { id: `late-${seq}`, threadId: root.id, byId: 'c-tomas', at, text: `Part ${seq}`, files: [] },
  }));
  for (const i of [2, 0, 2, 3, 1, 0]) await chat.send(events[i]!);
  const ticket = await until(
    () => chat.ticketOf(number, 'tomas'),
    (seen) => textsOf(seen).includes('Part 4'),
  );
  expect(textsOf(ticket).filter((text) => text.startsWith('Part'))).toEqual([
    'Part 1',
    'Part 2',
    'Part 3',
    'Part 4',
  ]);
  expect(ticket.entries.find(({ message }) => message?.text === 'Part 1')!.data).toMatchObject({
    saidAt: at,
  });
});

test('a person whom the directory does not know is told so, and nothing is made', async () => {
  const before = await chat.latest();
  const event: ChatEvent = {
    ...{ id: nanoid(), roomId: 'alder', roomKind: 'open', seq: 1, at: 0, byId: 'c-visitor', type: 'message' },
    message: {
      id: nanoid(),
      threadId: null,
      byId: 'c-visitor',
      at: 0,
      text: 'Listo, where is the pilot ladder',
      files: [],
    },
  };
  await chat.send({ ...event, roomId: 'visitors' });
  await until(
    () => chat.app.listo.db.tables.chatIn.findOne({ id: event.id }),
    (row) => row?.outcome === 'unknownPerson',
  );
  expect(await chat.latest()).toBe(before);
});

test('a team’s room takes agents alone: refused while connecting, and stopped when one joins', async () => {
  const rui = await chat.app.as('helder');
  const body = { job: 'team', teamId: 'onboard', serviceId: null, isEach: false, language: 'en', version: 0 };
  expect((await rui.call('PUT', '/chat/rooms/gannet', body)).status).toBe(409);
  expect((await rui.call('PUT', '/chat/rooms/weather', body)).status).toBe(422);
  expect((await (await chat.app.as('tomas')).call('PUT', '/chat/rooms/gannet', body)).status).toBe(403);
  const hanna = await chat.rooms('hanna');
  const answer = await hanna.call('POST', '/', {
    name: 'Second room',
    kind: 'closed',
  });
  const made = answer.body as { id: string };
  expect((await rui.call('PUT', `/chat/rooms/${made.id}`, body)).status).toBe(200);
  const first = await chat.fromPortal('Before');
  await hanna.sees(made.id, ({ card }) => card?.number === first);
  await hanna.call('POST', `/rooms/${made.id}/members`, { personId: 'c-tomas' });
  // Whatever is looked at first, nothing of the team's is written there any more.
  const second = await chat.fromPortal('After');
  await hanna.sees(made.id, ({ text }) => text.startsWith('Tomás Veiga is here now'));
  await (await chat.rooms('rui')).sees('onboard', ({ card }) => card?.number === second);
  await until(
    () => chat.app.listo.db.tables.chatOut.find({ ticketNumber: second, roomId: made.id, state: 'waiting' }),
    (rows) => rows.length === 0,
  );
  expect((await hanna.read(made.id)).some(({ card }) => card?.number === second)).toBe(false);
});

test.each(['shut', 'broken'] as const)(
  'the chat is %s for a while: all is said later, once',
  async (fault) => {
    chat.setMode(fault);
    const number = await chat.fromPortal(`While ${fault}`);
    await until(
      () => chat.app.listo.db.tables.chatOut.find({ ticketNumber: number, kind: 'card' }),
      (rows) => (rows[0]?.tries ?? 0) > 0,
    );
    chat.setMode('open');
    chat.app.clock.pass(60_000);
    const rui = await chat.rooms('rui');
    await rui.sees('onboard', ({ card }) => card?.number === number);
    expect((await rui.read('onboard')).filter(({ card }) => card?.number === number)).toHaveLength(1);
  },
);

test('fifty messages in a moment in one room: each heard once, in order', async () => {
  const tomas = await chat.rooms('tomas');
  const talk = await tomas.listoRoom();
  const number = await chat.fromPortal('Kiosk 8 frozen');
  await chat.write('rui', number, 'Tell me all', 'requester');
  const root = await tomas.sees(talk, ({ card }) => card?.number === number);
  for (let i = 0; i < 50; i++) await tomas.say(talk, `Line ${i}`, root.id);
  const ticket = await until(
    () => chat.ticketOf(number, 'tomas'),
    (seen) => textsOf(seen).includes('Line 49'),
  );
  expect(textsOf(ticket).filter((text) => text.startsWith('Line'))).toEqual(
    Array.from({ length: 50 }, (_, i) => `Line ${i}`),
  );
});

test('first words to someone, said at once, all come into one room', async () => {
  const { db } = chat.app.listo;
  const [person] = await db.select<{ id: string }>(
    "SELECT id FROM room_people WHERE NOT EXISTS (SELECT 1 FROM rooms WHERE pair = CONCAT(room_people.id, ' listo')) LIMIT 1",
  );
  const { value: secret } = (await db.tables.settings.findOne({ name: 'chatSecret' }))!;
  const say = async (text: string) => {
    const body = JSON.stringify({ key: nanoid(), personId: person!.id, text });
    const headers = {
      ...sign(secret as string, { id: nanoid(), body }, new Date()),
      'Content-Type': 'application/json',
    };
    const answer = await fetch(`${chat.app.url}/stand-in/rooms/bot/post`, { method: 'POST', headers, body });
    return (await answer.json()) as { roomId: string };
  };
  const said = await Promise.all(['one', 'two', 'three', 'four'].map(say));
  expect(new Set(said.map(({ roomId }) => roomId))).toEqual(new Set([said[0]!.roomId]));
  expect(said[0]!.roomId).toBeTruthy();
  expect(await db.tables.roomMessages.find({ roomId: said[0]!.roomId })).toHaveLength(4);
});

test('a hundred thousand characters from another chat become a ticket, whole as a file', async () => {
  const text = `Listo, the log of the gate says ${'x'.repeat(100_000)}`;
  const [id, at, byId] = [nanoid(), chat.app.clock.now(), 'c-tomas'];
  const message = { id: nanoid(), threadId: null, byId, at, text, files: [] };
  const before = await chat.latest();
  expect(
    await chat.send({ id, roomId: 'far', roomKind: 'open', seq: 1, at, byId, type: 'message', message }),
  ).toBe(200);
  await until(chat.latest, (number) => number > before);
  const ticket = await chat.ticketOf(before + 1, 'tomas');
  expect(ticket.title.length).toBeLessThan(200);
  const [file] = await chat.app.listo.db.tables.files.find({ ticketNumber: ticket.number });
  expect(file!.size).toBe(text.length);
});

test('a room that waits for what is missing holds no other up', async () => {
  const { db } = chat.app.listo;
  const event = (roomId: string, seq: number): ChatEvent => ({
    ...{ id: nanoid(), roomId, roomKind: 'open', seq, at: 0, byId: 'c-tomas', type: 'message' },
    message: { id: nanoid(), threadId: null, byId: 'c-tomas', at: 0, text: 'hm', files: [] },
  });
  const receivedAt = chat.app.clock.now();
  await db.tables.chatIn.insertAll(
    Array.from({ length: 320 }, (_, i) => {
      const body = event('a-gap', i + 2);
      return {
        ...{ id: body.id, roomId: 'a-gap', seq: body.seq, receivedAt, body },
        ...{ state: 'waiting' as const, tries: 0, outcome: null, detail: null, ticketNumber: null },
      };
    }),
  );
  const other = event('b-free', 1);
  await chat.send(other);
  await until(
    () => db.tables.chatIn.findOne({ id: other.id }),
    (row) => row?.outcome === 'heard',
  );
  expect(await db.tables.chatIn.find({ roomId: 'a-gap', state: 'handled' })).toEqual([]);
});

test('the chat opened twice at the same moment is the same one', async () => {
  const ines = await chat.rooms('ines');
  const homes = await Promise.all(Array.from({ length: 6 }, () => ines.call('GET', '/')));
  expect(homes.map(({ status }) => status)).toEqual(Array.from({ length: 6 }, () => 200));
  const rooms = homes.flatMap(({ body }) => (body as RoomsHome).rooms.filter(({ kind }) => kind === 'listo'));
  expect(new Set(rooms.map(({ id }) => id)).size).toBe(1);
});
