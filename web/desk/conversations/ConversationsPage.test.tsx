import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { api } from '../../../contract';
import type { Conversation, ConversationShort, LineCard } from '../../../contract/conversations';
import { AWAY, refuse, standIn, type StandInServer } from '../../testing/server';
import { BIA, show } from '../../testing/show';
import { teamOf } from '../../testing/team';
import { AT, TOMAS } from '../../testing/ticket';
import { ConversationsPage } from './ConversationsPage';

const server = standIn();
const OK = { ok: true } as const;
const it = { en: 'IT', pt: 'Informática' };
const bia = { id: 'bia', name: 'Bia Rocha', goesFirst: false };
const whoWaits = { who: 'person' as const, since: AT };

const shortOf = (id: string, given: Partial<ConversationShort> = {}): ConversationShort => ({
  ...{ id, state: 'open', person: TOMAS, line: it, agent: 'Bia Rocha', isMine: true, isOfferedToMe: false },
  ...{ offeredUntil: null, handedBy: null, since: AT, whoWaits, lastWords: `Words of ${id}`, facts: {} },
  ...given,
});
const side = {
  ...{ isMine: true, isOfferedToMe: false, handedBy: null, handedWhy: null, assetTag: null },
  ...{ invited: [], openTickets: [], before: [] },
};
const conversationOf = (id: string, given: Partial<Conversation> = {}): Conversation => ({
  ...{ id, state: 'open', person: TOMAS, line: { id: 'it', name: it, serviceId: null }, agent: bia },
  ...{ startedAt: AT, endedAt: null, endedBy: null, ahead: 0, wait: null, whoWaits, mayComeBack: false },
  ...{ rating: null, ticket: null, side, version: 1 },
  entries: [
    {
      ...{ place: 1, at: AT, author: TOMAS, type: 'words', readBy: 'all', text: 'My kiosk froze', data: {} },
      files: [],
    },
  ],
  ...given,
});
const lineOf = (id: string, en: string): LineCard => ({
  ...{ id, name: { en, pt: en }, about: it, isOpen: true, opensAt: null, closedWords: it, serviceId: null },
  ...{ waiting: 0, wait: null },
});
const team = teamOf('desk', 'Service desk', [
  ['bia', 'Bia Rocha'],
  ['rui', 'Rui Pacheco'],
]);

/** A desk with these conversations, as its server has it. */
function desk(rows: ConversationShort[]): StandInServer {
  return server()
    .on(api.conversations.atDesk, { agent: { presence: 'available', capacity: 3, alert: 'none' }, rows })
    .on(api.conversations.get, ({ params }) => conversationOf(params.id))
    .on(api.conversations.lines, [lineOf('hr', 'People and pay'), lineOf('it', 'IT')])
    .on(api.people.teams, [team])
    .on(api.people.card, refuse(404, 'notFound'))
    .on(api.readyTexts.list, [])
    .on(api.knowledge.search, [])
    .on(api.catalogue.search, { services: [] });
}
const open = (address = '/desk/conversations/one', options: Parameters<typeof show>[1] = {}) =>
  show(
    <Routes>
      <Route path="/desk/conversations/:id?" element={<ConversationsPage />} />
    </Routes>,
    { address, ...options },
  );

async function openHandOver(user: ReturnType<typeof userEvent.setup>): Promise<HTMLElement> {
  await user.click(await screen.findByRole('button', { name: 'Hand over …' }));
  return screen.findByRole('dialog');
}

test('handing to another line leaves the conversation, and says that it went well', async () => {
  const user = userEvent.setup({ delay: null });
  desk([shortOf('one')]).on(api.conversations.handOver, ({ params }) => {
    // From now on it is the other team's, which alone reads it.
    desk([]).on(api.conversations.get, refuse(404, 'notFound'));
    expect(params.id).toBe('one');
    return OK;
  });
  await open();
  const dialog = await openHandOver(user);
  await user.selectOptions(within(dialog).getByRole('combobox'), 'People and pay');
  await user.type(within(dialog).getByRole('textbox'), 'About pay');
  await user.click(within(dialog).getByRole('button', { name: 'Send' }));
  expect(await screen.findByText('Handed to the line People and pay, with all that was said.')).toBeTruthy();
  expect(await screen.findByRole('heading', { level: 1, name: 'Conversations' })).toBeTruthy();
  expect(screen.queryByText(/nothing at this address/i)).toBeNull();
  expect(server().callsOf(api.conversations.handOver)[0]!.body).toEqual({
    ...{ agentId: null, lineId: 'hr', why: 'About pay' },
  });
});

test('handing to a colleague keeps the conversation until they take it', async () => {
  const user = userEvent.setup({ delay: null });
  desk([shortOf('one')]).on(api.conversations.handOver, { ok: true });
  await open();
  const dialog = await openHandOver(user);
  const choice = within(dialog).getByRole('combobox');
  // Nobody hands to themselves, and a word on why goes along.
  expect(within(choice).queryByRole('option', { name: 'Bia Rocha' })).toBeNull();
  await user.selectOptions(choice, 'Rui Pacheco');
  const send = within(dialog).getByRole('button', { name: 'Send' });
  expect(send).toHaveProperty('disabled', true);
  await user.type(within(dialog).getByRole('textbox'), 'You know kiosks');
  await user.click(send);
  expect(await screen.findByText('Offered to Rui Pacheco. You keep it until they take it.')).toBeTruthy();
  expect(screen.getByRole('heading', { level: 1, name: 'Tomás Veiga' })).toBeTruthy();
});

