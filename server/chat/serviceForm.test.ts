import type { ChatForm } from '../../core/chat';
import { startChatTest, textsOf, type ChatTest, type InRooms } from '../testing/chat';
import { until } from '../testing/harness';

/** The forms that open in chat: as administrators set them, and services' own. */
let chat: ChatTest;
beforeAll(async () => {
  chat = await startChatTest('forms');
});
afterAll(() => chat.end());

const seen = new Set<string>();
/** The next form that opens for someone. */
async function opened(personId: string): Promise<ChatForm> {
  const found = await until(
    async () => {
      const all = await chat.app.listo.db.tables.roomChanges.find({ kind: 'form', forId: `c-${personId}` });
      return all.find(({ id }) => !seen.has(String(id)));
    },
    (form) => form !== undefined,
  );
  seen.add(String(found!.id));
  return found!.body as unknown as ChatForm;
}
const valuesOf = ({ fields }: ChatForm): Record<string, string> =>
  Object.fromEntries(fields.map(({ name, value }) => [name, value]));
const send = (by: InRooms, roomId: string, { callback }: ChatForm, values: Record<string, string>) =>
  by.call('POST', '/form', { roomId, callback, values });

test('a service’s own form, page by page, until its answers are complete', async () => {
  const lena = await chat.rooms('lena');
  const said = await lena.say('alder', 'I would like a tablet for the bridge');
  await lena.act('ticket', said);
  const first = await opened('lena');
  const before = await chat.latest();
  await send(lena, 'alder', first, { ...valuesOf(first), service: 'bridge-tablet' });
  const form = await opened('lena');
  expect(form.title).toBe('A bridge tablet');
  expect(form.fields.map(({ name }) => name)).toEqual(['-title', 'vessel', 'sort']);
  // What is wrong is said beside the question; what was right stays.
  await send(lena, 'alder', form, { ...valuesOf(form), vessel: 'Gannet', sort: 'gold' });
  const again = await opened('lena');
  expect(again.fields.find(({ name }) => name === 'sort')).toMatchObject({
    error: 'Choose one of the list.',
  });
  expect(valuesOf(again)).toMatchObject({ vessel: 'Gannet' });
  // A question that follows from an answer comes next, and no ticket before it is answered.
  await send(lena, 'alder', again, { ...valuesOf(again), sort: 'replacement' });
  const more = await opened('lena');
  expect(more.fields.map(({ name, needed, error }) => [name, needed, error])).toContainEqual([
    ...['what', true, undefined],
  ]);
  expect(await chat.latest()).toBe(before);
  await send(lena, 'alder', more, { ...valuesOf(more), what: 'Its screen is broken' });
  const number = await until(chat.latest, (latest) => latest > before);
  const ticket = await chat.ticketOf(number, 'lena');
  expect(ticket).toMatchObject({
    service: { id: 'bridge-tablet' },
    // It is approved as it is by the page.
    ...{ state: 'held', heldFor: 'approval', via: 'room' },
  });
  expect(ticket.answers.map(({ value }) => value)).toEqual(['Gannet', 'replacement', 'Its screen is broken']);
  await lena.sees('alder', ({ card }) => card?.number === number);
});

test('a form is for the one for whom it opened, and as it was carried', async () => {
  const [lena, tomas] = await Promise.all(['lena', 'tomas'].map(chat.rooms));
  const said = await lena!.say('alder', 'my roster is wrong on Friday');
  await lena!.act('ticket', said);
  const first = await opened('lena');
  await send(lena!, 'alder', first, { ...valuesOf(first), service: 'roster' });
  const form = await opened('lena');
  const before = await chat.latest();
  const values = { ...valuesOf(form), day: '2026-12-04', what: 'A swap', urgency: 'canWait' };
  await send(tomas!, 'alder', form, values);
  await send(lena!, 'alder', { ...form, callback: { do: 'service', sealed: 'x.y' } }, values);
  await until(
    () => chat.app.listo.db.tables.chatIn.find({ outcome: 'refused', detail: 'forbidden' }),
    (refused) => refused.length === 2,
  );
  expect(await chat.latest()).toBe(before);
});

