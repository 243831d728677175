import { fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { api } from '../../contract';
import { standIn } from '../testing/server';
import { show } from '../testing/show';
import { PersonPicker } from './PersonPicker';

const server = standIn();
const PEOPLE = [
  { id: 'ana', name: 'Ana Lobo', goesFirst: false, title: 'Head of terminals', site: 'Port Alder' },
  { id: 'anton', name: 'Anton Bergh', goesFirst: false, title: 'Purser', site: 'Lorne' },
];
const picked: string[] = [];
const submitted: string[] = [];

async function open(): Promise<HTMLElement> {
  picked.length = 0;
  submitted.length = 0;
  server().on(api.people.search, ({ query: { q } }) =>
    PEOPLE.filter(({ name }) => name.toLowerCase().includes(q!.toLowerCase())),
  );
  await show(
    <form
      onSubmit={(event) => {
        event.preventDefault();
        submitted.push('sent');
      }}
    >
      <PersonPicker label="Who?" onPick={({ id }) => picked.push(id)} />
    </form>,
  );
  return screen.getByRole('combobox', { name: 'Who?' });
}
const type = (field: HTMLElement, text: string) => userEvent.setup({ delay: null }).type(field, text);
const shown = () => screen.findAllByRole('option').then((options) => options.length);

test('Enter takes the only hit, and sends no form', async () => {
  const field = await open();
  await type(field, 'ana');
  await waitFor(async () => expect(await shown()).toBe(1));
  await type(field, '{Enter}');
  expect(picked).toEqual(['ana']);
  expect(submitted).toEqual([]);
  expect((field as HTMLInputElement).value).toBe('');
});

test('of several hits Enter takes none, nor what was found for other letters', async () => {
  const field = await open();
  await type(field, 'an');
  await waitFor(async () => expect(await shown()).toBe(2));
  await type(field, '{Enter}');
  // At once, before it is looked for.
  fireEvent.change(field, { target: { value: 'ana' } });
  fireEvent.keyDown(field, { key: 'Enter' });
  expect(picked).toEqual([]);
});
