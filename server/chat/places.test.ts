import { decide } from '../approvals/decide';
import { startChatTest, textsOf, type ChatTest } from '../testing/chat';
import { until } from '../testing/harness';

/** Who reads what in the workplace chat, and what is current there however it came about. */
let chat: ChatTest;
beforeAll(async () => {
  chat = await startChatTest('chatplaces');
});
afterAll(() => chat.end());

/** Someone of the team that has a ticket. */
async function memberWith(number: number): Promise<string> {
  const { team } = await chat.ticketOf(number, 'tomas');
  return (await chat.app.listo.db.tables.members.find({ teamId: team.id }))[0]!.personId;
}

test('a ticket of a line in a room that is not connected: answers stay out of it, replies under its line are heard', async () => {
  const [tomas, lena] = await Promise.all(['tomas', 'lena'].map(chat.rooms));
  const before = await chat.latest();
  await tomas!.say('alder', 'Listo, the ticket kiosk at window 4 is dead');
  const line = await tomas!.sees('alder', ({ card }) => (card?.number ?? 0) > before);
  const { number } = line.card!;
  const agent = await memberWith(number);
  await until(
    () => chat.ticketOf(number, agent),
    ({ room }) => room?.name === 'Port Alder',
  );
  expect(await chat.ticketOf(number, 'tomas')).toMatchObject({ room: null });
  await tomas!.say('alder', 'It is the left one', line.id);
  await until(
    () => chat.ticketOf(number, agent),
    (seen) => textsOf(seen).includes('It is the left one'),
  );
  await chat.write(agent, number, 'Your new code is 1234', 'requester');
  await chat.move(agent, number, 'finish', { solution: 'The lock code is 99' });
  const direct = await tomas!.listoRoom();
  const own = await tomas!.sees(direct, ({ card }) => card?.number === number);
  await tomas!.sees(direct, ({ text }) => text.includes('1234'), own.id);
  await tomas!.sees(direct, ({ text }) => text.includes('lock code'), own.id);
  await lena!.sees('alder', ({ card }) => card?.number === number && card.isOver);
  const read = (await lena!.read('alder', line.id)).map(({ text }) => text).join('\n');
  expect(read).not.toMatch(/1234|lock code/);
});

test('in a room where all may read the ticket, answers stand under its line', async () => {
  const tomas = await chat.rooms('tomas');
  const made = await tomas.call('POST', '/', { name: 'Gate four', topic: '', kind: 'closed' });
  const { id } = made.body as { id: string };
  await tomas.call('POST', `/rooms/${id}/members`, { personId: 'c-bia' });
  const before = await chat.latest();
  await tomas.say(id, 'Listo, the display at gate four is dark');
  const line = await tomas.sees(id, ({ card }) => (card?.number ?? 0) > before);
  const agent = await memberWith(line.card!.number);
  await chat.write(agent, line.card!.number, 'Try it again now', 'requester');
  await tomas.sees(id, ({ text }) => text.includes('Try it again now'), line.id);
  // Someone who may not read it comes in: what is written now stays away.
  await tomas.call('POST', `/rooms/${id}/members`, { personId: 'c-lena' });
  await chat.write(agent, line.card!.number, 'The code is 55', 'requester');
  const direct = await tomas.listoRoom();
  const own = await tomas.sees(direct, ({ card }) => card?.number === line.card!.number);
  await tomas.sees(direct, ({ text }) => text.includes('The code is 55'), own.id);
  await chat.move(agent, line.card!.number, 'take');
  await tomas.sees(id, ({ card }) => card?.number === line.card!.number && /in work/.test(card.facts));
  expect((await tomas.read(id, line.id)).some(({ text }) => text.includes('55'))).toBe(false);
});

test('what is the team’s leaves by no door that a requester can read', async () => {
  const tomas = await chat.rooms('tomas');
  const before = await chat.latest();
  await tomas.say('desk', 'Listo, kiosk 9 is dark');
  const { card } = await tomas.sees('desk', (message) => (message.card?.number ?? 0) > before);
  const { number } = card!;
  const { version } = await chat.ticketOf(number, 'bia');
  await (
    await chat.app.as('bia')
  ).call('POST', `/tickets/${number}/moves`, {
    name: 'give',
    by: 'agent',
    version,
    input: { teamId: 'onboard' },
  });
  await chat.write('rui', number, 'TEAM ONLY', 'team');
  await chat.write('rui', number, 'FOR ALL', 'requester');
  const rui = await chat.rooms('rui');
  await until(
    () =>
      chat.app.listo.db.select<{ text: string }>(
        "SELECT text FROM room_messages WHERE text LIKE '%FOR ALL%'",
      ),
    // The direct talk and the team's room; not where it was asked, where others read.
    (said) => said.length === 2,
  );
  const said = await chat.app.listo.db.select<{ roomId: string }>(
    "SELECT roomId FROM room_messages WHERE text LIKE '%TEAM ONLY%'",
  );
  expect(said).toEqual([{ roomId: 'onboard' }]);
  expect(await rui.read('onboard')).not.toHaveLength(0);
  const mails = await chat.app.listo.db.select("SELECT 1 FROM stand_in_mails WHERE text LIKE '%TEAM ONLY%'");
  expect(mails).toEqual([]);
});

