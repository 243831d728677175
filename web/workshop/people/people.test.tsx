import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { api } from '../../../contract';
import type { KeptPerson } from '../../../contract/organisation';
import { AWAY, refuse, standIn } from '../../testing/server';
import { BIA, sessionWith, show } from '../../testing/show';
import { Forgotten } from '../../session/Forgotten';
import { WelcomePage } from '../../session/WelcomePage';
import { KeptPersonPage } from './KeptPersonPage';
import { NOBODY } from './facts';
import { NewPerson } from './NewPerson';
import { PeoplePage } from './PeoplePage';

/** The pages on which people are kept, before a server whose answers fit the contract. */
const server = standIn();
const HELDER = {
  ...BIA,
  id: 'helder',
  name: 'Helder Paz',
  isAdministrator: true,
  areas: [...BIA.areas, 'workshop' as const],
};
const SITES = [{ id: 'alder', name: 'Port Alder', timeZone: 'Europe/Lisbon', calendarId: 'office' }];
const DAY = 86_400_000;

const nadia = (given: Partial<KeptPerson> = {}): KeptPerson => ({
  ...{ ...NOBODY, id: 'nadia', name: 'Nadia Reis', email: 'nadia@solvarra.example', siteId: 'alder' },
  ...{ version: 3, leftAt: null, manager: null, teams: [], wayIn: 'none', invitation: null },
  ...{ sessions: 0, history: [], hasFactor: false, providers: [] },
  ...given,
});
const listed = (id: string, name: string) => ({
  ...{ id, name, goesFirst: false, title: 'Clerk', department: 'Stores', site: 'Port Alder', leftAt: null },
  ...{
    email: `${id}@solvarra.example`,
    isAway: false,
    isAdministrator: false,
    teams: [],
    wayIn: 'none' as const,
  },
});
beforeEach(() => {
  localStorage.clear();
  server().on(api.teams.sites, SITES).on(api.people.teams, []).on(api.people.search, []);
  server().on(api.session.get, sessionWith(HELDER));
});
const fill = (label: string, value: string): boolean =>
  fireEvent.change(screen.getByRole('textbox', { name: label }), { target: { value } });
const press = (name: string | RegExp): boolean => fireEvent.click(screen.getByRole('button', { name }));

async function openPerson(person: KeptPerson, language: 'en' | 'pt' = 'en'): Promise<void> {
  server().on(api.organisation.person, person);
  await show(
    <Routes>
      <Route path="workshop/people/:id" element={<KeptPersonPage />} />
    </Routes>,
    { me: HELDER, language, address: '/workshop/people/nadia' },
  );
  await screen.findByRole('heading', { name: 'Nadia Reis' });
}

test('the list is narrowed by what stands in the address, and goes on page by page', async () => {
  server().on(api.organisation.people, ({ query }) =>
    query.after === undefined
      ? { rows: [listed('nadia', 'Nadia Reis')], after: 'next' }
      : { rows: [listed('otto', 'Otto Brand')], after: null },
  );
  await show(<PeoplePage />, { me: HELDER, address: '/workshop/people?siteId=alder' });
  await screen.findByRole('link', { name: 'Nadia Reis' });
  expect(server().callsOf(api.organisation.people)[0]!.query).toMatchObject({
    siteId: 'alder',
    state: 'here',
  });
  press('More people');
  await screen.findByRole('link', { name: 'Otto Brand' });
  expect(screen.queryByRole('button', { name: 'More people' })).toBeNull();
  fill('Find by name, mail, department or title', 'ott');
  await waitFor(() => expect(server().callsOf(api.organisation.people).at(-1)!.query.q).toBe('ott'));
});

test('nobody fits, the list fails, and one who keeps no people sees no list', async () => {
  server().on(api.organisation.people, { rows: [], after: null });
  await show(<PeoplePage />, { me: HELDER });
  await screen.findByText(/Nobody is listed with this/);
  server().on(api.organisation.people, refuse(500, 'internal'));
  await show(<PeoplePage />, { me: HELDER });
  await screen.findByRole('alert');
  await show(<PeoplePage />, { me: BIA });
  expect(screen.queryByText('Add a person …')).toBeNull();
});

