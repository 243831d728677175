import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { api } from '../../contract';
import { AWAY, refuse, standIn } from '../testing/server';
import { BIA, show } from '../testing/show';
import { teamOf } from '../testing/team';
import { MoveForm } from './MoveForm';

const server = standIn();
const NOON_IN_LISBON = Date.parse('2026-12-01T12:00:00Z');
beforeEach(() => {
  server()
    .on(api.people.teams, [
      teamOf('desk', 'Service desk', [['bia', 'Bia Rocha']]),
      teamOf('onboard', 'Onboard systems', [['rui', 'Rui Bastos']]),
    ])
    .on(api.catalogue.list, []);
});

type Given = Partial<Parameters<typeof MoveForm>[0]>;
let closed = 0;
const open = (given: Given = {}, options: Parameters<typeof show>[1] = {}) =>
  show(
    <MoveForm
      ticket={{ number: 1204, version: 3 }}
      name="hold"
      by="agent"
      requesterName="Tomás"
      onClose={() => {
        closed++;
      }}
      {...given}
    />,
    options,
  );
const user = () => userEvent.setup({ delay: null });
async function choose(label: string, option: string) {
  await user().click(screen.getByRole('combobox', { name: label }));
  await user().click(await screen.findByRole('option', { name: option }));
}
const send = (name: string) => user().click(screen.getByRole('button', { name }));
const moves = () => server().callsOf(api.tickets.move);

test('what is asked for follows what it is held for', async () => {
  await open();
  expect(screen.queryByLabelText(/question to Tomás/)).toBeNull();
  await choose('For whom or what?', 'the requester');
  expect(screen.getByLabelText('The question to Tomás')).toBeTruthy();
  await choose('For whom or what?', 'a date');
  expect(screen.queryByLabelText(/question to Tomás/)).toBeNull();
  expect(screen.getByLabelText('Until')).toBeTruthy();
});

test.each([
  ['Europe/Lisbon', '12'],
  ['America/New_York', '07'],
])(
  'a date is that of the reader’s own zone (%s), and a kept one is seen before it is sent',
  async (timeZone, hour) => {
    server().on(api.tickets.move, { version: 4 });
    const me = { me: { ...BIA, timeZone } };
    await open({}, me);
    await choose('For whom or what?', 'a date');
    fireEvent.change(screen.getByLabelText('Until'), { target: { value: '1.12.2026' } });
    fireEvent.change(screen.getByLabelText('Until: hour'), { target: { value: hour } });
    fireEvent.change(screen.getByLabelText('Until: minute'), { target: { value: '00' } });
    // Another day, the form is opened again.
    await open({}, me);
    expect(screen.getByLabelText('Until')).toHaveProperty('value', '1 Dec 2026');
    expect(screen.getByLabelText('Until: hour')).toHaveProperty('value', hour);
    await send('Hold');
    await waitFor(() => expect(moves()).toHaveLength(1));
    expect(moves()[0]!.body).toEqual({
      ...{ name: 'hold', by: 'agent', version: 3, input: { heldFor: 'date', until: NOON_IN_LISBON } },
    });
  },
);

test('the words of a field that is refused stand at the field', async () => {
  server().on(
    api.tickets.move,
    refuse(422, 'fieldsNotValid', { fields: [{ field: 'solution', code: 'missing' }] }),
  );
  await open({ name: 'finish' });
  await send('Done');
  const field = screen.getByLabelText('How was it solved?');
  await waitFor(() => expect(field.getAttribute('aria-invalid')).toBe('true'));
  expect(moves()).toHaveLength(1);
});

test('a send that fails keeps what was typed, says so, and the next one is the same request', async () => {
  server().on(api.tickets.move, AWAY);
  closed = 0;
  await open({ name: 'finish' });
  fireEvent.change(screen.getByLabelText('How was it solved?'), { target: { value: 'Restarted it' } });
  await send('Done');
  expect(await screen.findByText(/No connection/)).toBeTruthy();
  expect(closed).toBe(0);
  server().on(api.tickets.move, { version: 4 });
  await send('Done');
  await waitFor(() => expect(closed).toBe(1));
  const [first, second] = moves();
  expect(second!.body).toEqual(first!.body);
  // By its key the server knows that it is one.
  expect(second!.key).toBe(first!.key);
  // What was sent is no draft any more.
  await open({ name: 'finish' });
  expect(screen.getByLabelText('How was it solved?')).toHaveProperty('value', '');
});

