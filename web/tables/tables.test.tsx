import { fireEvent, screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { api } from '../../contract';
import type { Import } from '../../contract/imports';
import { standIn } from '../testing/server';
import { BIA, show } from '../testing/show';
import { PeopleTablePage } from '../workshop/people/PeopleTablePage';

/** A table of people, from the file to those who are written. */
const server = standIn();
const HELDER = { ...BIA, id: 'helder', isAdministrator: true, areas: [...BIA.areas, 'workshop' as const] };
const TABLE: Import = {
  ...{ id: 'i1', kind: 'people', name: 'people.csv', at: 1, encoding: 'utf-8', delimiter: ';', rows: 3 },
  ...{ headings: ['Name', 'Mail', 'City', 'Reports to'], state: 'arrived', done: 0, written: 0, refused: [] },
  sample: [['Ana Reis', 'ana@x.example', 'Port Alder', 'Bia']],
};
beforeEach(() => {
  localStorage.clear();
  server().on(api.imports.mine, []).on(api.catalogue.list, []).on(api.imports.get, TABLE);
});
const open = (address: string, language: 'en' | 'pt' = 'en', me = HELDER) =>
  show(
    <Routes>
      <Route path="workshop/people/table" element={<PeopleTablePage />} />
    </Routes>,
    { me, language, address },
  );

test('what columns are is guessed, checked by line and only then written, with links where they are wanted', async () => {
  server().on(api.imports.check, {
    ...{ good: 2, bad: 1 },
    problems: [{ line: 3, field: 'site', code: 'unknownSite', value: 'Atlantis' }],
  });
  server().on(api.imports.start, { ok: true });
  await open('/workshop/people/table?id=i1');
  const manager = await screen.findByRole<HTMLSelectElement>('combobox', { name: 'Manager' });
  expect(manager.value).toBe('3');
  expect(screen.getByText('Ana Reis')).toBeTruthy();
  fireEvent.click(screen.getByRole('checkbox', { name: 'Send each new one a link that lets them in' }));
  fireEvent.click(screen.getByRole('button', { name: 'Check every row' }));
  expect(await screen.findByText('no site is called that; make it first')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Write 2 people' }));
  await waitFor(() => expect(server().callsOf(api.imports.start)).toHaveLength(1));
  expect(server().callsOf(api.imports.start)[0]!.body).toMatchObject({
    isInvited: true,
    mapping: { name: { column: 0 }, email: { column: 1 }, site: { column: 2 }, manager: { column: 3 } },
  });
});

test('when it is done it says how many people are written, and what was refused after all', async () => {
  const refused = [{ line: 4, field: 'manager' as const, code: 'lineComesRound', value: 'Bia' }];
  server().on(api.imports.get, { ...TABLE, state: 'done', done: 3, written: 2, refused });
  await open('/workshop/people/table?id=i1', 'pt');
  expect(await screen.findByText('Feito: 2 pessoas estão escritas.')).toBeTruthy();
  expect(screen.getByText('a linha de chefias voltaria à própria pessoa')).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Vê-los' }).getAttribute('href')).toBe('/workshop/people');
});

test('tables that were sent before are found again; who does not keep people finds no such page', async () => {
  const mine = [{ id: 'i0', name: 'old.csv', at: 1, state: 'stopped' as const, rows: 9, written: 4 }];
  server().on(api.imports.mine, mine);
  await open('/workshop/people/table');
  expect((await screen.findByRole('link', { name: 'old.csv' })).getAttribute('href')).toBe(
    '/workshop/people/table?id=i0',
  );
  expect(server().callsOf(api.imports.mine)[0]!.query).toEqual({ kind: 'people' });
  await open('/workshop/people/table', 'en', { ...HELDER, isAdministrator: false });
  expect(screen.queryByText(/From a table|People from a table/)).toBeNull();
});