test('what is typed of a new person outlasts a reload and a refusal, which says what to mend', async () => {
  server().on(api.organisation.alike, [listed('nadja', 'Nadja Reis')]);
  server().on(
    api.organisation.create,
    refuse(422, 'fieldsNotValid', { fields: [{ field: 'person.email', code: 'taken' }] }),
  );
  await show(<NewPerson onClose={() => undefined} />, { me: HELDER });
  fill('Name', 'Nadia Reis');
  fill('Mail', 'nadia@solvarra.example');
  // Whoever may be the same is shown before anyone is made twice.
  await screen.findByRole('link', { name: 'Nadja Reis' });
  press('Add Nadia Reis');
  await screen.findByText('This is taken already.');
  await show(<NewPerson onClose={() => undefined} />, { me: HELDER });
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' }).value).toBe('Nadia Reis');
  server().on(api.organisation.create, { id: 'nadia' });
  press('Add Nadia Reis');
  await waitFor(() => expect(server().callsOf(api.organisation.create)).toHaveLength(2));
  const [, sent] = server().callsOf(api.organisation.create);
  // The only site there is has not to be chosen.
  expect(sent!.body).toMatchObject({ person: { name: 'Nadia Reis', siteId: 'alder' }, isInvited: true });
  expect(sent!.key).not.toBeNull();
  await waitFor(() => expect(JSON.stringify(localStorage)).not.toContain('Nadia'));
});

test('a change is saved with the version that it was made of; a stale one keeps what was typed', async () => {
  await openPerson(nadia());
  server().on(
    api.organisation.update,
    refuse(409, 'stale', {
      differences: [{ field: 'title', theirs: 'Cook', yours: 'Purser', by: null }],
    }),
  );
  expect(screen.getByRole('button', { name: 'Save' })).toHaveProperty('disabled', true);
  fill('Title', 'Purser');
  press('Save');
  await screen.findByText(/Somebody else has changed this meanwhile: Title/);
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Title' }).value).toBe('Purser');
  expect(server().callsOf(api.organisation.update)[0]!.body).toMatchObject({
    ...{ version: 3, person: { title: 'Purser' } },
  });
  server().on(api.organisation.person, nadia({ version: 4, title: 'Cook' }));
  press('Show what is there now');
  await waitFor(() =>
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Title' }).value).toBe('Cook'),
  );
});

test('what is typed is saved against what it was begun on, also where the person was read anew beside it', async () => {
  const team = {
    teamId: 'stores',
    name: { en: 'Stores', pt: 'Armazém' },
    role: 'agent' as const,
    groupId: null,
  };
  await openPerson(nadia({ teams: [team] }));
  fill('Title', 'Purser');
  // Somebody else has changed her meanwhile, which comes along with the change of a team.
  server().on(api.organisation.removeMember, { ok: true });
  server().on(api.organisation.person, nadia({ version: 4, title: 'Cook' }));
  press('Take out of Stores');
  await screen.findByText(/In no team/);
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Title' }).value).toBe('Purser');
  server().on(api.organisation.update, { version: 5 });
  press('Save');
  await waitFor(() => expect(server().callsOf(api.organisation.update)).toHaveLength(1));
  expect(server().callsOf(api.organisation.update)[0]!.body).toMatchObject({ version: 3 });
});

test('a link is shown to be handed over where no mail leaves, and can be made anew', async () => {
  await openPerson(nadia());
  const link = 'https://listo.example/welcome/abc';
  const now = Date.now();
  server().on(api.organisation.invite, {
    ...{ at: now, endsAt: now + 7 * DAY, byName: 'Helder Paz', link, isMailed: false },
  });
  server().on(
    api.organisation.person,
    nadia({ wayIn: 'invited', invitation: { at: now, endsAt: now + 7 * DAY, byName: 'Helder Paz' } }),
  );
  press('Invite');
  await screen.findByText(/hand this link over yourself/);
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Link' }).value).toBe(link);
  await screen.findByRole('button', { name: 'Send a new link' });
});

test('someone is taken out of a team, and what was changed stands in words, in Portuguese too', async () => {
  const team = { en: 'Stores', pt: 'Armazém' };
  await openPerson(
    nadia({
      wayIn: 'password',
      teams: [{ teamId: 'stores', name: team, role: 'agent', groupId: null }],
      history: [
        { at: 0, byName: 'Helder Paz', type: 'personChanged', fields: ['title', 'goesFirst'], team: null },
      ],
    }),
    'pt',
  );
  expect(screen.getByText(/mudou: Função, Passa à frente/)).toBeTruthy();
  expect(screen.getByText(/não está ligado em lado nenhum/)).toBeTruthy();
  server().on(api.organisation.removeMember, { ok: true }).on(api.organisation.person, nadia());
  const own = screen.getByRole('group', { name: 'Armazém' });
  fireEvent.click(within(own).getByRole('button', { name: 'Tirar de Armazém' }));
  await screen.findByText('Em nenhuma equipa: pede e concorda.');
  expect(server().callsOf(api.organisation.removeMember)[0]!.params).toEqual({
    id: 'nadia',
    teamId: 'stores',
  });
});

