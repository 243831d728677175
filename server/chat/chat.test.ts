import { nanoid } from 'nanoid';
import type { RoomInList, RoomsHome } from '../../contract/rooms';
import { KIOSK, startChatTest, textsOf, type ChatTest } from '../testing/chat';
import { until } from '../testing/harness';

/** Tickets made, worked on and decided from the workplace chat. */
let chat: ChatTest;
beforeAll(async () => {
  chat = await startChatTest('chat');
});
afterAll(() => chat.end());

test('people talk in rooms, in threads and directly; who is not in a closed room sees nothing of it', async () => {
  const [tomas, lena, ana] = await Promise.all(['tomas', 'lena', 'ana'].map(chat.rooms));
  const id = await tomas!.say('alder', 'The queue is at the gate');
  await lena!.say('alder', 'Thanks, coming', id);
  expect(await ana!.sees('alder', (message) => message.id === id)).toMatchObject({
    replies: 1,
    text: 'The queue is at the gate',
  });
  expect((await ana!.call('GET', '/rooms/gannet')).status).toBe(404);
  const answer = await tomas!.call('POST', '/directs', { personIds: ['c-lena'] });
  const body = answer.body as { id: string };
  await tomas!.say(body.id, 'just us');
  expect(await lena!.read(body.id)).toMatchObject([{ text: 'just us' }]);
  expect((await ana!.call('GET', `/rooms/${body.id}`)).status).toBe(404);
  expect((await ana!.call('GET', '/search?q=just%20us')).body).toEqual([]);
  // The same message twice is one.
  await tomas!.say(body.id, 'once', null, 'the-same-key');
  await tomas!.say(body.id, 'once', null, 'the-same-key');
  expect((await lena!.read(body.id)).filter(({ text }) => text === 'once')).toHaveLength(1);
  expect(
    (await tomas!.call('POST', '/rooms/alder/messages', { text: 'x'.repeat(100_000), key: nanoid() })).status,
  ).toBe(422);
});

test('who is called by name in an open room comes in, finds it marked, and has seen it once the room is read', async () => {
  const [tomas, ines] = await Promise.all(['tomas', 'ines'].map(chat.rooms));
  const roomOf = async (): Promise<RoomInList> => {
    const home = (await ines!.call('GET', '/')).body as RoomsHome;
    return home.rooms.find(({ name }) => name === 'Called room')!;
  };
  const made = await tomas!.call('POST', '/', { name: 'Called room', topic: '', kind: 'open' });
  const { id } = made.body as { id: string };
  await tomas!.say(id, 'Nobody in particular, but ines@solvarra.example knows');
  expect(await roomOf()).toMatchObject({ isMember: false, calls: 0 });
  const root = await tomas!.say(id, 'Can you look, @Ines?');
  expect(await roomOf()).toMatchObject({ isMember: true, unread: 1, calls: 1 });
  await tomas!.say(id, '@ines also here', root);
  await tomas!.say(id, '@ines-maria is someone else', root);
  expect(await roomOf()).toMatchObject({ unread: 1, calls: 2 });
  const { place } = (await ines!.read(id)).at(-1)!;
  await ines!.call('POST', `/rooms/${id}/read`, { place });
  expect(await roomOf()).toMatchObject({ unread: 0, calls: 0 });
});

