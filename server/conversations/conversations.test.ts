import { lookAtConversations } from './offers';
import type { Conversation, ConversationShort, LineCard } from '../../contract/conversations';
import type { Ticket } from '../../contract/tickets';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, lena, ana, bia, marta, rui]: Person[] = [];
const streams: AbortController[] = [];
beforeAll(async () => {
  app = await startTestListo('conversations');
  [tomas, lena, ana, bia, marta, rui] = await Promise.all(
    ['tomas', 'lena', 'ana', 'bia', 'marta', 'rui'].map(app.as),
  );
});
afterAll(async () => {
  streams.forEach((stream) => stream.abort());
  await app.end();
});

/** Someone's Desk, open with its live stream, as a browser has it. @returns how it is closed */
async function openDesk(personId: string, presence = 'available', capacity = 3): Promise<() => void> {
  const person = await app.as(personId);
  await person.call('PUT', '/me/conversations', { presence, capacity });
  const signedIn = await fetch(`${app.url}/api/v1/session/demo`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ personId }),
  });
  const Cookie = signedIn.headers.getSetCookie()[0]!.split(';')[0]!;
  const stop = new AbortController();
  streams.push(stop);
  await fetch(`${app.url}/api/v1/conversations/live?at=desk`, { headers: { Cookie }, signal: stop.signal });
  return () => stop.abort();
}
const start = async (by: Person, words = 'I cannot sign in', lineId = 'desk'): Promise<string> =>
  ((await by.call('POST', '/conversations', { lineId, words })).body as { id: string }).id;
const read = async (by: Person, id: string): Promise<Conversation> =>
  (await by.call('GET', `/conversations/${id}`)).body as Conversation;
const atDesk = async (by: Person): Promise<ConversationShort[]> =>
  ((await by.call('GET', '/desk/conversations')).body as { rows: ConversationShort[] }).rows;
const say = (by: Person, id: string, text: string, readBy = 'all') =>
  by.call('POST', `/conversations/${id}/entries`, { text, readBy });
const act = (by: Person, id: string, what: string, body: object = {}) =>
  by.call('POST', `/conversations/${id}/${what}`, body);
const offeredTo = (by: Person, id: string): Promise<ConversationShort[]> =>
  until(
    () => atDesk(by),
    (rows) => rows.some((row) => row.id === id && row.isOfferedToMe),
  );
const wordsOf = ({ entries }: Conversation): string[] =>
  entries.filter(({ type }) => type === 'words').map(({ text }) => text);

test('nobody is there: the line says so, and waits; it is offered to who comes, with the facts of who asks', async () => {
  const lines = (await tomas!.call('GET', '/lines')).body as LineCard[];
  expect(lines.find(({ id }) => id === 'desk')).toMatchObject({ isOpen: true, waiting: 0, wait: null });
  const id = await start(tomas!);
  expect(await start(tomas!, 'again')).toBe(id);
  expect(await read(tomas!, id)).toMatchObject({ state: 'waiting', ahead: 0, wait: null });
  const close = await openDesk('bia');
  const [row] = await offeredTo(bia!, id);
  expect(row!.facts).toMatchObject({ site: 'Port Alder' });
  expect((await read(tomas!, id)).state).toBe('waiting');
  expect((await act(bia!, id, 'accept')).status).toBe(200);
  await say(bia!, id, 'Good day, which program?');
  await say(bia!, id, 'He is the one with the gate', 'agents');
  await say(tomas!, id, 'The roster');
  const theirs = await read(tomas!, id);
  expect(theirs).toMatchObject({ state: 'open', agent: { id: 'bia' }, side: null });
  expect(wordsOf(theirs)).toEqual(['I cannot sign in', 'Good day, which program?', 'The roster']);
  // What agents say beside leaves by no door: not in the conversation, the transcript or the ticket.
  expect(wordsOf(await read(bia!, id))).toContain('He is the one with the gate');
  const text = (await tomas!.call('GET', `/conversations/${id}/transcript`)).body as string;
  expect(text).toContain('Bia Rocha: Good day, which program?');
  expect(text).not.toContain('He is the one');
  // On other pages they learn how much was said to them.
  expect((await tomas!.call('GET', '/my/conversation')).body).toEqual({
    ...{ id, agent: 'Bia Rocha', said: 1, hasLines: true },
  });
  const { number } = (await act(bia!, id, 'ticket', { title: 'Cannot sign in to the roster' })).body as {
    number: number;
  };
  expect((await act(bia!, id, 'ticket')).body).toEqual({ number });
  const ticket = (await tomas!.call('GET', `/tickets/${number}`)).body as Ticket;
  expect(ticket).toMatchObject({
    via: 'liveChat',
    requester: { id: 'tomas' },
    title: 'Cannot sign in to the roster',
  });
  const said = ticket.entries.flatMap(({ message }) => message?.text ?? []).join('\n');
  expect(said).toContain('The roster');
  expect(said).not.toContain('He is the one');
  expect(await read(tomas!, id)).toMatchObject({ ticket: { number } });
  expect((await lena!.call('GET', `/conversations/${id}`)).status).toBe(404);
  await act(bia!, id, 'end');
  expect((await say(tomas!, id, 'one more')).status).toBe(409);
  expect((await act(tomas!, id, 'rating', { rating: 5 })).status).toBe(200);
  const pdf = await tomas!.call('GET', `/conversations/${id}/transcript?as=pdf`);
  expect((pdf.body as string).slice(0, 5)).toBe('%PDF-');
  // Within the day they come back to the same one, and to the same agent.
  expect((await act(tomas!, id, 'return')).status).toBe(200);
  expect(await read(tomas!, id)).toMatchObject({ state: 'open', agent: { id: 'bia' } });
  await act(tomas!, id, 'end');
  // But not while another one is under way.
  const next = await start(tomas!, 'Something else');
  expect(next).not.toBe(id);
  expect((await act(tomas!, id, 'return')).status).toBe(409);
  await act(tomas!, next, 'end');
  close();
});

