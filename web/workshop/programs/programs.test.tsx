import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { api } from '../../../contract';
import type { ProgramView } from '../../../contract/programs';
import type { WebhookView } from '../../../contract/webhooks';
import { ALWAYS } from '../../../core/conditions';
import { refuse, standIn } from '../../testing/server';
import { BIA, show } from '../../testing/show';
import { teamOf } from '../../testing/team';
import { CallsPage } from './CallsPage';
import { ProgramsPage } from './ProgramsPage';

/** The pages on which other programs are let in and told what happens. */
const server = standIn();
const HELDER = { ...BIA, id: 'helder', isAdministrator: true, areas: [...BIA.areas, 'workshop' as const] };
const NOW = Date.now();
const program = (given: Partial<ProgramView> = {}): ProgramView => ({
  ...{ id: 'p1', name: 'Payroll link', purpose: 'Tells payroll who begins.', isOn: true, mayChange: false },
  ...{ isAdministrator: false, mayAskForOthers: false, teams: [], networks: [], perMinute: 60, endsAt: null },
  ...{ owner: { id: 'vasco', name: 'Vasco', goesFirst: false, hasLeft: false }, createdAt: NOW, version: 3 },
  keys: [],
  ...given,
});
const key = (id: string, given: Partial<ProgramView['keys'][number]> = {}): ProgramView['keys'][number] => ({
  ...{ id, createdAt: NOW, endsAt: null, revokedAt: null, lastUsedAt: null, lastUsedFrom: null },
  ...given,
});
const hook = (given: Partial<WebhookView> = {}): WebhookView => ({
  ...{ id: 'h1', programId: 'p1', name: 'To payroll', address: 'https://pay.example/told', kinds: [] },
  ...{ provided: ALWAYS, isOn: false, triedAt: null, pausedUntil: null, createdAt: NOW, version: 1 },
  ...{ waiting: 0, undelivered: 0 },
  ...given,
});

beforeEach(() => {
  localStorage.clear();
  server()
    .on(api.people.teams, [teamOf('apps', 'Applications', [])])
    .on(api.people.search, []);
  server().on(api.teams.sites, []).on(api.catalogue.list, []).on(api.webhooks.list, []);
});

async function open(
  programs: ProgramView[],
  address = '/workshop/programs',
  { language = 'en', me = HELDER }: { language?: 'en' | 'pt'; me?: typeof BIA } = {},
) {
  server().on(api.programs.list, programs);
  await show(
    <Routes>
      <Route path="workshop/programs/calls" element={<CallsPage />} />
      <Route path="workshop/programs/:id?" element={<ProgramsPage />} />
    </Routes>,
    { me, language, address },
  );
}
const press = (name: string | RegExp): boolean => fireEvent.click(screen.getByRole('button', { name }));

const nameField = (): HTMLInputElement => screen.getByLabelText<HTMLInputElement>('Name');

test('each account says what it may do, until when, and whether it is used', async () => {
  await open([
    program({ keys: [key('abc', { lastUsedAt: NOW - 60_000, lastUsedFrom: '192.0.2.7' })] }),
    program({ id: 'p2', name: 'Old link', isOn: false, endsAt: NOW - 86_400_000 }),
  ]);
  const rows = (await screen.findAllByRole('row')).map(({ textContent }) => textContent);
  expect(rows[0]).toMatch(/only reads, 1 key works, last used/);
  expect(rows[1]).toMatch(/switched off, over since .*, 0 keys work, never used/);
});

test('without any program there is the way to the first, and others than administrators find nothing', async () => {
  await open([], '/workshop/programs', { language: 'pt' });
  expect(await screen.findByText('Ainda nenhum outro programa tem acesso.')).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Novo programa' }).getAttribute('href')).toBe(
    '/workshop/programs/new',
  );
});

test('an agent finds nothing here', async () => {
  await open([], '/workshop/programs', { me: BIA });
  expect(screen.queryByText('New program')).toBeNull();
});

test('what is written of a new account outlives a reload and a refusal, which names the fields', async () => {
  await open([], '/workshop/programs/new');
  fireEvent.change(await screen.findByLabelText('Name'), { target: { value: 'Door link' } });
  fireEvent.change(screen.getByLabelText(/Only from these/), { target: { value: '192.0.2.0/24\noffice' } });
  server().on(
    api.programs.create,
    refuse(422, 'fieldsNotValid', { fields: [{ field: 'networks.1', code: 'noNetwork' }] }),
  );
  press('Save');
  expect(await screen.findByText('This is neither an address nor a network.')).toBeTruthy();
  expect(nameField().value).toBe('Door link');
  let sent: unknown;
  server().on(api.programs.create, ({ body }) => {
    sent = body;
    server().on(api.programs.list, [program({ id: 'made', name: 'Door link' })]);
    return { id: 'made' };
  });
  press('Save');
  expect(await screen.findByRole('button', { name: 'Make a key' })).toBeTruthy();
  expect(sent).toMatchObject({ name: 'Door link', networks: ['192.0.2.0/24', 'office'], ownerId: 'helder' });
});