test('a first message in the asking room becomes a ticket with a line that stays current, and its thread is the ticket’s', async () => {
  const [tomas, bia] = await Promise.all(['tomas', 'bia'].map(chat.rooms));
  const before = await chat.latest();
  const id = await tomas!.say('desk', 'Hi all, the ticket printer at window 2 prints twice. Thanks');
  const line = await tomas!.sees('desk', ({ card }) => card !== null && card.number > before);
  expect(line.card).toMatchObject({ title: 'The ticket printer at window 2 prints twice' });
  const { number } = line.card!;
  expect(await chat.ticketOf(number, 'tomas')).toMatchObject({ via: 'room', requester: { id: 'tomas' } });
  // Nothing is made twice of it.
  const marks = await chat.app.listo.db.tables.chatMarks.find({ ticketNumber: number, role: 'source' });
  expect(marks).toMatchObject([{ messageId: id }]);
  await tomas!.say('desk', 'It is the left one', line.id);
  await until(
    () => chat.ticketOf(number, 'tomas'),
    (seen) => textsOf(seen).includes('It is the left one'),
  );
  await chat.move('bia', number, 'take');
  await tomas!.sees('desk', ({ card }) => card?.number === number && card.facts.includes('in work'));
  // What the agent writes to the requester goes to them alone; others are in this room.
  await chat.write('bia', number, 'Secret of the team', 'team');
  await chat.write('bia', number, 'Your code is 4711', 'requester');
  const direct = await tomas!.listoRoom();
  const own = await tomas!.sees(direct, ({ card }) => card?.number === number);
  await tomas!.sees(direct, ({ text }) => text.includes('Your code is 4711'), own.id);
  // Where the one who answers chose it, everyone there reads it.
  const agent = await chat.app.as('bia');
  const body = { text: 'All kiosks are back', readBy: 'requester', isPublic: true };
  await agent.call('POST', `/tickets/${number}/messages`, body);
  await bia!.sees('desk', ({ text }) => text.includes('All kiosks are back'), line.id);
  const said = (await tomas!.read('desk', line.id)).map(({ text }) => text).join('\n');
  expect(said).not.toMatch(/Secret|4711/);
});

test('the team’s room: a card comes, is acted on, and its thread is the team’s', async () => {
  const [rui, hanna] = await Promise.all(['rui', 'hanna'].map(chat.rooms));
  const number = await chat.fromPortal('Kiosk 3 frozen');
  const card = await rui!.sees('onboard', (message) => message.card?.number === number);
  expect(card.card!.facts).toMatch(/Tomás Veiga .* P\d .* received · nobody has it yet/);
  expect(card.card!.dueAt).not.toBeNull();
  await rui!.act('take', card.id);
  await until(
    () => chat.ticketOf(number, 'rui'),
    ({ assignee }) => assignee?.id === 'rui',
  );
  await rui!.sees(
    'onboard',
    (message) => message.id === card.id && message.card!.facts.includes('in work · Rui Bastos'),
  );
  await hanna!.say('onboard', 'It is the cable again', card.id);
  const ticket = await until(
    () => chat.ticketOf(number, 'rui'),
    (seen) => textsOf(seen).includes('It is the cable again'),
  );
  expect(ticket.entries.find(({ message }) => message?.text === 'It is the cable again')).toMatchObject({
    type: 'noted',
    via: 'room',
    actor: { id: 'hanna' },
  });
  expect(textsOf(await chat.ticketOf(number, 'tomas'))).not.toContain('It is the cable again');
  // "Write …" begins with the team as its reader, as on the Desk.
  await rui!.act('write', card.id);
  const [opened] = await until(
    () => chat.app.listo.db.tables.roomChanges.find({ kind: 'form', forId: 'c-rui' }),
    (forms) => forms.length > 0,
  );
  const { fields } = opened!.body as { fields: { name: string; value: string }[] };
  expect(fields.find(({ name }) => name === 'readBy')).toMatchObject({ value: 'team' });
  // It is not said a second time where it came from.
  await chat.write('hanna', number, 'From the Desk', 'team');
  await rui!.sees('onboard', ({ text }) => text.includes('From the Desk'), card.id);
  expect((await rui!.read('onboard', card.id)).filter(({ text }) => text.includes('cable'))).toHaveLength(1);
});

