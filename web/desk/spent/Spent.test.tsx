import { fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { api } from '../../../contract';
import type { SpentEntry } from '../../../contract/spent';
import { setServerNow } from '../../api/clock';
import { BIA, show } from '../../testing/show';
import '../../messages/listsWords';
import { standIn } from '../../testing/server';
import { ticketOf } from '../../testing/ticket';
import { Spent } from './Spent';

const server = standIn();
const NOW = Date.parse('2026-12-04T10:00:00Z');
const MINUTE = 60_000;
const ticket = ticketOf([], { number: 1204, rights: ['read', 'readNotes', 'note', 'work'] });
const entry = (given: Partial<SpentEntry>): SpentEntry => ({
  ...{ id: 'e1', person: { id: 'bia', name: 'Bia Rocha', goesFirst: false }, category: 'working', note: '' },
  ...{ startedAt: NOW - 25 * MINUTE, minutes: 25, isByHand: false, isMine: true },
  ...given,
});
async function open(entries: SpentEntry[], timeZone = 'Europe/Lisbon') {
  setServerNow(NOW);
  server()
    .on(api.spent.list, { entries, minutes: 25, estimate: null })
    .on(api.spent.timer, { timer: null })
    .on(api.spent.add, { id: 'e2' })
    .on(api.spent.change, { ok: true });
  await show(<Spent ticket={ticket} />, { me: { ...BIA, timeZone } });
}
const user = () => userEvent.setup({ delay: null });
afterEach(() => setServerNow(Date.now()));

test('a running timer shows how long it runs', async () => {
  await open([entry({ minutes: null })]);
  expect(await screen.findByText('25 min, running')).toBeTruthy();
});

test('time by hand is of the day that is chosen, in the reader’s zone', async () => {
  await open([], 'America/New_York');
  await user().click(await screen.findByRole('button', { name: /by hand/i }));
  const day = screen.getByLabelText('On which day');
  expect((day as HTMLInputElement).value).toBe('4 Dec 2026');
  await user().click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(server().callsOf(api.spent.add)).toHaveLength(1));
  const began = server().callsOf(api.spent.add)[0]!.body.startedAt;
  // It ended just now.
  expect(Math.abs(began - (NOW - 15 * MINUTE))).toBeLessThan(MINUTE);
  await user().click(await screen.findByRole('button', { name: /by hand/i }));
  fireEvent.change(screen.getByLabelText('On which day'), { target: { value: '2026-12-01' } });
  await user().click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(server().callsOf(api.spent.add)).toHaveLength(2));
  expect(server().callsOf(api.spent.add)[1]!.body.startedAt).toBe(Date.parse('2026-12-01T12:00-05:00'));
});

test('what is mended keeps its hour, also on another day', async () => {
  await open([entry({ startedAt: Date.parse('2026-12-03T08:30:00Z') })]);
  await user().click(await screen.findByRole('button', { name: /change|edit/i }));
  fireEvent.change(screen.getByLabelText('On which day'), { target: { value: '2026-12-02' } });
  await user().click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(server().callsOf(api.spent.change)).toHaveLength(1));
  expect(server().callsOf(api.spent.change)[0]!.body.startedAt).toBe(Date.parse('2026-12-02T08:30:00Z'));
});