test('a key is shown once; while two work no third can be made', async () => {
  await open([program({ keys: [key('one')] })], '/workshop/programs/p1');
  server().on(api.programs.createKey, () => {
    server().on(api.programs.list, [program({ keys: [key('two'), key('one')] })]);
    return { id: 'two', key: 'listo_two_secret' };
  });
  fireEvent.click(await screen.findByRole('button', { name: 'Make a key' }));
  expect((await screen.findByTestId('secret')).textContent).toBe('listo_two_secret');
  press('I have it');
  await waitFor(() => expect(screen.queryByTestId('secret')).toBeNull());
  await waitFor(() =>
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Make a key' }).disabled).toBe(true),
  );
  let revoked: unknown;
  server().on(api.programs.revokeKey, ({ params }) => {
    revoked = params;
    return { ok: true as const };
  });
  press('Take back the key one');
  await waitFor(() => expect(revoked).toEqual({ id: 'p1', keyId: 'one' }));
});

test('who saves what somebody else has changed meanwhile keeps what they typed, and can look at theirs', async () => {
  await open([program()], '/workshop/programs/p1');
  fireEvent.change(await screen.findByLabelText('Name'), { target: { value: 'Mine' } });
  server().on(api.programs.update, refuse(409, 'stale'));
  press('Save');
  const alert = await screen.findByRole('alert');
  expect(nameField().value).toBe('Mine');
  server().on(api.programs.list, [program({ name: 'Theirs', version: 4 })]);
  fireEvent.click(within(alert).getByRole('button'));
  await waitFor(() => expect(nameField().value).toBe('Theirs'));
});

test('a webhook is switched on once an example was taken, and says how it was answered before', async () => {
  server().on(api.webhooks.list, [hook()]);
  await open([program()], '/workshop/programs/p1');
  const on = await screen.findByRole<HTMLInputElement>('switch', { name: 'Tell To payroll' });
  expect(on.disabled).toBe(true);
  const answer = { isTaken: false, status: 500, answer: 'no room', sent: '{}' };
  server().on(api.webhooks.try, answer);
  press('Send an example to To payroll');
  expect((await screen.findByRole('status')).textContent).toContain('Not taken (500): no room');
  server().on(api.webhooks.try, () => {
    server().on(api.webhooks.list, [hook({ triedAt: NOW })]);
    return { ...answer, isTaken: true, status: 204 };
  });
  press('Send an example to To payroll');
  await waitFor(() => expect(on.disabled).toBe(false));
  let body: unknown;
  server().on(api.webhooks.switch, (call) => {
    body = call.body;
    return { version: 2 };
  });
  fireEvent.click(on);
  await waitFor(() => expect(body).toEqual({ version: 1, isOn: true }));
});

test('the secret of a new webhook is shown once, and its kinds are chosen by what happens', async () => {
  await open([program()], '/workshop/programs/p1');
  fireEvent.click(await screen.findByRole('button', { name: 'Tell it something' }));
  fireEvent.change(await screen.findByLabelText('Name', { selector: '[role=dialog] input' }), {
    target: { value: 'Doors' },
  });
  fireEvent.change(screen.getByLabelText('Address, over TLS'), {
    target: { value: 'https://doors.example/' },
  });
  let sent: unknown;
  server().on(api.webhooks.create, ({ body }) => {
    sent = body;
    return { id: 'h2', secret: 'whsec_once' };
  });
  fireEvent.click(within(screen.getByRole('dialog')).getByRole('button', { name: 'Save' }));
  expect((await screen.findByTestId('secret')).textContent).toBe('whsec_once');
  expect(sent).toEqual({ name: 'Doors', address: 'https://doors.example/', kinds: [], provided: ALWAYS });
});

test('what was not delivered is what one sees first, and goes once more by hand', async () => {
  const delivery = {
    ...{
      id: 7,
      messageId: 'm',
      entryId: 1,
      ticketNumber: 20_418,
      type: 'ticket.done',
      state: 'undelivered' as const,
    },
    ...{ tries: 10, at: NOW, nextAt: NOW, lastAt: NOW, status: 503, answer: 'away' },
  };
  let asked: unknown;
  server()
    .on(api.webhooks.list, [hook({ triedAt: NOW, undelivered: 1 })])
    .on(api.webhooks.deliveries, ({ query }) => {
      asked = query;
      return { rows: [delivery], before: null };
    })
    .on(api.webhooks.delivery, { ...delivery, body: '{"type":"ticket.done"}' });
  await open([program()], '/workshop/programs/p1');
  fireEvent.click(await screen.findByRole('button', { name: 'Messages to To payroll' }));
  expect(await screen.findByText(/Ticket 20418/)).toBeTruthy();
  expect(asked).toEqual({ state: 'undelivered' });
  let count = 0;
  server().on(api.webhooks.sendAllAgain, () => ({ count: ++count }));
  press('Send all that were not delivered once more');
  await waitFor(() => expect(count).toBe(1));
});

test('calls to outside addresses: each with its answer, or why there was none', async () => {
  const made = {
    at: NOW,
    kind: 'webhook' as const,
    ref: 'h1',
    address: 'https://pay.example/told',
    ms: 12,
    bytes: 0,
  };
  server().on(api.calls.list, ({ query }) => ({
    rows: [
      ...(query.only ? [] : [{ ...made, id: 2, status: 204, error: null }]),
      { ...made, id: 1, status: null, error: 'leads into a private network' },
    ],
    before: null,
  }));
  await open([], '/workshop/programs/calls');
  expect(await screen.findByText('204')).toBeTruthy();
  expect(screen.getByText('leads into a private network')).toBeTruthy();
  fireEvent.click(screen.getByLabelText('Only those that failed'));
  await waitFor(() => expect(screen.queryByText('204')).toBeNull());
});
