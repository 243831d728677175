import i18next from 'i18next';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { readFileSync } from 'node:fs';
import { Route, Routes, useLocation } from 'react-router';
import { api } from '../../../contract';
import { SETUP_COUNTS, type SetupFacts } from '../../../core/setup';
import { standIn } from '../../testing/server';
import { BIA, show } from '../../testing/show';
import { setLanguage } from '../../messages/i18n';
import { listFound } from '../find/listFound';
import { PathPage } from './PathPage';
import { SETTINGS } from '../find/settings';
import { WorkshopFrame } from '../WorkshopFrame';

/** The Workshop's first page, the way to its settings, and how one is marked on its page. */
const server = standIn();
const HELDER = { ...BIA, isAdministrator: true, areas: [...BIA.areas, 'workshop' as const] };
const RUI = { ...HELDER, isAdministrator: false };
const facts = (given: Partial<SetupFacts>): SetupFacts => ({
  ...(Object.fromEntries(SETUP_COUNTS.map((count) => [count, 0])) as SetupFacts),
  ...given,
});
const words = { t: (key: string, values: Record<string, unknown> = {}) => i18next.t(key, values) };
const Where = () => <output data-testid="where">{`${useLocation().pathname}${useLocation().search}`}</output>;
const where = (): string => screen.getByTestId('where').textContent;

async function open(address: string, me = HELDER, language: 'en' | 'pt' = 'en'): Promise<void> {
  await show(
    <>
      <Where />
      <Routes>
        <Route path="workshop" element={<PathPage />} />
        <Route
          path="workshop/*"
          element={
            <WorkshopFrame>
              <h2>Sites</h2>
              <button>Groups</button>
              <p>Progress labels: new</p>
            </WorkshopFrame>
          }
        />
      </Routes>
    </>,
    { me, language, address },
  );
}

test('the path says what is there, what comes next and what waits for it', async () => {
  server().on(api.organisation.setup, facts({ calendars: 2, sites: 1 }));
  await open('/workshop');
  const people = (await screen.findByRole('link', { name: 'People' })).closest('li')!;
  expect(people.textContent).toContain('Next');
  expect(screen.getByRole('link', { name: 'Begin' }).getAttribute('href')).toBe('/workshop/people');
  expect(screen.getByText(/2 calendars/)).toBeTruthy();
  expect(screen.getByText(/needs first: People$/)).toBeTruthy();
});

test('what is there and lacks something says how much; with all there, it says so', async () => {
  const all = facts({ calendars: 1, sites: 1, people: 3, teams: 2, services: 4, targets: 2 });
  server().on(api.organisation.setup, { ...all, teamsWithoutLead: 1 });
  await open('/workshop', HELDER, 'pt');
  expect(await screen.findByText('1 equipa não tem responsável')).toBeTruthy();
  expect(screen.getByText('Tudo o que o trabalho exige está feito.')).toBeTruthy();
});

test('who sets up a team sees neither the people nor the mail of the organisation', async () => {
  server().on(api.organisation.setup, facts({ calendars: 1, sites: 1, people: 9 }));
  await open('/workshop', RUI);
  expect(await screen.findByRole('link', { name: 'Teams' })).toBeTruthy();
  expect(screen.queryByRole('link', { name: 'People' })).toBeNull();
  expect(listFound(words, RUI, 'mail that came in').map(({ id }) => id)).not.toContain('mailIn');
});

test('a worry leads to the setting, which is marked on its page', async () => {
  await open('/workshop/people');
  const field = screen.getByRole('textbox', { name: 'Find a setting' });
  fireEvent.focus(field);
  expect(screen.getByRole('option', { name: 'Catalogue' })).toBeTruthy();
  fireEvent.change(field, { target: { value: 'I need another location' } });
  fireEvent.click(await screen.findByRole('option', { name: /^Sites/ }));
  await waitFor(() => expect(where()).toBe('/workshop/hours?setting=sites'));
  await waitFor(() => expect(screen.getByRole('heading', { name: 'Sites' }).dataset.marked).toBe('true'));
  expect(screen.getByRole('button', { name: 'Groups' }).dataset.marked).toBeUndefined();
});

test('what fits nothing says what to do', async () => {
  await open('/workshop/people');
  const field = screen.getByRole('textbox', { name: 'Find a setting' });
  fireEvent.change(field, { target: { value: 'xylophone' } });
  expect(await screen.findByText(/No setting fits/)).toBeTruthy();
});

test.each([
  ['customers hear nothing at night', 'en', 'outOfHours'],
  ['nobody takes it', 'en', 'routing'],
  ['email not arrived', 'en', 'mailIn'],
  ['new colleague', 'en', 'addPerson'],
  ['overdue', 'en', 'warnings'],
  ['who approves', 'en', 'approvalSteps'],
  ['bank holidays', 'en', 'holidays'],
  ['custom fields', 'en', 'forms'],
  ['alguém sai da empresa', 'pt', 'leaving'],
  ['feriado', 'pt', 'holidays'],
  ['os clientes não sabem de nada à noite', 'pt', 'outOfHours'],
  ['prazos', 'pt', 'targets'],
] as const)('“%s” (%s) leads to %s', async (asked, language, expected) => {
  await setLanguage(language);
  const found = listFound(words, HELDER, asked).map(({ id }) => id);
  expect(found.slice(0, 3)).toContain(expected);
});

test('each setting has words in both languages, and is marked by words that its pages have', async () => {
  const shown = [
    'workshop',
    'people',
    'services',
    'assistant',
    'rooms',
    'talk',
    'mail',
    'procedures',
    'rules',
    'estate',
    'programs',
    'signOn',
    'records',
    'running',
  ];
  for (const { id, ...setting } of SETTINGS) {
    for (const language of ['en', 'pt'] as const) {
      await setLanguage(language);
      expect(i18next.exists(`setup/settings/${id}/name`)).toBe(true);
    }
    if (!('mark' in setting)) continue;
    const [bundle, ...rest] = setting.mark.split('/');
    expect(shown).toContain(bundle);
    const text = readFileSync(`web/messages/${bundle}.en.ts`, 'utf8');
    expect(text).toContain(`${rest.at(-1)}:`);
  }
});
