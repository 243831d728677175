import { startChatTest, type ChatTest } from '../testing/chat';
import { until } from '../testing/harness';

/** What a call or a line in chat did not say, or said wrongly, is mended by those who know. */
let chat: ChatTest;
beforeAll(async () => {
  chat = await startChatTest('mend');
});
afterAll(() => chat.end());

const kiosk = {
  ...{ serviceId: 'kiosk', title: 'Kiosk 3 frozen', requesterId: 'tomas', via: 'phone' },
  answers: { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'canWait' },
};

test('an agent judges a call while they raise it; someone who asks for themselves does not', async () => {
  const [rui, tomas] = await Promise.all(['rui', 'tomas'].map(chat.app.as));
  const judged = { ...kiosk, impact: 'person', urgency: 'stopsWork' };
  const made = await rui!.call('POST', '/tickets', judged);
  const { number } = made.body as { number: number };
  expect(await chat.ticketOf(number, 'rui')).toMatchObject({ impact: 'person', urgency: 'stopsWork' });
  const { requesterId: _, via: __, ...own } = judged;
  expect((await tomas!.call('POST', '/tickets', own)).status).toBe(403);
});

test('what was changed is told to the team whole, by names; to the requester only as far as it concerns them', async () => {
  const rui = await chat.app.as('rui');
  const { number } = (await rui.call('POST', '/tickets', kiosk)).body as { number: number };
  const put = async (body: object) => {
    const { version } = await chat.ticketOf(number, 'rui');
    expect((await rui.call('PATCH', `/tickets/${number}`, { version, ...body })).status).toBe(200);
  };
  await put({ title: 'Kiosk 3 is dark' });
  await put({ due: { date: '2027-01-15' } });
  await put({ impact: 'fleet', urgency: 'stopsWork' });
  const changesOf = async (personId: string) =>
    (await chat.ticketOf(number, personId)).entries.flatMap(({ type, changes }) =>
      type === 'changed' ? [Object.keys(changes)] : [],
    );
  const team = await changesOf('rui');
  expect(team[0]).toEqual(['title']);
  expect(team[1]).toContain('dueDate');
  expect(team[2]).toEqual(expect.arrayContaining(['impact', 'urgency', 'priority']));
  // When it is due is the team's own; of the last, the new priority is theirs to know.
  expect(await changesOf('tomas')).toEqual([['title'], ['priority']]);
});

test('who took the call mends what it is about, also where it lies with another team; its work stays the team’s', async () => {
  const [bia, clara] = await Promise.all(['bia', 'clara'].map(chat.app.as));
  const made = await bia!.call('POST', '/tickets', { ...kiosk, serviceId: 'gate-broken' });
  const { number } = made.body as { number: number };
  const before = await chat.ticketOf(number, 'bia');
  // The case is one only where the team is not her own.
  expect(before.rights).not.toContain('work');
  const put = async (body: object, by = bia!) => {
    const { version } = await chat.ticketOf(number, 'rui');
    return (await by.call('PATCH', `/tickets/${number}`, { version, ...body })).status;
  };
  expect(await put({ place: 'North quay, gate 4', urgency: 'stopsWork', title: 'Gate 4 is dark' })).toBe(200);
  expect(await chat.ticketOf(number, 'bia')).toMatchObject({
    ...{ place: 'North quay, gate 4', urgency: 'stopsWork', title: 'Gate 4 is dark' },
  });
  expect(await put({ place: ' ' })).toBe(422);
  expect(await put({ progressId: null })).toBe(403);
  expect(await put({ title: 'x', remindAt: null })).toBe(403);
  expect(await put({ place: 'Elsewhere' }, clara)).toBe(403);
  const { version } = await chat.ticketOf(number, 'bia');
  const answers = { ...kiosk.answers, what: 'All of it is dark' };
  const changed = await bia!.call('PUT', `/tickets/${number}/answers`, { version, answers });
  expect(changed.status).toBe(200);
});

test('what a form needs and nobody said in chat is asked there afterwards, until it is answered', async () => {
  const tomas = await chat.rooms('tomas');
  const before = await chat.latest();
  await tomas.say('alder', 'Listo, the ticket kiosk at window 4 is dead');
  const line = await tomas.sees('alder', ({ card }) => (card?.number ?? 0) > before);
  const { number } = line.card!;
  const ticket = await chat.ticketOf(number, 'tomas');
  expect(ticket.missing.length).toBeGreaterThan(0);
  const labels = ticket.questions
    .filter(({ name }) => ticket.missing.includes(name))
    .map(({ label }) => label);
  const direct = await tomas.listoRoom();
  const own = await tomas.sees(direct, ({ card }) => card?.number === number);
  const asked = await tomas.sees(direct, ({ text }) => text.includes(`/ask/tickets/${number}`), own.id);
  for (const label of labels)
    expect(asked.text).toMatch(new RegExp(`${label.en.slice(0, 8)}|${label.pt.slice(0, 8)}`));
  // Others in the room are not asked.
  expect((await tomas.read('alder', line.id)).map(({ text }) => text).join()).not.toContain(asked.text);
  const answers = { site: 'Port Alder', kiosk: '4', what: 'Dead', impact: 'site', urgency: 'stopsWork' };
  const person = await chat.app.as('tomas');
  const given = await person.call('PUT', `/tickets/${number}/answers`, { version: ticket.version, answers });
  expect(given.status).toBe(200);
  await until(
    () => chat.ticketOf(number, 'tomas'),
    ({ missing }) => missing.length === 0,
  );
});

