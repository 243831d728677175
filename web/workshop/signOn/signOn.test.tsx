import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { api } from '../../../contract';
import type { ProviderView } from '../../../contract/signOn';
import { refuse, standIn } from '../../testing/server';
import { BIA, show } from '../../testing/show';
import { teamOf } from '../../testing/team';
import { SignOnPage } from './SignOnPage';

/** The page on which it is set where and how people sign in. */
const server = standIn();
const user = () => userEvent.setup({ delay: null });
const HELDER = { ...BIA, id: 'helder', isAdministrator: true, areas: [...BIA.areas, 'workshop' as const] };
const SOLVARRA: ProviderView = {
  ...{ id: 'solvarra', name: 'Solvarra account', issuer: 'https://sso.example', clientId: 'listo' },
  ...{ domains: ['solvarra.example', 'solvarra.pt'], isOn: true, makesPeople: false, siteId: 'alder' },
  ...{ groupsClaim: 'groups', groupTable: [{ group: 'it', teamId: 'desk', role: 'agent' as const }] },
  ...{ endsThere: true, hasSecret: true, people: 12, version: 4 },
};
const PAGE = {
  providers: [SOLVARRA],
  settings: { passwordsOnlyOf: null, factorAskedOf: 'nobody' as const },
  returnAddress: 'https://listo.example/sign-on/return',
  emergency: [{ id: 'helder', name: 'Helder Paz' }],
};
const TEAMS = [teamOf('desk', 'Service desk', [])];

async function open(address = '/workshop/signOn', me = HELDER) {
  localStorage.clear();
  server()
    .on(api.signOn.get, PAGE)
    .on(api.people.teams, TEAMS)
    .on(api.teams.sites, [
      { id: 'alder', name: 'Port Alder', timeZone: 'Europe/Lisbon', calendarId: 'office' },
    ]);
  const page = (
    <Routes>
      <Route path="workshop/signOn/:id?" element={<SignOnPage />} />
    </Routes>
  );
  await show(page, { me, address });
}
const choose = async (label: string, option: string | RegExp) => {
  await user().click(screen.getByRole('combobox', { name: label }));
  await user().click(await screen.findByRole('option', { name: option }));
};

test('only administrators see it', async () => {
  await open('/workshop/signOn', BIA);
  expect(await screen.findByText(/nothing at this address/)).toBeTruthy();
});

test('the providers stand there with their domains and how many came by them', async () => {
  await open();
  const row = (await screen.findByRole('link', { name: 'Solvarra account' })).closest('tr')!;
  expect(within(row).getByText('solvarra.example, solvarra.pt')).toBeTruthy();
  expect(within(row).getByText('12 people have come by it')).toBeTruthy();
});

test('who may have a password and of whom a code is asked is set at once; a refusal is said', async () => {
  await open();
  server().on(api.signOn.set, { ok: true });
  await screen.findByText('Passwords and codes');
  await choose('Of whom a code is asked beside the password', /all who work/);
  await waitFor(() => expect(server().callsOf(api.signOn.set)).toHaveLength(1));
  expect(server().callsOf(api.signOn.set)[0]!.body).toEqual({
    passwordsOnlyOf: null,
    factorAskedOf: 'teams',
  });
  server().on(api.signOn.set, refuse(409, 'lastWayIn'));
  await choose('Who may have a password', 'only Helder Paz, for an emergency');
  expect(await screen.findByText(/Nobody could sign in any more/)).toBeTruthy();
});

test('a provider is changed without its secret being sent or kept in a draft', async () => {
  await open('/workshop/signOn/solvarra');
  server().on(api.signOn.update, { version: 5 });
  expect(await screen.findByText('https://listo.example/sign-on/return')).toBeTruthy();
  const domains = screen.getByLabelText(/Mail domains/);
  await user().type(domains, '\nyard.example');
  await user().click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(server().callsOf(api.signOn.update)).toHaveLength(1));
  const { body } = server().callsOf(api.signOn.update)[0]!;
  expect(body).toMatchObject({ domains: ['solvarra.example', 'solvarra.pt', 'yard.example'], version: 4 });
  expect(body).not.toHaveProperty('secret');
  await user().type(screen.getByLabelText(/^Secret/), 'hush hush');
  expect(JSON.stringify(Object.entries(localStorage))).not.toContain('hush');
});

test('what does not fit is said at its field', async () => {
  await open('/workshop/signOn/new');
  const fields = [
    { field: 'issuer', code: 'addressNotAllowed' },
    { field: 'domains.0', code: 'taken' },
  ];
  server().on(api.signOn.create, refuse(422, 'fieldsNotValid', { fields }));
  await user().type(await screen.findByLabelText('Name, as people read it'), 'Yard');
  await user().type(screen.getByLabelText(/client id/), 'listo');
  await user().type(screen.getByLabelText(/Mail domains/), 'solvarra.example');
  await choose('Site of those who are made', 'Port Alder');
  await user().click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(screen.getByLabelText(/issuer/).getAttribute('aria-invalid')).toBe('true'));
  expect(screen.getByLabelText(/Mail domains/).getAttribute('aria-invalid')).toBe('true');
});

test('what a provider says of itself is shown, and so is why it does not', async () => {
  await open('/workshop/signOn/solvarra');
  server().on(api.signOn.check, { error: 'timed out', endsSessions: false });
  const ask = await screen.findByRole('button', { name: 'Ask it what it says of itself' });
  await user().click(ask);
  expect(await screen.findByText('It did not answer as it should: timed out')).toBeTruthy();
  server().on(api.signOn.check, { error: null, endsSessions: true });
  await user().click(ask);
  expect(await screen.findByText(/signs people out/)).toBeTruthy();
});

test('taking one away asks once more', async () => {
  await open('/workshop/signOn/solvarra');
  server().on(api.signOn.remove, { ok: true });
  await user().click(await screen.findByRole('button', { name: 'Take away …' }));
  expect(server().callsOf(api.signOn.remove)).toHaveLength(0);
  await user().click(screen.getByRole('button', { name: /nobody signs in there/ }));
  await waitFor(() => expect(server().callsOf(api.signOn.remove)).toHaveLength(1));
  expect(await screen.findByText('Providers')).toBeTruthy();
});
