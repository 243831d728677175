import { fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { api } from '../../../contract';
import type { Service, ServiceCard } from '../../../contract/catalogue';
import type { AnswerOf } from '../../../contract/endpoint';
import { AWAY, refuse, standIn } from '../../testing/server';
import { BIA, show } from '../../testing/show';
import { teamOf } from '../../testing/team';
import { RaisePage } from './RaisePage';

const server = standIn();
const text = (en: string, pt = en) => ({ en, pt });
const cardOf = (id: string, en: string): ServiceCard => ({
  ...{ id, kind: 'incident', place: 'desk', categoryId: null, icon: null, title: text(en) },
  ...{ description: text(''), teamName: text('Onboard systems'), cost: null, needsApproval: false },
  ...{ hasPlan: false, usually: null },
});
const kiosk: Service = {
  ...{ ...cardOf('kiosk', 'A kiosk has a problem'), isConfidential: false, isOn: true, offWords: null },
  isForYou: true,
  standing: { state: 'open', until: null, left: null },
  thanks: null,
  form: {
    fields: [
      { name: 'site', kind: 'place', label: text('Where?'), needed: true, filledFrom: 'site' },
      { name: 'what', kind: 'text', label: text('What?'), needed: false },
    ],
  },
};
const tomas: AnswerOf<typeof api.people.card> = {
  ...{ id: 'tomas', name: 'Tomás Veiga', goesFirst: false, title: 'Terminal lead', site: 'Port Alder' },
  ...{ phone: '912', email: 'tomas@solvarra.example', department: 'Terminals', manager: 'Ana Lobo' },
  ...{ known: { site: 'Port Alder' }, conversations: [] },
  tickets: [{ number: 1190, title: 'Printer jammed', state: 'inWork', createdAt: 0, rating: null }],
};
beforeEach(() => {
  server()
    .on(
      api.people.search,
      [tomas].map(({ id, name, goesFirst, title, site }) => ({ id, name, goesFirst, title, site })),
    )
    .on(api.people.card, tomas)
    .on(api.people.teams, [teamOf('desk', 'Service desk', [['bia', 'Bia Rocha']])])
    .on(api.catalogue.list, [cardOf('kiosk', 'A kiosk has a problem'), cardOf('card', 'A new card')])
    .on(api.catalogue.get, kiosk)
    .on(api.catalogue.search, { services: [cardOf('kiosk', 'A kiosk has a problem')] })
    .on(api.templates.list, [])
    .on(api.together.reported, []);
});
const open = (options: Parameters<typeof show>[1] = {}) =>
  show(
    <Routes>
      <Route path="/desk/raise" element={<RaisePage />} />
      <Route path="/desk/everything/:number" element={<p>The ticket</p>} />
    </Routes>,
    { address: '/desk/raise?for=tomas', ...options },
  );
const user = () => userEvent.setup({ delay: null });
const say = (what: string) =>
  fireEvent.change(screen.getByLabelText('What is it about?'), { target: { value: what } });
const raise = () => user().click(screen.getByRole('button', { name: 'Raise it' }));
const sent = () => server().callsOf(api.tickets.create);

test('who calls is seen with what is open; a few words find the service, and the form is filled with what is known', async () => {
  server().on(api.tickets.create, { number: 1205 });
  await open();
  expect(await screen.findByText('Manager: Ana Lobo')).toBeTruthy();
  expect(screen.getByText(/Printer jammed/)).toBeTruthy();
  const button = screen.getByRole('button', { name: 'Raise it' });
  expect(button).toHaveProperty('disabled', true);
  say('Kiosk 3 frozen');
  await user().click(await screen.findByRole('button', { name: 'A kiosk has a problem' }));
  await waitFor(() => expect(button).toHaveProperty('disabled', false));
  await raise();
  expect(await screen.findByText('The ticket')).toBeTruthy();
  expect(sent()[0]!.body).toEqual({
    ...{ serviceId: 'kiosk', requesterId: 'tomas', title: 'Kiosk 3 frozen', via: 'phone' },
    answers: { site: 'Port Alder' },
  });
});

test('how grave and how urgent it is can be judged on the call', async () => {
  server().on(api.tickets.create, { number: 1205 });
  await open();
  say('Kiosk 3 frozen');
  await user().click(await screen.findByRole('button', { name: 'A kiosk has a problem' }));
  await user().selectOptions(screen.getByLabelText('Impact'), 'a site');
  await user().selectOptions(screen.getByLabelText('Urgency'), 'stops work');
  await raise();
  await waitFor(() => expect(sent()).toHaveLength(1));
  expect(sent()[0]!.body).toMatchObject({ impact: 'site', urgency: 'stopsWork' });
});

test('a draft survives a reload; a failed send keeps it and is the same request when it is sent again', async () => {
  server().on(api.tickets.create, AWAY);
  await open();
  say('Kiosk 3 frozen');
  await user().click(await screen.findByRole('button', { name: 'A kiosk has a problem' }));
  await open();
  expect(screen.getByLabelText('What is it about?')).toHaveProperty('value', 'Kiosk 3 frozen');
  await raise();
  expect(await screen.findByText(/No connection/)).toBeTruthy();
  server().on(api.tickets.create, { number: 1205 });
  await raise();
  expect(await screen.findByText('The ticket')).toBeTruthy();
  const [first, second] = sent();
  expect(second!.key).toBe(first!.key);
  // The next call begins empty.
  await open();
  expect(screen.getByLabelText('What is it about?')).toHaveProperty('value', '');
});

test('a person who cannot be read says so, and the page stays', async () => {
  server().on(api.people.card, refuse(404, 'notFound'));
  await open();
  expect(await screen.findByRole('alert')).toBeTruthy();
  expect(screen.getByLabelText('What is it about?')).toBeTruthy();
});

test('it is for those who work at the Desk', async () => {
  await open({ me: { ...BIA, areas: ['ask'], teams: [] } });
  expect(screen.getByText(/nothing at this address/i)).toBeTruthy();
});