test('the first line gives on what it reaches, where the team that has it lets it', async () => {
  const { tables } = chat.app.listo.db;
  const [member] = await tables.members.find({ teamId: 'desk' });
  const [desk, helder] = await Promise.all([member!.personId, 'helder'].map(chat.app.as));
  const raiser = await chat.app.as('tomas');
  const made = await raiser.call('POST', '/tickets', {
    serviceId: 'kiosk',
    title: 'Till 2',
    answers: kiosk.answers,
  });
  const { number } = made.body as { number: number };
  const allow = async (id: string, givenOnBy: string[]) => {
    const { version } = (await tables.teams.findOne({ id }))!;
    return (await helder!.call('PATCH', `/teams/${id}`, { version, givenOnBy })).status;
  };
  const give = async (teamId: string, name = 'give') => {
    const { version } = await chat.ticketOf(number, 'rui');
    const body = { name, by: 'agent', version, input: name === 'give' ? { teamId } : {} };
    return (await desk!.call('POST', `/tickets/${number}/moves`, body)).status;
  };
  const { team } = await chat.ticketOf(number, 'rui');
  expect(await allow(team.id, [])).toBe(200);
  expect(await give('network')).toBe(403);
  expect(await allow(team.id, ['nobody'])).toBe(422);
  expect(await allow('people', ['desk'])).toBe(422);
  expect(await allow(team.id, ['desk'])).toBe(200);
  const seen = (await desk!.call('GET', `/tickets/${number}`)).body as { moves: { name: string }[] };
  expect(seen.moves.map(({ name }) => name)).toEqual(['give']);
  expect(await give('', 'take')).toBe(403);
  expect(await give('network')).toBe(200);
  expect(await chat.ticketOf(number, 'rui')).toMatchObject({ team: { id: 'network' } });
});

describe('one’s own last move', () => {
  const made = async (): Promise<number> => {
    const rui = await chat.app.as('rui');
    return ((await rui.call('POST', '/tickets', kiosk)).body as { number: number }).number;
  };
  const move = async (by: string, number: number, name: string, input: object) => {
    const person = await chat.app.as(by);
    const { version } = await chat.ticketOf(number, by);
    const answer = await person.call('POST', `/tickets/${number}/moves`, {
      name,
      by: 'agent',
      version,
      input,
    });
    expect(answer.status).toBe(200);
    return (answer.body as { version: number }).version;
  };
  const undo = async (by: string, number: number, version: number) =>
    (await (await chat.app.as(by)).call('POST', `/tickets/${number}/undo`, { version })).status;

  test.each<[string, object]>([
    ['take', {}],
    ['hold', { heldFor: 'supplier' }],
    ['finish', { solution: 'Paper roll changed' }],
    ['give', { teamId: 'onboard', assigneeId: 'hanna' }],
  ])('%s is taken back, and all is as it was', async (name, input) => {
    const number = await made();
    const facts = async () => {
      const { state, heldFor, assignee, solution, team } = await chat.ticketOf(number, 'rui');
      return { state, heldFor, assignee, solution, team };
    };
    const before = await facts();
    const version = await move('rui', number, name, input);
    expect(await facts()).not.toEqual(before);
    expect(await undo('rui', number, version)).toBe(200);
    expect(await facts()).toEqual(before);
    expect((await chat.ticketOf(number, 'rui')).entries.at(-1)!.type).toBe('undone');
  });

  test('given to another team by mistake it comes back, though it is no longer one’s own to work on', async () => {
    const number = await made();
    const { assignee } = await chat.ticketOf(number, 'rui');
    const version = await move('rui', number, 'give', { teamId: 'network' });
    // There it goes to a person by itself; nobody has done anything, so that this is no reason to keep it.
    await until(
      () => chat.ticketOf(number, 'rui'),
      (ticket) => ticket.entries.some(({ type }) => type === 'routed'),
    );
    expect(await undo('rui', number, version)).toBe(200);
    expect(await chat.ticketOf(number, 'rui')).toMatchObject({ team: { id: 'onboard' }, assignee });
  });

  test('another’s move, one upon which something followed, and one of long ago stand', async () => {
    const number = await made();
    const version = await move('rui', number, 'take', {});
    expect(await undo('hanna', number, version)).toBe(409);
    const next = await move('rui', number, 'hold', { heldFor: 'supplier' });
    expect(await undo('rui', number, version)).toBe(409);
    chat.app.clock.pass(61_000);
    expect(await undo('rui', number, next)).toBe(409);
    expect(await undo('tomas', number, next)).toBe(409);
  });
});
