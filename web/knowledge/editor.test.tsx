import { fireEvent, screen } from '@testing-library/react';
import { api } from '../../contract';
import { standIn } from '../testing/server';
import { show } from '../testing/show';
import { EditorPage } from './EditorPage';

/** The page on which an article is written. */
const server = standIn();
beforeEach(() => {
  localStorage.clear();
  server().on(api.people.teams, []).on(api.teams.sites, []).on(api.catalogue.list, []);
});
const begin = (title: string, language: string) =>
  show(<EditorPage />, {
    address: `/knowledge/new?${new URLSearchParams({ title, language }).toString()}`,
  });
const heading = () => screen.findByRole<HTMLInputElement>('textbox', { name: 'Heading' });

test('what was asked in Portuguese heads an article in Portuguese, whatever its writer reads', async () => {
  await begin('a luz do portaló pisca', 'pt');
  expect((await heading()).value).toBe('a luz do portaló pisca');
  expect(screen.getByRole<HTMLInputElement>('radio', { name: 'Portuguese' }).checked).toBe(true);
  fireEvent.click(screen.getByRole('radio', { name: 'English' }));
  expect((await heading()).value).toBe('');
});

test('what was asked in one’s own language opens in that', async () => {
  await begin('gangway light flickers', 'en');
  expect((await heading()).value).toBe('gangway light flickers');
});
