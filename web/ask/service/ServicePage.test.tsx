import { fireEvent, screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { api } from '../../../contract';
import type { Service } from '../../../contract/catalogue';
import { refuse, standIn } from '../../testing/server';
import { show } from '../../testing/show';
import { ServicePage } from './ServicePage';

/** A service's page: what it says while it is open, and why it cannot be asked for. */
const server = standIn();
const text = (en: string): { en: string; pt: string } => ({ en, pt: en });
const UNTIL = Date.parse('2026-12-11T17:00:00Z');
const COURSE: Service = {
  ...{
    id: 'first-aid',
    kind: 'request',
    place: 'me',
    categoryId: null,
    icon: null,
    title: text('First aid'),
  },
  ...{ description: text('A day of first aid'), teamName: text('Onboard systems'), cost: null },
  ...{ needsApproval: false, hasPlan: false, usually: null, isConfidential: false, isOn: true },
  ...{ offWords: null, isForYou: true, standing: { state: 'open', until: UNTIL, left: 3 } },
  thanks: text('See you on the quay!'),
  form: { fields: [] },
};

async function open(service: Partial<Service>, language: 'en' | 'pt' = 'en'): Promise<void> {
  server()
    .on(api.catalogue.get, { ...COURSE, ...service })
    .on(api.templates.offered, [])
    .on(api.notices.mine, [])
    .on(api.knowledge.search, []);
  const page = (
    <Routes>
      <Route path="/ask/services/:id" element={<ServicePage />} />
    </Routes>
  );
  await show(page, { language, address: '/ask/services/first-aid' });
  await screen.findByRole('heading', { name: 'First aid' });
}

test('it says until when it is open and for how many more', async () => {
  await open({});
  expect(screen.getByText(/open until .*11 Dec.* · 3 places left/)).toBeTruthy();
});

test.each([
  ['en', { state: 'notYet', at: UNTIL }, /^Not open yet: from .*11 Dec/],
  ['en', { state: 'over', at: UNTIL }, /^No longer open: it was until .*11 Dec/],
  ['pt', { state: 'full' }, /^Já pediram tantas pessoas quantas podiam$/],
] as const)('in %s, one that is not open says why and has no form', async (language, standing, words) => {
  await open({ standing }, language);
  expect(screen.getByText(words)).toBeTruthy();
  expect(screen.queryByRole('textbox')).toBeNull();
});

test('the last place goes to another meanwhile: it is said, and what was written stays', async () => {
  await open({});
  const field = await screen.findByRole<HTMLInputElement>('textbox', { name: /^In one line/ });
  fireEvent.change(field, { target: { value: 'A place for me' } });
  server().on(api.tickets.create, refuse(409, 'serviceFull'));
  fireEvent.submit(field.closest('form')!);
  await waitFor(() => expect(screen.getByText(/As many have asked as may/)).toBeTruthy());
  expect(field.value).toBe('A place for me');
});