test('the administrator says what the form asks, what stands there, and which services’ forms come', async () => {
  const helder = await chat.app.as('helder');
  const settings = (await helder.call('GET', '/chat/settings')).body as {
    services: { id: string; notInChat: object | null }[];
    version: number;
  };
  const unfit = settings.services.find(({ notInChat }) => notInChat !== null)!;
  const { services: _, ...wanted } = settings;
  const refused = await helder.call('PUT', '/chat/settings', { ...wanted, formServiceIds: [unfit.id] });
  expect(refused).toMatchObject({ status: 422, body: { fields: [{ code: 'notInChat' }] } });
  const saved = await helder.call('PUT', '/chat/settings', {
    ...wanted,
    name: { en: 'Hand this in', pt: 'Entregar isto' },
    fields: ['service', 'team', 'urgency'],
    presets: { service: 'report', team: 'apps', urgency: 'canWait' },
  });
  expect(saved.status).toBe(200);
  expect((await (await chat.app.as('bia')).call('GET', '/chat/settings')).status).toBe(403);

  const [bia, lena] = await Promise.all(['bia', 'lena'].map(chat.rooms));
  await bia!.act('ticket', await lena!.say('alder', 'zxqv wvut'));
  const form = await opened('bia');
  expect(form.title).toBe('Hand this in');
  expect(valuesOf(form)).toEqual({
    title: expect.any(String) as string,
    ...{ service: 'report', team: 'apps', urgency: 'canWait' },
  });
  // To a group of a team too.
  const { choices } = form.fields.find(({ name }) => name === 'team')!;
  expect(choices!.map(({ value }) => value)).toContain('apps/apps-roster');
  const before = await chat.latest();
  await send(bia!, 'alder', form, { ...valuesOf(form), team: 'apps/apps-roster' });
  const number = await until(chat.latest, (latest) => latest > before);
  const { teamId, groupId, urgency } = (await chat.app.listo.db.tables.tickets.findOne({ number }))!;
  expect({ teamId, groupId, urgency }).toEqual({
    ...{ teamId: 'apps', groupId: 'apps-roster', urgency: 'canWait' },
  });
});

test('a message out says nothing of what is the team’s alone', async () => {
  const helder = await chat.app.as('helder');
  const { NOTICE_BLANKS } = await import('../../core/chat');
  const words = NOTICE_BLANKS.map((blank) => `{${blank}}`).join(' ');
  const { id } = (
    await helder.call('POST', '/chat/notices', {
      ...{ name: 'All', event: 'done', teamId: null, roomId: 'weather', personId: null, words },
    })
  ).body as { id: string };
  await helder.call('POST', `/chat/notices/${id}/trials`);
  await helder.call('PUT', `/chat/notices/${id}/state`, { isOn: true });
  const number = await chat.fromPortal('Kiosk 13 frozen');
  await chat.write('rui', number, 'TEAM ONLY: it was dropped', 'team');
  await chat.move('rui', number, 'finish', { solution: 'Replaced' });
  const tomas = await chat.rooms('tomas');
  const { text } = await tomas.sees('weather', (message) => message.text.includes(`${number} `));
  expect(text).toContain('Kiosk 13 frozen');
  expect(text).not.toContain('TEAM ONLY');
  expect(textsOf(await chat.ticketOf(number, 'rui')).join()).toContain('TEAM ONLY');
});

test('a message out goes to each of a group, in direct talk; its trial to the one who tries it', async () => {
  const helder = await chat.app.as('helder');
  const notice = {
    ...{ name: 'Bridge', event: 'newTicket', teamId: 'onboard', roomId: null, personId: null },
    ...{ toTeamId: 'onboard', words: 'Group news: {title}' },
  };
  const refused = await helder.call('POST', '/chat/notices', { ...notice, toGroupId: 'apps-roster' });
  expect(refused).toMatchObject({ status: 422, body: { fields: [{ field: 'toGroupId' }] } });
  const { db } = chat.app.listo;
  const [group] = await db.select<{ id: string; members: string }>(
    "SELECT groupId AS id, GROUP_CONCAT(personId ORDER BY personId) AS members FROM team_members WHERE teamId = 'onboard' AND groupId IS NOT NULL GROUP BY groupId ORDER BY COUNT(*) LIMIT 1",
  );
  const made = await helder.call('POST', '/chat/notices', { ...notice, toGroupId: group!.id });
  const { id } = made.body as { id: string };
  await helder.call('POST', `/chat/notices/${id}/trials`);
  const own = await chat.rooms('helder');
  await own.sees(await own.listoRoom(), ({ text }) => text.includes('Group news'));
  await helder.call('PUT', `/chat/notices/${id}/state`, { isOn: true });
  const number = await chat.fromPortal('Kiosk 14 frozen');
  const queued = await until(
    () => db.tables.chatOut.find({ kind: 'notice', ticketNumber: number }),
    (rows) => rows.length > 0,
  );
  expect(queued.map(({ personId }) => personId).sort()).toEqual(group!.members.split(','));
});