test('a file that agents send each other is theirs: not by its address, not on the ticket', async () => {
  const upload = async (by: Person, name: string): Promise<string> => {
    const form = new FormData();
    form.append('file', new Blob(['words'], { type: 'text/plain' }), name);
    return ((await by.call('POST', '/files', form)).body as { id: string }).id;
  };
  const id = await start(ana!, 'With a picture');
  await act(bia!, id, 'accept');
  const [secret, open] = [await upload(bia!, 'secret.txt'), await upload(bia!, 'open.txt')];
  for (const [fileId, readBy] of [
    [secret, 'agents'],
    [open, 'all'],
  ] as const)
    await bia!.call('POST', `/conversations/${id}/entries`, { text: 'Here', readBy, fileIds: [fileId] });
  const statuses = async (by: Person) =>
    Promise.all([secret, open].map(async (fileId) => (await by.call('GET', `/files/${fileId}`)).status));
  expect(await statuses(ana!)).toEqual([404, 200]);
  expect(await statuses(marta!)).toEqual([200, 200]);
  expect(await statuses(tomas!)).toEqual([404, 404]);
  const { number } = (await act(bia!, id, 'ticket')).body as { number: number };
  const ticket = (await ana!.call('GET', `/tickets/${number}`)).body as Ticket;
  expect(ticket.entries.flatMap(({ message }) => message?.files ?? []).map(({ name }) => name)).toEqual([
    'open.txt',
  ]);
  expect(await statuses(ana!)).toEqual([404, 200]);
  expect((await read(ana!, id)).entries.flatMap(({ files }) => files.map(({ name }) => name))).toEqual([
    'open.txt',
  ]);
  await act(ana!, id, 'end');
});

test('two agents accept at the same instant: one has it, the other is told', async () => {
  const id = await start(lena!);
  const [one, other] = await Promise.all([act(bia!, id, 'accept'), act(marta!, id, 'accept')]);
  expect([one.status, other.status].sort()).toEqual([200, 409]);
  const { agent } = await read(lena!, id);
  expect(agent!.id).toBe(one.status === 200 ? 'bia' : 'marta');
  await act(lena!, id, 'end');
});

test('offered once to each: not taken in time, or let pass, it goes on, then stays in the line; who comes back has it anew', async () => {
  const closeBia = await openDesk('bia');
  const closeMarta = await openDesk('marta');
  const { tables } = app.listo.db;
  await tables.chatLines.update({ id: 'desk' }, { offerSeconds: 60 });
  const id = await start(ana!);
  const offered = (isDone: (to: string | null) => boolean) =>
    until(async () => (await tables.conversations.findOne({ id }))!.offeredTo, isDone);
  // Both stay at their Desk while the clock passes: what keeps conversations going looks at any time.
  const pass = async (ms: number) => {
    const seenAt = app.clock.now() + ms + 60_000;
    await tables.chatAgents.update({ personId: ['bia', 'marta'] }, { seenAt });
    app.clock.pass(ms);
  };
  const first = await offered((to) => to !== null);
  // The line gives its own time.
  const { offeredAt } = (await tables.conversations.findOne({ id }))!;
  await pass(offeredAt! + 50_000 - app.clock.now());
  await lookAtConversations(app.listo);
  expect((await tables.conversations.findOne({ id }))!.offeredTo).toBe(first);
  await pass(11_000);
  const second = await offered((to) => to !== null && to !== first);
  const person = (personId: string | null) => (personId === 'bia' ? bia! : marta!);
  await act(person(second), id, 'decline');
  for (let i = 0; i < 20; i++) {
    await pass(60_000);
    await lookAtConversations(app.listo);
  }
  const { entries, state } = await read(person(first), id);
  expect(state).toBe('waiting');
  expect(entries.filter(({ type }) => type === 'ranOut').map(({ author }) => author!.id)).toEqual([first]);
  expect(entries.filter(({ type }) => type === 'passed').map(({ author }) => author!.id)).toEqual([second]);
  expect((await read(ana!, id)).entries.map(({ type }) => type)).not.toContain('ranOut');
  await person(first).call('PUT', '/me/conversations', { presence: 'busy' });
  await person(first).call('PUT', '/me/conversations', { presence: 'available' });
  await offeredTo(person(first), id);
  await act(ana!, id, 'end');
  expect(await read(ana!, id)).toMatchObject({ state: 'ended', endedBy: 'left' });
  await tables.chatLines.update({ id: 'desk' }, { offerSeconds: 30 });
  closeBia();
  closeMarta();
  await marta!.call('PUT', '/me/conversations', { presence: 'away' });
});

