import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { useLocation } from 'react-router';
import { api } from '../../contract';
import { standIn } from '../testing/server';
import { BIA, sessionWith, show } from '../testing/show';
import { Palette } from './Palette';
import { palette } from './paletteStore';

const server = standIn();
const Address = () => <output>{useLocation().pathname}</output>;

async function open(): Promise<(words: string) => Promise<void>> {
  const shown = await show(
    <>
      <Palette />
      <Address />
    </>,
  );
  expect(shown.container).toBeTruthy();
  act(() => palette.open());
  const field = await screen.findByRole('textbox', { name: 'Find or do anything' });
  // Words come at once, as however slowly one types what is looked for must not matter; keys are pressed.
  return async (words) => {
    const [, text, keys] = /^([^{]*)(.*)$/u.exec(words)!;
    if (text) fireEvent.change(field, { target: { value: (field as HTMLInputElement).value + text } });
    if (keys) await userEvent.type(field, keys);
  };
}
const marked = (): string | null | undefined => document.querySelector('[data-selected]')?.textContent;
const labels = (): string[] =>
  [...document.querySelectorAll('[data-action]')].map(({ textContent }) => textContent);

beforeEach(() => {
  // An action is scrolled to where it is marked; jsdom lays nothing out.
  Element.prototype.scrollIntoView = () => undefined;
  server()
    .on(api.tickets.find, { tickets: [], people: [] })
    .on(api.catalogue.search, { services: [] })
    .on(api.knowledge.search, []);
});
afterEach(() => act(() => palette.close()));

test('a page is found by its own name, stands first and is marked, also when an article fits the words', async () => {
  server().on(api.knowledge.search, [
    { id: 'queue', title: 'Next up in the queue', passage: [], helped: 0, judged: 0 },
  ]);
  const type = await open();
  await type('next up');
  await waitFor(() => expect(labels().at(-1)).toContain('queue'));
  expect(labels()[0]).toBe('Desk: Next up');
  expect(marked()).toBe('Desk: Next up');
  await type('{Enter}');
  await waitFor(() => expect(screen.getByRole('status').textContent).toBe('/desk/nextUp'));
});

test.each([
  ['conversations', 'Desk: Conversations'],
  ['time spent', 'Desk: Time spent'],
  ['dark', 'Dark theme'],
  ['away', 'I am away'],
  ['sign out', 'Sign out'],
])('“%s” finds “%s” first', async (typed, label) => {
  const type = await open();
  await type(typed);
  await waitFor(() => expect(labels()[0]).toBe(label));
  await waitFor(() => expect(marked()).toBe(label));
});

test('“away” sets one’s presence', async () => {
  server().on(api.routing.setPresence, { ok: true }).on(api.session.get, sessionWith(BIA));
  const type = await open();
  await type('away{Enter}');
  await waitFor(() =>
    expect(
      server()
        .callsOf(api.routing.setPresence)
        .map(({ body }) => body),
    ).toEqual([{ presence: 'away' }]),
  );
});

test('a ticket by its number goes before all else; what was found for other words is not shown', async () => {
  server().on(api.tickets.find, ({ query: { q } }) => ({
    tickets: q === '1204' ? [{ number: 1204, title: 'Printer on deck 12', requester: 'Ana Lobo' }] : [],
    people: q === '12' ? [{ id: 'ana', name: 'Ana Lobo', title: 'Head of terminals', goesFirst: false }] : [],
  }));
  const type = await open();
  await type('12');
  await waitFor(() => expect(labels().join()).toContain('Ana Lobo'));
  await type('04');
  await waitFor(() => expect(labels()[0]).toContain('Printer on deck 12'));
  expect(labels().join()).not.toContain('Raise for');
  expect(marked()).toContain('Printer on deck 12');
});

test('what one moved to stays marked when more is found', async () => {
  let answer: () => void = () => undefined;
  server().on(
    api.tickets.find,
    () =>
      new Promise((resolve) => {
        answer = () =>
          resolve({ tickets: [{ number: 7, title: 'Desk lamp', requester: 'Ana' }], people: [] });
      }),
  );
  const type = await open();
  await type('desk');
  await waitFor(() => expect(server().callsOf(api.tickets.find)).toHaveLength(1));
  await type('{ArrowDown}');
  const second = marked();
  expect(second).toBe(labels()[1]);
  act(() => answer());
  await waitFor(() => expect(labels().join()).toContain('Desk lamp'));
  expect(marked()).toBe(second);
});