test('what goes to a confidential team is no longer said where it was asked', async () => {
  const tomas = await chat.rooms('tomas');
  const before = await chat.latest();
  await tomas.say('desk', 'Listo, the lamp over my desk is out');
  const line = await tomas.sees('desk', (message) => (message.card?.number ?? 0) > before);
  const { number } = line.card!;
  // Wherever the words led it: someone of the team that has it gives it on.
  const { team } = await chat.ticketOf(number, 'tomas');
  const [member] = await chat.app.listo.db.tables.members.find({ teamId: team.id });
  await chat.move(member!.personId, number, 'give', { teamId: 'people' });
  await chat.write('sofia', number, 'In confidence: forty days', 'requester');
  const talk = await tomas.listoRoom();
  const root = await tomas.sees(talk, ({ card }) => card?.number === number);
  await tomas.sees(talk, ({ text }) => text.includes('forty days'), root.id);
  const said = await chat.app.listo.db.select<{ roomId: string }>(
    "SELECT roomId FROM room_messages WHERE text LIKE '%forty days%'",
  );
  expect(said).toEqual([{ roomId: talk }]);
});

test('what is decided by another door becomes current in the direct talk, and a late press says what was decided', async () => {
  const ana = await chat.rooms('ana');
  const tomas = await chat.app.as('tomas');
  const answers = { site: 'Port Alder', sort: 'hand', count: 1 };
  const body = { serviceId: 'gate-scanner', title: 'Scanner 9', answers };
  const { number } = (await tomas.call('POST', '/tickets', body)).body as { number: number };
  const talk = await ana.listoRoom();
  const asked = await ana.sees(
    talk,
    ({ text, actions }) => text.startsWith(`${number} ·`) && actions.length === 2,
  );
  const { asks } = chat.app.listo.db.tables;
  const ask = (await asks.findOne({ ticketNumber: number }))!;
  await decide(
    chat.app.listo,
    { personId: 'ana', actor: { id: 'ana' }, via: 'mail' },
    {
      askId: ask.id,
      decision: {
        decision: 'decline',
        words: 'Not now',
      },
    },
  );
  // Pressed before the message is made current.
  await ana.act('approve', asked.id);
  await ana.sees(talk, ({ text, forId }) => forId !== null && /Decided: no, by Ana Lobo, by mail/.test(text));
  const over = await ana.sees(talk, ({ id, actions }) => id === asked.id && actions.length === 0);
  expect(over.text).toMatch(/^✓ Decided: no, by Ana Lobo, by mail\./);
  expect((await asks.findOne({ ticketNumber: number }))!.decision).toBe('decline');
});

test('a team may have it decided on the page alone, also of what was asked in chat before', async () => {
  const [ana, tomas] = [await chat.rooms('ana'), await chat.app.as('tomas')];
  const answers = { site: 'Port Alder', sort: 'hand', count: 1 };
  const body = { serviceId: 'gate-scanner', title: 'Scanner 8', answers };
  const ask = async (): Promise<number> =>
    ((await tomas.call('POST', '/tickets', body)).body as { number: number }).number;
  const number = await ask();
  const talk = await ana.listoRoom();
  const { id } = await ana.sees(talk, ({ text }) => text.startsWith(`${number} ·`));
  const helder = await chat.app.as('helder');
  const { teams } = chat.app.listo.db.tables;
  const { teamId } = (await chat.app.listo.db.tables.tickets.findOne({ number }))!;
  const { version } = (await teams.findOne({ id: teamId }))!;
  const saved = await helder.call('PATCH', `/teams/${teamId}`, { version, decidesInChat: false });
  expect(saved.status).toBe(200);
  await ana.act('approve', id);
  await ana.sees(talk, ({ text }) => text.includes('no longer decided in chat'));
  expect((await chat.ticketOf(number, 'tomas')).state).toBe('held');
  const other = await ask();
  await until(
    () => chat.app.listo.db.tables.notifications.find({ ticketNumber: other, personId: 'ana' }),
    (told) => told.length > 0,
  );
  const inLine = await chat.app.listo.db.tables.chatOut.find({ ticketNumber: other, personId: 'ana' });
  expect(inLine.filter(({ body: { do: what } }) => what === 'ask')).toEqual([]);
  await helder.call('PATCH', `/teams/${teamId}`, { version: version + 1, decidesInChat: true });
});