const openLink = (): Promise<unknown> =>
  show(
    <Routes>
      <Route path="welcome/:token" element={<WelcomePage />} />
      <Route path="ask" element={<p>inside</p>} />
    </Routes>,
    { address: '/welcome/abcdefghijklmnopqrstuvwxyz' },
  );
const organisation = 'Solvarra Ferries';

test('a link lets in with a password that is hard to guess', async () => {
  server().on(api.organisation.invitation, {
    ...{ state: 'open', name: 'Nadia Reis', email: 'nadia@solvarra.example', organisation },
  });
  server().on(
    api.organisation.accept,
    refuse(422, 'fieldsNotValid', { fields: [{ field: 'password', code: 'tooSimple' }] }),
  );
  await openLink();
  await screen.findByRole('heading', { name: 'Welcome to Solvarra Ferries' });
  const field = screen.getByLabelText(/^Password/);
  fireEvent.change(field, { target: { value: 'aaaaaaaaaaaa' } });
  press('Come in');
  await screen.findByText(/too easy to guess/);
  server().on(api.organisation.accept, { ok: true });
  fireEvent.change(field, { target: { value: 'a calm crossing' } });
  press('Come in');
  await screen.findByText('inside');
});

test.each([
  ['used', /has let you in already/],
  ['ended', /has ended/],
  ['replaced', /later link/],
] as const)('a link that is %s says so', async (state, words) => {
  server().on(api.organisation.invitation, { state, name: '', email: '', organisation });
  await openLink();
  await screen.findByText(words);
});

test('a link that is not known says what to look at', async () => {
  server().on(api.organisation.invitation, refuse(404, 'notFound'));
  await openLink();
  await screen.findByText(/not known here/);
});

test('a forgotten password: a link is asked for, and the answer does not tell who is known', async () => {
  server().on(api.organisation.forgotten, { ok: true });
  await show(<Forgotten email="nadia@solvarra.example" />);
  press('Forgotten your password?');
  // What was typed to sign in has not to be typed again.
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: /mail/i }).value).toBe(
    'nadia@solvarra.example',
  );
  press('Send me a link');
  await screen.findByText(/If nadia@solvarra.example is known here/);
  expect(server().callsOf(api.organisation.forgotten)[0]!.body).toEqual({ email: 'nadia@solvarra.example' });
});

test('a link that cannot be asked for says so, and what was typed stays', async () => {
  server().on(api.organisation.forgotten, AWAY);
  await show(<Forgotten email="nadia@solvarra.example" />);
  press('Forgotten your password?');
  press('Send me a link');
  await screen.findByRole('alert');
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: /mail/i }).value).toBe(
    'nadia@solvarra.example',
  );
});

test('who has left is erased once the name is typed and a reason given; what goes is said before', async () => {
  const left = nadia({ leftAt: Date.now() - DAY });
  const counts = { tickets: 1, messages: 4, files: 2, conversations: 0, mails: 3, entries: 12 };
  server().on(api.privacy.counts, counts);
  await openPerson(left);
  expect(screen.getByText('All of it as one archive (ZIP)').getAttribute('href')).toBe(
    '/api/v1/workshop/people/nadia/archive',
  );
  press('Erase …');
  expect(await screen.findByText('1 ticket loses its title and answers')).toBeTruthy();
  const erase = screen.getByRole<HTMLButtonElement>('button', { name: 'Erase for good' });
  fill('Why (kept on record)', 'She asked for it.');
  expect(erase.disabled).toBe(true);
  fill('Type their name: Nadia Reis', 'Nadia Reis');
  let sent: unknown;
  server().on(api.privacy.erase, ({ body }) => {
    sent = body;
    return counts;
  });
  fireEvent.click(erase);
  await waitFor(() => expect(sent).toEqual({ name: 'Nadia Reis', reason: 'She asked for it.' }));
});

test('who is still here cannot be erased; that is said', async () => {
  await openPerson(nadia(), 'pt');
  expect(screen.getByText('Quem saiu pode ser apagado.')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Apagar …' })).toBeNull();
});