test('handing over: the other reads everything first, the one who has it keeps it until then, the employee is told', async () => {
  const close = await openDesk('bia');
  const id = await start(tomas!, 'Kiosk 3 is dark');
  await act(bia!, id, 'accept');
  await say(bia!, id, 'I ask the gates');
  expect((await act(bia!, id, 'hand-over', { agentId: 'tomas', lineId: null, why: 'no' })).status).toBe(422);
  await act(bia!, id, 'hand-over', { agentId: 'rui', lineId: null, why: 'It is the reader' });
  const seen = await read(rui!, id);
  expect(seen.side).toMatchObject({
    isOfferedToMe: true,
    handedBy: 'Bia Rocha',
    handedWhy: 'It is the reader',
  });
  expect(wordsOf(seen)).toContain('I ask the gates');
  expect((await read(tomas!, id)).agent!.id).toBe('bia');
  await act(rui!, id, 'decline');
  expect((await read(bia!, id)).side).toMatchObject({ isMine: true });
  await act(bia!, id, 'hand-over', { agentId: 'rui', lineId: null, why: 'It is the reader, please' });
  await act(rui!, id, 'accept');
  const theirs = await read(tomas!, id);
  expect(theirs.agent!.id).toBe('rui');
  expect(theirs.entries.map(({ type }) => type)).toContain('handed');
  expect(wordsOf(theirs)).not.toContain('It is the reader');
  // To a line: back into it, at the front.
  await act(rui!, id, 'hand-over', { agentId: null, lineId: 'desk', why: 'A password after all' });
  await offeredTo(bia!, id);
  await act(bia!, id, 'accept');
  expect((await act(bia!, id, 'invited', { personId: 'rui' })).status).toBe(200);
  expect((await say(rui!, id, 'I am here too')).status).toBe(200);
  await act(bia!, id, 'end');
  close();
});

test('an agent’s browser closes: while the employee waits it goes back to the front, and to another', async () => {
  const close = await openDesk('bia');
  const id = await start(lena!, 'Where is the form');
  await offeredTo(bia!, id);
  await act(bia!, id, 'accept');
  await say(bia!, id, 'Which one?');
  await say(lena!, id, 'The blue one');
  close();
  const closeMarta = await openDesk('marta');
  app.clock.pass(50_000);
  await app.listo.db.tables.chatAgents.update({ personId: 'marta' }, { seenAt: app.clock.now() });
  await offeredTo(marta!, id);
  await act(marta!, id, 'accept');
  expect(wordsOf(await read(marta!, id))).toEqual(['Where is the form', 'Which one?', 'The blue one']);
  await act(lena!, id, 'end');
  closeMarta();
});

test('silence: asked first, then it ends by itself; a line that is closed says what else one can do', async () => {
  const close = await openDesk('bia');
  const id = await start(ana!, 'Just a question');
  await act(bia!, id, 'accept');
  await say(bia!, id, 'Yes?');
  app.clock.pass(5 * 60_000 + 1_000);
  await until(
    () => read(ana!, id),
    ({ entries }) => entries.some(({ type }) => type === 'asked'),
  );
  app.clock.pass(10 * 60_000 + 1_000);
  await until(
    () => read(ana!, id),
    ({ state, endedBy }) => state === 'ended' && endedBy === 'silence',
  );
  close();
  app.clock.set(Date.parse('2026-11-28T03:00:00Z'));
  const lines = (await tomas!.call('GET', '/lines')).body as LineCard[];
  const closed = lines.find(({ isOpen }) => !isOpen)!;
  expect(closed.opensAt).toBeGreaterThan(app.clock.now());
  expect((await tomas!.call('POST', '/conversations', { lineId: closed.id, words: 'Hello?' })).status).toBe(
    409,
  );
});

test('the lead sees lines and agents; others do not', async () => {
  const { body } = await marta!.call('GET', '/desk/conversations/overview');
  expect((body as { lines: { id: string }[] }).lines.map(({ id }) => id)).toEqual(['desk']);
  expect(
    (body as { lines: { today: { abandoned: number } }[] }).lines[0]!.today.abandoned,
  ).toBeGreaterThanOrEqual(0);
  expect((await tomas!.call('GET', '/desk/conversations/overview')).status).toBe(403);
  const lines = (await marta!.call('GET', '/workshop/lines')).body as {
    id: string;
    mayEdit: boolean;
    version: number;
  }[];
  expect(lines.map(({ id, mayEdit }) => [id, mayEdit])).toEqual([
    ['gates', false],
    ['desk', true],
  ]);
});