test('who was slower sees what differs, and may put theirs over it', async () => {
  server().on(
    api.tickets.move,
    refuse(409, 'stale', {
      differences: [{ field: 'state', theirs: 'done', yours: 'held', by: 'Rui Bastos' }],
    }),
  );
  await open({ name: 'finish' });
  fireEvent.change(screen.getByLabelText('How was it solved?'), { target: { value: 'Restarted it' } });
  await send('Done');
  const dialog = await screen.findByRole('dialog');
  expect(within(dialog).getByText('Now, by Rui Bastos')).toBeTruthy();
  server().on(api.tickets.move, { version: 5 });
  await user().click(within(dialog).getByRole('button', { name: 'Put mine over it' }));
  await waitFor(() => expect(moves()).toHaveLength(2));
  // It is another request than the one that was refused.
  expect(moves()[1]!.key).not.toBe(moves()[0]!.key);
});

test('another team brings other people, and a colleague is found in the same list as teams', async () => {
  server().on(api.tickets.move, { version: 4 });
  await open({ name: 'give' });
  await choose('To whom?', 'Onboard systems');
  await choose('To whom of it? (if you can)', 'Rui Bastos');
  await choose('To whom?', 'Service desk');
  await send('Give');
  await waitFor(() => expect(moves()).toHaveLength(1));
  expect(moves()[0]!.body.input).toMatchObject({ teamId: 'desk', assigneeId: null });
  await open({ name: 'give' });
  // Of other teams not everyone stands there.
  await user().click(screen.getByRole('combobox', { name: 'To whom?' }));
  const options = (await screen.findAllByRole('option')).map(({ textContent }) => textContent);
  expect(options).toEqual(['Bia Rocha', 'Service desk', 'Onboard systems']);
  await user().click(screen.getByRole('option', { name: 'Bia Rocha' }));
  await send('Give');
  await waitFor(() => expect(moves()).toHaveLength(2));
  expect(moves()[1]!.body.input).toMatchObject({ teamId: 'desk', assigneeId: 'bia' });
});

test('in Portuguese, with what is known filled in', async () => {
  await open({ name: 'finish', known: { solution: 'Reiniciado' } }, { language: 'pt' });
  expect(screen.getByDisplayValue('Reiniciado')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Cancelar' })).toBeTruthy();
});

test('opened just now, its first field has the focus; found open, it takes the focus from nobody', async () => {
  await open({ name: 'finish', takesFocus: true });
  expect(document.activeElement).toBe(screen.getByRole('textbox', { name: /solved/ }));
  await open({ name: 'finish' });
  expect(document.activeElement).toBe(document.body);
});

test('Ctrl+Enter sends it, and for a while the move can be taken back', async () => {
  server().on(api.tickets.move, { version: 4 }).on(api.tickets.undo, { version: 5 });
  await open({ name: 'finish', takesFocus: true });
  await user().keyboard('New roll{Control>}{Enter}{/Control}');
  await waitFor(() => expect(moves()).toHaveLength(1));
  expect(moves()[0]!.body).toMatchObject({ name: 'finish', input: { solution: 'New roll' } });
  await user().click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(server().callsOf(api.tickets.undo)).toHaveLength(1));
  expect(server().callsOf(api.tickets.undo)[0]).toMatchObject({
    params: { number: '1204' },
    body: { version: 4 },
  });
});

test('what the requester does is not taken back so', async () => {
  server().on(api.tickets.move, { version: 4 });
  await open({ name: 'reopen', by: 'requester', takesFocus: true });
  await user().keyboard('Still dark{Control>}{Enter}{/Control}');
  await waitFor(() => expect(closed).toBeGreaterThan(0));
  expect(screen.queryByRole('button', { name: 'Undo' })).toBeNull();
});
