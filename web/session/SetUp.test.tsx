import { fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { api } from '../../contract';
import { AWAY, refuse, standIn } from '../testing/server';
import { show } from '../testing/show';
import { SetUp } from './SetUp';

const server = standIn();
const FILLED = {
  ...{ Code: 'k7m-x2q-p9r-w4t', Organisation: 'Quayside', 'Your name': 'Nell Harper' },
  ...{ 'Mail address': 'nell@quayside.example', 'Time zone': 'Europe/Lisbon' },
  'Password (at least 12 characters)': 'long enough for this',
};
const SENT = {
  ...{ code: 'k7m-x2q-p9r-w4t', organisation: 'Quayside', name: 'Nell Harper' },
  ...{ email: 'nell@quayside.example', password: 'long enough for this', timeZone: 'Europe/Lisbon' },
};
const fill = (values: Record<string, string>) => {
  for (const [label, value] of Object.entries(values))
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
};
const begin = () => userEvent.setup({ delay: null }).click(screen.getByRole('button', { name: 'Begin' }));

test('what was filled in goes to the server; the zone is that of the browser to begin with', async () => {
  server().on(api.session.setUp, { ok: true });
  await show(<SetUp />);
  expect(screen.getByLabelText('Time zone')).toHaveProperty(
    'value',
    Intl.DateTimeFormat().resolvedOptions().timeZone,
  );
  fill(FILLED);
  await begin();
  await waitFor(() => expect(server().callsOf(api.session.setUp)).toHaveLength(1));
  expect(server().callsOf(api.session.setUp)[0]!.body).toEqual(SENT);
});

test('a wrong code says so, and all that was filled in stays', async () => {
  server().on(api.session.setUp, refuse(403, 'wrongCode'));
  await show(<SetUp />);
  fill(FILLED);
  await begin();
  expect((await screen.findByRole('alert')).textContent).toMatch(/wrong code|start command/i);
  for (const [label, value] of Object.entries(FILLED))
    expect(screen.getByLabelText(label)).toHaveProperty('value', value);
});

test.each([
  ['email', 'malformed', 'Mail address'],
  ['password', 'tooShort', 'Password (at least 12 characters)'],
  ['timeZone', 'malformed', 'Time zone'],
])('what is wrong with %s stands at its field', async (field, code, label) => {
  server().on(api.session.setUp, refuse(422, 'fieldsNotValid', { fields: [{ field, code }] }));
  await show(<SetUp />);
  fill(FILLED);
  await begin();
  // The words are tied to the field that they are about.
  await waitFor(() => {
    const described = screen.getByLabelText(label).getAttribute('aria-describedby') ?? '';
    const words = described.split(' ').map((id) => document.getElementById(id)?.textContent ?? '');
    expect(words.join(' ')).toMatch(/too short|written like this|does not|not like/i);
  });
});

test('without a connection it says so, and can be sent again', async () => {
  server().on(api.session.setUp, AWAY);
  await show(<SetUp />);
  fill(FILLED);
  await begin();
  expect(await screen.findByText(/No connection/)).toBeTruthy();
  server().on(api.session.setUp, { ok: true });
  await begin();
  await waitFor(() => expect(server().callsOf(api.session.setUp)).toHaveLength(2));
});
