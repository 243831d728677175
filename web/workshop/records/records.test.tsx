import { fireEvent, screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { api } from '../../../contract';
import type { RecordView, TicketAsItWas } from '../../../contract/records';
import { refuse, standIn } from '../../testing/server';
import { BIA, show } from '../../testing/show';
import { AsItWas } from './AsItWas';
import { RecordsPage } from './RecordsPage';

/** The pages of what was done: found, checked, and a ticket as it was. */
const server = standIn();
const HELDER = { ...BIA, id: 'helder', isAdministrator: true, areas: [...BIA.areas, 'workshop' as const] };
const NOW = Date.now();
const entry = (given: Partial<RecordView> = {}): RecordView => ({
  ...{
    id: 9,
    at: NOW - 60_000,
    kind: 'taken',
    via: 'desk',
    actor: { id: 'rui', name: 'Rui Mar' },
    keyId: null,
  },
  ...{ ticketNumber: 20_418, about: null, name: null, changes: {}, data: {} },
  ...given,
});
const setting = (kind: string, given: Partial<RecordView> = {}): RecordView =>
  entry({ kind, ticketNumber: null, ...given });

beforeEach(() => {
  server().on(api.people.search, []).on(api.records.seals, []);
});

async function open(
  rows: RecordView[],
  { language = 'en', address = '/workshop/records' }: { language?: 'en' | 'pt'; address?: string } = {},
) {
  server().on(api.records.list, { rows, before: null });
  await show(
    <Routes>
      <Route path="workshop/records" element={<RecordsPage />} />
      <Route path="records/tickets/:number" element={<AsItWas />} />
    </Routes>,
    { me: HELDER, language, address },
  );
}

test('each entry reads as a sentence: on tickets, on settings, by itself and by a program', async () => {
  await open([
    entry({ keyId: 'Pay4rollK1', actor: { id: 'program-1', name: 'Payroll' } }),
    setting('ruleChanged', { name: 'Printers' }),
    setting('signedIn', { data: { personId: 'rui', address: '192.0.2.7' } }),
    setting('memberSet', { about: { id: 'ines', name: 'Inês Luz' } }),
    setting('recounted', { actor: null }),
  ]);
  const rows = (await screen.findAllByRole('row')).map(({ textContent }) => textContent);
  expect(rows[0]).toContain('Payroll took it');
  expect(rows[0]).toContain('by key Pay4rollK1');
  expect(rows[1]).toContain('Rui Mar changed the rule “Printers”');
  expect(rows[2]).toContain('Rui Mar signed in from 192.0.2.7');
  expect(rows[3]).toContain('Rui Mar took Inês Luz into a team');
  expect(rows[4]).toContain('Listo read clocks anew');
});

test('what it is narrowed to stands in the address, and the files are of the same', async () => {
  let asked: unknown;
  await open([]);
  server().on(api.records.list, ({ query }) => {
    asked = query;
    return { rows: [], before: null };
  });
  fireEvent.click(screen.getByLabelText('access'));
  expect(await screen.findByText('Nothing fits. Take one of the conditions away.')).toBeTruthy();
  await waitFor(() => expect(asked).toEqual({ only: 'access' }));
  expect(screen.getByText('As a table (CSV)').closest('a')!.getAttribute('href')).toBe(
    '/api/v1/records/out?only=access&format=csv',
  );
  fireEvent.click(screen.getByRole('button', { name: 'Take away all of these' }));
  await waitFor(() => expect(screen.queryByRole('button', { name: 'Take away all of these' })).toBeNull());
});

test('a seal that no longer fits what it covers says so', async () => {
  const seal = { at: NOW, firstPosition: 1, lastPosition: 40, entries: 40, previousHash: '0'.repeat(64) };
  server()
    .on(api.records.seals, [{ ...seal, id: 1, hash: 'a'.repeat(64) }])
    .on(api.records.check, { holds: false, isLinked: true });
  await open([], { language: 'pt' });
  fireEvent.click(await screen.findByText('Selos'));
  fireEvent.click(await screen.findByRole('button', { name: /Verificar o selo/ }));
  expect((await screen.findByRole('status')).textContent).toMatch(/^Não é o que foi selado/);
});

test('a ticket as it was shows its fields then, what stands there now, and what came after', async () => {
  const was: TicketAsItWas = {
    ...{ number: 20_418, at: NOW, then: { title: 'Dark', state: 'inWork' } },
    since: { state: { then: 'inWork', now: 'done' } },
    entries: [
      { id: 1, at: NOW - 5, kind: 'sent', actor: 'Tomás Vaz', text: null, isLater: false },
      { id: 2, at: NOW + 5, kind: 'answered', actor: 'Rui Mar', text: 'It works again.', isLater: true },
    ],
  };
  server().on(api.records.ticket, was);
  await open([], { address: `/records/tickets/20418?at=${NOW}` });
  expect(await screen.findByText('Tomás Vaz sent it', { exact: false })).toBeTruthy();
  expect(screen.getByRole('row', { name: /now:/ }).textContent).toMatch(/now: done/i);
  expect(screen.getByText('It works again.')).toBeTruthy();
});

test('before it was there, or not to be read, that is said', async () => {
  server().on(api.records.ticket, refuse(404, 'notFound'));
  await open([], { address: '/records/tickets/20418?at=5' });
  expect(await screen.findByText('It was not there yet, or is not yours to read.')).toBeTruthy();
});
