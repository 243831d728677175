import { startChatTest, textsOf, type ChatTest } from '../testing/chat';
import { until } from '../testing/harness';

/** What is said in rooms where people ask, and what becomes of it. */
let chat: ChatTest;
beforeAll(async () => {
  chat = await startChatTest('asking');
});
afterAll(() => chat.end());

test('in the asking room greetings and thanks are no matter, what is written is shown, and “that was none” takes one back', async () => {
  const lena = await chat.rooms('lena');
  const before = await chat.latest();
  await lena.say('desk', 'Good morning everyone!');
  await lena.say('desk', 'Thanks everyone');
  const writer = await chat.app.as('bia');
  const { body } = await writer.call('POST', '/knowledge/articles', {
    ...{
      teamId: 'desk',
      ownerId: 'bia',
      place: 'desk',
      labels: [],
      isOpen: false,
      audience: [],
      reviewAt: null,
    },
    ...{ fromTicket: null, otherWords: { en: '', pt: '' }, body: { en: 'Until six.', pt: 'Até às seis.' } },
    title: { en: 'When the service desk is open on Fridays', pt: 'Quando o balcão abre à sexta' },
  });
  const { id } = body as { id: string };
  const lead = await chat.app.as('helder');
  expect(
    (await lead.call('POST', `/knowledge/articles/${id}/moves`, { to: 'published', version: 1 })).status,
  ).toBe(200);
  await lena.say('desk', 'Good morning, is the service desk open on Friday?');
  await lena.sees('desk', ({ forId, text }) => forId === 'c-lena' && text.includes(`/ask/articles/${id}`));
  expect(await chat.latest()).toBe(before);
  // What is broken is a matter, and was one until it is taken back: by the button, or in its thread.
  await lena.say('desk', 'The lamp over window 3 is out');
  const line = await lena.sees('desk', ({ card }) => (card?.number ?? 0) > before);
  const made = await lena.sees(
    'desk',
    ({ forId, actions }) =>
      forId === 'c-lena' && actions.some(({ id }) => id === `none:${line.card!.number}`),
  );
  await lena.act(`none:${line.card!.number}`, made.id);
  await until(
    () => chat.ticketOf(line.card!.number, 'lena'),
    ({ state }) => state === 'withdrawn',
  );
  await lena.say('desk', 'The lamp over window 5 is out');
  const other = await lena.sees('desk', ({ card }) => (card?.number ?? 0) > line.card!.number);
  await lena.say('desk', 'that was none', other.id);
  await until(
    () => chat.ticketOf(other.card!.number, 'lena'),
    ({ state }) => state === 'withdrawn',
  );
});

test('an agent takes what was said by a command: as many lines as they say, with whose matter it is', async () => {
  const [bia, lena, tomas] = await Promise.all(['bia', 'lena', 'tomas'].map(chat.rooms));
  await lena!.say('alder', 'An older matter');
  await tomas!.say('alder', 'the ramp light flickers');
  await lena!.say('alder', 'here too');
  for (let i = 1; i <= 4; i++) await tomas!.say('alder', `and lamp ${i}`);
  const { roomChanges } = chat.app.listo.db.tables;
  const forms = () => roomChanges.find({ kind: 'form', forId: 'c-bia' }, { order: ['id'] });
  const known = (await forms()).length;
  await bia!.say('alder', 'Listo, the last 6: ramp lights flicker');
  const opened = (await until(forms, ({ length }) => length > known)).at(-1)!;
  const form = opened.body as {
    fields: { name: string; value: string; choices?: { value: string }[] }[];
    callback: object;
  };
  const values = Object.fromEntries(form.fields.map(({ name, value }) => [name, value]));
  expect(values).toMatchObject({ title: 'Ramp lights flicker', requester: 'tomas' });
  const whose = form.fields.find(({ name }) => name === 'requester')!.choices!.map(({ value }) => value);
  expect(whose).toEqual(['tomas', 'lena', 'bia']);
  const before = await chat.latest();
  await bia!.call('POST', '/form', {
    roomId: 'alder',
    callback: form.callback,
    values: { ...values, service: 'other' },
  });
  const { card } = await tomas!.sees('alder', (message) => (message.card?.number ?? 0) > before);
  const text = textsOf(await chat.ticketOf(card!.number, 'bia')).join('\n');
  expect(text).toContain(
    'Tomás Veiga: the ramp light flickers\nLena Storm: here too\nTomás Veiga: and lamp 1\nand lamp 2',
  );
  expect(text).not.toContain('An older matter');
  // What someone else types so is their own matter.
  const latest = await chat.latest();
  await tomas!.say('alder', 'Listo, last 2');
  const own = await tomas!.sees('alder', (message) => (message.card?.number ?? 0) > latest);
  expect(await chat.ticketOf(own.card!.number, 'tomas')).toMatchObject({ requester: { id: 'tomas' } });
});