test('a handing that is refused says why, and what was written stays', async () => {
  const user = userEvent.setup({ delay: null });
  desk([shortOf('one')]).on(api.conversations.handOver, refuse(409, 'lineClosed'));
  await open();
  const dialog = await openHandOver(user);
  await user.selectOptions(within(dialog).getByRole('combobox'), 'People and pay');
  await user.type(within(dialog).getByRole('textbox'), 'About pay');
  await user.click(within(dialog).getByRole('button', { name: 'Send' }));
  expect((await within(dialog).findByRole('alert')).textContent).toMatch(/nobody is there/i);
  expect(within(dialog).getByRole('textbox')).toHaveProperty('value', 'About pay');
});

test('words that could not be sent stay, are sent again, and then the line is empty', async () => {
  const user = userEvent.setup({ delay: null });
  desk([shortOf('one')])
    .on(api.conversations.writing, { ok: true })
    .on(api.conversations.say, AWAY);
  await open();
  const line = await screen.findByRole('textbox', { name: 'To Tomás Veiga' });
  await user.type(line, 'Have you restarted it?');
  await user.click(screen.getByRole('button', { name: 'Send' }));
  expect(await screen.findByText(/No connection/)).toBeTruthy();
  expect(line).toHaveProperty('value', 'Have you restarted it?');
  // Also over a reload.
  await open();
  const again = await screen.findByRole('textbox', { name: 'To Tomás Veiga' });
  expect(again).toHaveProperty('value', 'Have you restarted it?');
  desk([shortOf('one')]).on(api.conversations.say, { ok: true });
  await user.click(screen.getByRole('button', { name: 'Send' }));
  await waitFor(() => expect(again).toHaveProperty('value', ''));
  const said = server().callsOf(api.conversations.say);
  expect(said.map(({ body }) => body)).toEqual(
    [1, 2].map(() => ({ text: 'Have you restarted it?', readBy: 'all', fileIds: [] })),
  );
});

test('what is said among agents is a draft of its own and goes to them alone', async () => {
  const user = userEvent.setup({ delay: null });
  desk([shortOf('one')])
    .on(api.conversations.writing, { ok: true })
    .on(api.conversations.say, { ok: true });
  await open();
  await user.type(await screen.findByRole('textbox', { name: 'To Tomás Veiga' }), 'One moment');
  await user.click(screen.getByText('Among agents'));
  const beside = await screen.findByRole('textbox', { name: 'Tomás Veiga does not see this' });
  expect(beside).toHaveProperty('value', '');
  await user.type(beside, 'Who knows kiosk 3?');
  await user.click(screen.getByRole('button', { name: 'Send' }));
  await waitFor(() =>
    expect(server().callsOf(api.conversations.say)[0]?.body).toMatchObject({
      ...{ text: 'Who knows kiosk 3?', readBy: 'agents' },
    }),
  );
  await user.click(screen.getByText('To Tomás Veiga'));
  expect(screen.getByRole('textbox', { name: 'To Tomás Veiga' })).toHaveProperty('value', 'One moment');
});

test('what is offered can be taken or left, and one that a colleague took first says so', async () => {
  const user = userEvent.setup({ delay: null });
  const offer = shortOf('new', {
    isOfferedToMe: true,
    isMine: false,
    agent: null,
    offeredUntil: Date.now() + 20_000,
  });
  desk([offer]).on(api.conversations.accept, refuse(409, 'alreadyTaken'));
  await open('/desk/conversations');
  await user.click(await screen.findByRole('button', { name: 'Take it' }));
  expect((await screen.findByRole('alert')).textContent).toMatch(/colleague was first/i);
  desk([shortOf('new')]).on(api.conversations.accept, { ok: true });
  await user.click(screen.getByRole('button', { name: 'Take it' }));
  expect(await screen.findByRole('heading', { level: 1, name: 'Tomás Veiga' })).toBeTruthy();
});

test('whoever waits longest stands first; what is others’ stands apart', async () => {
  const at = (minutes: number) => ({ who: 'person' as const, since: AT + minutes * 60_000 });
  desk([
    shortOf('late', { whoWaits: at(5) }),
    shortOf('theirs', { isMine: false, agent: null }),
    shortOf('early', { whoWaits: at(1) }),
    shortOf('mine', { whoWaits: { who: 'agent', since: AT } }),
  ]);
  await open('/desk/conversations');
  const links = (await screen.findAllByRole('link')).map(({ textContent }) => textContent);
  const place = (id: string) => links.findIndex((text) => text.includes(`Words of ${id}`));
  expect([place('early'), place('late'), place('mine'), place('theirs')]).toEqual([0, 1, 2, 3]);
});

test('empty, failed, forbidden and gone each say so; in Portuguese too', async () => {
  desk([]);
  await open('/desk/conversations');
  expect(await screen.findAllByText('None now.')).toHaveLength(2);
  desk([]).on(api.conversations.atDesk, refuse(500, 'unexpected'));
  await open('/desk/conversations');
  expect(await screen.findByRole('alert')).toBeTruthy();
  desk([]);
  await open('/desk/conversations', { me: { ...BIA, areas: ['ask'], teams: [] } });
  expect(await screen.findByText(/nothing at this address/i)).toBeTruthy();
  desk([]).on(api.conversations.get, refuse(404, 'notFound'));
  await open();
  expect(await screen.findByText(/nothing at this address/i)).toBeTruthy();
  desk([]);
  await open('/desk/conversations', { language: 'pt' });
  expect(await screen.findByRole('heading', { level: 1, name: 'Conversas' })).toBeTruthy();
});
