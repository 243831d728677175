import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { api } from '../../../contract';
import type { Team } from '../../../contract/people';
import { DEFAULT_WEIGHTS } from '../../../core/worklist';
import { refuse, standIn } from '../../testing/server';
import { BIA, show } from '../../testing/show';
import { HoursPage } from './HoursPage';

/** The page on which teams, their groups and sites are made. */
const server = standIn();
const HELDER = { ...BIA, id: 'helder', isAdministrator: true, areas: [...BIA.areas, 'workshop' as const] };
const STORES: Team = {
  ...{
    id: 'stores',
    name: { en: 'Fleet stores', pt: 'Armazéns da frota' },
    isConfidential: false,
    version: 1,
  },
  ...{ calendarId: 'office', outOfHours: { goesTo: null, priorities: [], words: null }, progressLabels: [] },
  ...{ decidesInChat: true, answersMail: false, givenOnBy: [], readBy: null, orderWeights: DEFAULT_WEIGHTS },
  ...{ mayLead: true, mayEdit: true, groups: [{ id: 'g1', name: 'Quay' }], members: [] },
};
const SPEC = { name: 'Office', timeZone: 'Europe/Lisbon', hoursPerDay: 8, weekly: {}, exceptions: [] };

async function open(team = STORES, me = HELDER): Promise<void> {
  server()
    .on(api.people.teams, [team])
    .on(api.teams.sites, [])
    .on(api.calendars.list, [
      { id: 'office', spec: SPEC, version: 1, usedBy: { teams: [], sites: [], targets: [] }, mayEdit: true },
    ]);
  await show(<HoursPage />, { me });
  await screen.findByText('Fleet stores');
}

test('a group is added to a team; a name that is there already is said at its field and stays', async () => {
  await open();
  expect(screen.getByText('Quay')).toBeTruthy();
  const form = screen.getByRole('form', { name: 'New group of Fleet stores' });
  const field = within(form).getByRole<HTMLInputElement>('textbox');
  server().on(
    api.organisation.createGroup,
    refuse(422, 'fieldsNotValid', { fields: [{ field: 'name', code: 'taken' }] }),
  );
  fireEvent.change(field, { target: { value: 'Quay' } });
  fireEvent.submit(form);
  await screen.findByText('This is taken already.');
  expect(field.value).toBe('Quay');
  server().on(api.organisation.createGroup, { id: 'g2' });
  server().on(api.people.teams, [{ ...STORES, groups: [...STORES.groups, { id: 'g2', name: 'Night' }] }]);
  fireEvent.change(field, { target: { value: 'Night' } });
  fireEvent.submit(form);
  await screen.findByText('Quay, Night');
  expect(field.value).toBe('');
});

test('who may not set a team up adds no group and no site', async () => {
  await open({ ...STORES, mayEdit: false, mayLead: false }, { ...HELDER, isAdministrator: false });
  expect(screen.queryByRole('form')).toBeNull();
  expect(screen.queryByRole('button', { name: 'New site …' })).toBeNull();
});

test('a site is made in the zone of whoever makes it', async () => {
  await open();
  fireEvent.click(screen.getByRole('button', { name: 'New site …' }));
  const dialog = await screen.findByRole('dialog');
  const save = within(dialog).getByRole('button', { name: 'Save it' });
  expect(save).toHaveProperty('disabled', true);
  fireEvent.change(within(dialog).getByRole('textbox', { name: 'Name of the site' }), {
    target: { value: 'Ponta Sul' },
  });
  server().on(api.organisation.createSite, { id: 'sul' });
  fireEvent.click(save);
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  expect(server().callsOf(api.organisation.createSite)[0]!.body).toEqual({
    ...{ name: 'Ponta Sul', timeZone: 'Europe/Lisbon', calendarId: 'office' },
  });
});

test('a team’s work is closed to other teams but one, with the way back', async () => {
  const desk: Team = { ...STORES, id: 'desk', name: { en: 'Service desk', pt: 'Service desk' } };
  server()
    .on(api.people.teams, [STORES, desk])
    .on(api.teams.sites, [])
    .on(api.calendars.list, [
      { id: 'office', spec: SPEC, version: 1, usedBy: { teams: [], sites: [], targets: [] }, mayEdit: true },
    ])
    .on(api.teams.update, { version: 2 });
  await show(<HoursPage />, { me: HELDER });
  const who = await screen.findByRole('combobox', { name: 'Who else reads its tickets: Fleet stores' });
  expect(who).toHaveProperty('value', 'every team');
  fireEvent.click(who);
  fireEvent.click(await screen.findByRole('option', { name: 'these teams' }));
  // Nothing is kept before a team is named.
  expect(server().callsOf(api.teams.update)).toEqual([]);
  fireEvent.click(
    screen.getByRole('combobox', { name: 'Who else reads its tickets, Fleet stores: which teams' }),
  );
  fireEvent.click(await screen.findByRole('option', { name: 'Service desk' }));
  await waitFor(() => expect(server().callsOf(api.teams.update)).toHaveLength(1));
  expect(server().callsOf(api.teams.update)[0]!.body).toEqual({ version: 1, readBy: ['desk'] });
  fireEvent.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(server().callsOf(api.teams.update)).toHaveLength(2));
  expect(server().callsOf(api.teams.update)[1]!.body).toEqual({ version: 2, readBy: null });
});