test('what comes from a table has no card until someone does something about it', async () => {
  const rui = await chat.rooms('rui');
  const agent = await chat.app.as('rui');
  const form = new FormData();
  form.append('file', new Blob(['title\nKiosk from the old list']), 'old.csv');
  const { id } = (await agent.call('POST', '/imports', form)).body as { id: string };
  const mapping = {
    ...{ title: { column: 0 }, requester: { always: 'tomas' }, service: { always: 'kiosk' } },
  };
  await agent.call('POST', `/imports/${id}/start`, { mapping, names: { impact: {}, urgency: {} } });
  const { tickets } = chat.app.listo.db.tables;
  const ticket = await until(
    () => tickets.findOne({ title: 'Kiosk from the old list' }),
    (found) => found !== null,
  );
  // What comes after it has its card: the one before was passed over.
  const next = await chat.fromPortal('Kiosk 4 frozen');
  await rui.sees('onboard', ({ card }) => card?.number === next);
  expect((await rui.read('onboard')).some(({ card }) => card?.number === ticket!.number)).toBe(false);
  await chat.move('rui', ticket!.number, 'take');
  await rui.sees('onboard', ({ card }) => card?.number === ticket!.number);
});

test('the requester’s direct talk: told there, answers there, confirms there', async () => {
  const tomas = await chat.rooms('tomas');
  const number = await chat.fromPortal('Kiosk 5 frozen');
  await chat.move('rui', number, 'take', {});
  await chat.write('rui', number, 'Which lamp is on?', 'requester');
  const talk = await tomas.listoRoom();
  const root = await tomas.sees(talk, ({ card }) => card?.number === number);
  await tomas.sees(talk, ({ text }) => text === 'Rui Bastos: Which lamp is on?', root.id);
  await tomas.say(talk, 'The red one', root.id);
  const ticket = await until(
    () => chat.ticketOf(number, 'rui'),
    (seen) => textsOf(seen).includes('The red one'),
  );
  expect(ticket.entries.find(({ message }) => message?.text === 'The red one')).toMatchObject({
    via: 'directMessage',
    actor: { id: 'tomas' },
  });
  await chat.move('rui', number, 'finish', { solution: 'Reseated the cable' });
  await tomas.sees(talk, ({ text }) => text === 'It is done: Reseated the cable', root.id);
  const done = await tomas.sees(
    talk,
    ({ id, card }) => id === root.id && card!.actions.some(({ id: name }) => name === 'confirm'),
  );
  // How it was is asked with it.
  await tomas.act('confirm', done.id);
  const [asked] = await until(
    () => chat.app.listo.db.tables.roomChanges.find({ kind: 'form', forId: 'c-tomas' }),
    (found) => found.length > 0,
  );
  const { callback } = asked!.body as { callback: object };
  await tomas.call('POST', '/form', { roomId: talk, callback, values: { rating: '5', ratingWord: 'Quick' } });
  const closed = await until(
    () => chat.ticketOf(number, 'tomas'),
    ({ state }) => state === 'closed',
  );
  expect(closed).toMatchObject({ rating: 5, ratingWord: 'Quick' });
  // Someone else can do nothing from it.
  const lena = await chat.rooms('lena');
  expect((await lena.act('confirm', done.id)).status).toBe(404);
});

test('an approver decides in their direct talk', async () => {
  const ana = await chat.rooms('ana');
  const tomas = await chat.app.as('tomas');
  const body = {
    serviceId: 'gate-scanner',
    title: 'Scanner 7',
    answers: { site: 'Port Alder', sort: 'hand', count: 1 },
  };
  const { number } = (await tomas.call('POST', '/tickets', body)).body as { number: number };
  const talk = await ana.listoRoom();
  const ask = await ana.sees(
    talk,
    ({ text, actions }) => text.startsWith(`${number} ·`) && actions.length === 2,
  );
  expect(ask.text).toContain('€340.00');
  await ana.act('approve', ask.id);
  const ticket = await until(
    () => chat.ticketOf(number, 'tomas'),
    ({ state }) => state === 'received',
  );
  expect(ticket.entries.find(({ type }) => type === 'decided')).toMatchObject({
    via: 'directMessage',
    actor: { id: 'ana' },
  });
  // What was asked shows what became of it, and cannot be pressed any more.
  const over = await ana.sees(talk, ({ id, actions }) => id === ask.id && actions.length === 0);
  expect(over.text).toMatch(/^✓ Decided: yes, by Ana Lobo, in chat\./);
});

test('an agent makes a ticket of what someone said, from a form that guesses; it is made once', async () => {
  const [bia, lena] = await Promise.all(['bia', 'lena'].map(chat.rooms));
  const first = await lena!.say('alder', 'gate 4 at Quell went dark');
  const second = await lena!.say('alder', 'and gate 5 as well');
  await bia!.act('ticket', second, first);
  const change = await until(
    () => chat.app.listo.db.tables.roomChanges.find({ kind: 'form', forId: 'c-bia' }),
    (found) => found.length === 1,
  );
  const form = change[0]!.body as { fields: { name: string; value: string }[]; callback: object };
  const values = Object.fromEntries(form.fields.map(({ name, value }) => [name, value]));
  expect(values).toMatchObject({ title: 'Gate 4 at Quell went dark', requester: 'lena' });
  const before = await chat.latest();
  await bia!.call('POST', '/form', {
    roomId: 'alder',
    callback: form.callback,
    values: { ...values, service: 'other' },
  });
  const { card } = await lena!.sees('alder', (message) => (message.card?.number ?? 0) > before);
  const ticket = await chat.ticketOf(card!.number, 'bia');
  expect(ticket).toMatchObject({ requester: { id: 'lena' }, raisedBy: { id: 'bia' }, via: 'room' });
  expect(textsOf(ticket)).toContain('gate 4 at Quell went dark\nand gate 5 as well');
  // Its team finds the way back to the line; who asked knows it.
  expect(ticket.conversation).toEqual({
    room: 'Port Alder',
    link: `${chat.app.listo.address}/rooms/alder?line=${first}`,
  });
  expect((await chat.ticketOf(card!.number, 'lena')).conversation).toBeNull();
  // It is no answer of the team's.
  expect(ticket.clocks.find(({ measures }) => measures === 'firstAnswer')?.state ?? 'running').toBe(
    'running',
  );
  await bia!.act('ticket', first);
  await bia!.sees('alder', ({ forId, text }) => forId === 'c-bia' && text.startsWith('That is '));
  // What they reworded stands on the thread as such; what they said stays.
  await lena!.call('PUT', `/messages/${first}`, { text: 'gate 6 at Quell went dark' });
  const reworded = await until(
    () => chat.ticketOf(card!.number, 'bia'),
    ({ entries }) => entries.some(({ type }) => type === 'reworded'),
  );
  expect(textsOf(reworded)[0]).toContain('gate 4');
  // Others make no tickets of what is not theirs.
  const tomas = await chat.rooms('tomas');
  await tomas.act('ticket', second);
  await tomas.sees('alder', ({ forId, text }) => forId === 'c-tomas' && text.startsWith('Only agents'));
});

test('a message out: tried first, then sent when it happens', async () => {
  const helder = await chat.app.as('helder');
  const body = {
    name: 'P1 anywhere',
    event: 'reopened',
    teamId: null,
    roomId: 'weather',
    personId: null,
    words: '{priority} {title}: {titel}',
  };
  expect((await helder.call('POST', '/chat/notices', body)).status).toBe(422);
  const words = 'Again broken: {number} {title}';
  const { id } = (await helder.call('POST', '/chat/notices', { ...body, words })).body as { id: string };
  expect((await helder.call('PUT', `/chat/notices/${id}/state`, { isOn: true })).status).toBe(409);
  await helder.call('POST', `/chat/notices/${id}/trials`);
  const tomas = await chat.rooms('tomas');
  await tomas.sees('weather', ({ text }) => text.startsWith('(a trial;'));
  expect((await helder.call('PUT', `/chat/notices/${id}/state`, { isOn: true })).status).toBe(200);
  const number = await chat.fromPortal('Kiosk 12 frozen');
  for (const [name, by, who, input] of [
    ['finish', 'agent', 'rui', { solution: 'Done' }],
    ['reopen', 'requester', 'tomas', { stillBroken: 'No' }],
  ] as const) {
    const { version } = await chat.ticketOf(number, who);
    await (await chat.app.as(who)).call('POST', `/tickets/${number}/moves`, { name, by, version, input });
  }
  const said = await tomas.sees('weather', ({ text }) =>
    text.startsWith(`Again broken: ${number} Kiosk 12 frozen`),
  );
  // Whoever reads there opens it where those who ask do.
  expect(said.text).toContain(`/ask/tickets/${number}`);
});

test('a form that was not opened so, or for someone else, makes nothing', async () => {
  const [lena, tomas] = await Promise.all(['lena', 'tomas'].map(chat.rooms));
  const said = await lena!.say('alder', 'my screen flickers');
  await lena!.act('ticket', said);
  const [opened] = await until(
    () => chat.app.listo.db.tables.roomChanges.find({ kind: 'form', forId: 'c-lena' }),
    (found) => found.length === 1,
  );
  const { callback } = opened!.body as { callback: { do: string; sealed: string } };
  const before = await chat.latest();
  const values = { title: 'Not so', service: 'other' };
  const messages = [{ id: 'x', threadId: null, byId: 'c-rui', at: 0, text: 'I said so', files: [] }];
  for (const forged of [
    callback,
    { do: 'ticket', messages },
    { do: 'ticket', sealed: `${callback.sealed}x` },
  ])
    await tomas!.call('POST', '/form', { roomId: 'alder', callback: forged, values });
  await lena!.call('POST', '/form', { roomId: 'alder', callback, values: { ...values, title: 'Flickers' } });
  await until(chat.latest, (number) => number > before);
  expect(await chat.latest()).toBe(before + 1);
  expect(await chat.ticketOf(before + 1, 'lena')).toMatchObject({ title: 'Flickers' });
});

test('quiet hours and the choice of doors hold', async () => {
  const lena = await chat.app.as('lena');
  expect(
    (await lena.call('PUT', '/me/chat', { wantsChat: false, wantsMail: false, quiet: null })).status,
  ).toBe(422);
  expect(
    (await lena.call('PUT', '/me/chat', { wantsChat: false, wantsMail: true, quiet: null })).status,
  ).toBe(200);
  const make = async (title: string): Promise<number> =>
    (
      (await lena.call('POST', '/tickets', { serviceId: 'kiosk', title, answers: KIOSK })).body as {
        number: number;
      }
    ).number;
  const say = async (number: number) =>
    (await chat.app.as('rui')).call('POST', `/tickets/${number}/messages`, {
      text: 'Hello',
      readBy: 'requester',
      links: [],
      fileIds: [],
    });
  const first = await make('By mail alone');
  await say(first);
  await until(
    () => chat.app.listo.db.tables.mailOut.find({ ticketNumber: first, toId: 'lena' }),
    (rows) => rows.length > 0,
  );
  expect(await chat.app.listo.db.tables.chatOut.find({ ticketNumber: first, personId: 'lena' })).toEqual([]);
  const minute = new Date(chat.app.clock.now()).getUTCHours() * 60;
  await lena.call('PUT', '/me/chat', {
    wantsChat: true,
    wantsMail: false,
    quiet: { from: minute, to: (minute + 120) % 1440 },
  });
  const second = await make('Quiet now');
  await say(second);
  const [row] = await until(
    () => chat.app.listo.db.tables.chatOut.find({ ticketNumber: second, personId: 'lena' }),
    (rows) => rows.length > 0,
  );
  expect(row!.nextAt - chat.app.clock.now()).toBeGreaterThan(3_000_000);
});
