import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { api } from '../../contract';
import type { Thing } from '../../contract/estate';
import type { ThingKind } from '../../contract/thingKinds';
import { refuse, standIn } from '../testing/server';
import { show } from '../testing/show';
import { both, card, HANGS, KEEPER, NO_WORRY, NOW, page, ref, thing, TOMAS } from '../testing/things';
import { KindsPage } from '../workshop/things/KindsPage';
import { FiguresPage } from './FiguresPage';
import { StockPage } from './StockPage';
import { ThingPage } from './ThingPage';
import { ThingsPage } from './ThingsPage';
import { MapPage } from './map/MapPage';

/** The pages of the Estate, before a server whose answers fit the contract. */
const server = standIn();
const ME = KEEPER;
const HELDER = { ...ME, id: 'helder', isAdministrator: true, areas: [...ME.areas, 'workshop' as const] };
const KIND: ThingKind = {
  ...{ id: 'laptop', name: both('Laptop'), form: { fields: [] }, seenBy: 'everyone', keptBy: [] },
  ...{ isHandedOut: true, serviceId: null, months: 48, version: 2, count: 3, mayKeep: true },
};

beforeEach(() => {
  localStorage.clear();
  server()
    .on(api.teams.sites, [
      { id: 'alder', name: 'Port Alder', timeZone: 'Europe/Lisbon', calendarId: 'office' },
    ])
    .on(api.people.teams, [])
    .on(api.people.search, [{ ...TOMAS, title: 'Clerk', site: 'Port Alder' }])
    .on(api.catalogue.list, [])
    .on(api.estate.kinds, [KIND])
    .on(api.estate.hangs, HANGS);
});
const press = (name: string | RegExp): boolean => fireEvent.click(screen.getByRole('button', { name }));
const fill = (label: string | RegExp, value: string): boolean =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

async function openThing(given: Partial<Thing> = {}, language: 'en' | 'pt' = 'en'): Promise<void> {
  server().on(api.estate.get, thing(given));
  await show(
    <Routes>
      <Route path="estate/:id" element={<ThingPage />} />
    </Routes>,
    { me: ME, language, address: '/estate/L-1' },
  );
  await screen.findByRole('heading', { name: 'Laptop L-1' });
}

describe('the list', () => {
  test('says first what is worth a look, and what a holder says', async () => {
    const rows = [card('L-1', { claim: 'returned', openTickets: 2 }), card('L-2', { state: 'inRepair' })];
    server().on(api.estate.list, page(rows, { ...NO_WORRY, claimed: 1, warranty: 3 }));
    await show(<ThingsPage />, { me: ME, address: '/estate' });
    expect(await screen.findByText('1 of which its holder says something')).toBeTruthy();
    expect(screen.getByText('3 warranties end within 90 days')).toBeTruthy();
    const [, first, second] = screen.getAllByRole('row');
    expect(within(first!).getByText('says they gave it back')).toBeTruthy();
    expect(within(first!).getByText('2')).toBeTruthy();
    expect(within(second!).getByText('in repair')).toBeTruthy();
  });

  test('what narrows it stands in the address; nothing found says what to do', async () => {
    server().on(api.estate.list, page([]));
    await show(<ThingsPage />, { me: ME, address: '/estate?state=lost&q=x' });
    expect(await screen.findByText(/^Nothing fits/)).toBeTruthy();
    await waitFor(() =>
      expect(server().callsOf(api.estate.list).at(-1)!.query).toMatchObject({ q: 'x', state: 'lost' }),
    );
  });

  test('an empty Estate says how to begin; employees are not let in', async () => {
    server().on(api.estate.list, page([]));
    await show(<ThingsPage />, { me: ME, address: '/estate', language: 'pt' });
    expect(await screen.findByText(/^Ainda não se acompanha nada/)).toBeTruthy();
    await show(<ThingsPage />, { me: { ...ME, areas: ['ask'] }, address: '/estate' });
    expect(screen.getByText('There is nothing at this address')).toBeTruthy();
  });

  test('a tag that is typed leads to its thing; another organisation’s code is told apart', async () => {
    server()
      .on(api.estate.list, page([]))
      .on(api.estate.byMark, ({ query }) => (query.mark === 'L-1' ? [card('L-1')] : []));
    server().on(api.estate.get, thing());
    await show(
      <Routes>
        <Route path="estate" element={<ThingsPage />} />
        <Route path="estate/:id" element={<ThingPage />} />
      </Routes>,
      { me: ME, address: '/estate' },
    );
    press('Scan');
    fill('Tag or serial number', 'https://other.example/t/x');
    press('Find');
    expect(await screen.findByText(/belongs to other\.example/)).toBeTruthy();
    fill('Tag or serial number', 'Z-9');
    press('Find');
    expect(await screen.findByText(/Z-9: nothing here has this tag/)).toBeTruthy();
    fill('Tag or serial number', 'L-1');
    press('Find');
    expect(await screen.findByRole('heading', { name: 'Laptop L-1' })).toBeTruthy();
  });

  test('a new thing that does not fit says where; what was typed stays', async () => {
    server().on(api.estate.list, page([]));
    server().on(
      api.estate.create,
      refuse(422, 'fieldsNotValid', { fields: [{ field: 'tag', code: 'taken' }] }),
    );
    await show(<ThingsPage />, { me: ME, address: '/estate' });
    fireEvent.click(await screen.findByRole('button', { name: 'New thing' }));
    fill('Name', 'Laptop L-9');
    fill('Tag', 'L-1');
    press('Save');
    expect(await screen.findByText('This is taken already.')).toBeTruthy();
    expect(screen.getByDisplayValue('Laptop L-9')).toBeTruthy();
    expect(server().callsOf(api.estate.create)[0]!.body).toMatchObject({
      tag: 'L-1',
      kindId: 'laptop',
      state: 'inStore',
    });
  });
});

describe('one thing', () => {
  test('says what happens if it fails, and whom that concerns', async () => {
    server().on(api.estate.hangs, {
      ...HANGS,
      standing: 'weakened',
      needs: [{ atLeast: 1, of: [ref('lineA', 'down'), ref('lineB')], isMet: true }],
      ...{ neededBy: [ref('shop')], neededByCount: 61 },
      falls: {
        ...{ down: [ref('shop')], downCount: 2, weakened: [ref('sign')], weakenedCount: 1 },
        ...{ watched: [ref('shop')], people: 1_402 },
      },
    });
    await openThing();
    expect(
      await screen.findByText(/2 things go down with it · 1 has less behind it · 1,402 people feel it/),
    ).toBeTruthy();
    expect(screen.getByText(/People will notice: shop\./)).toBeTruthy();
    expect(screen.getByText('It works, with less behind it than it should have.')).toBeTruthy();
    expect(screen.getByText('one of')).toBeTruthy();
    // Standing is said in words too.
    expect(screen.getByRole('img', { name: 'down' })).toBeTruthy();
    expect(screen.getByText('and 60 more')).toBeTruthy();
  });

  test('a watched one says what it can promise, or that this cannot be said', async () => {
    const month = { from: NOW, promised: 7_200_000, lost: 720_000, share: 0.9, failures: 1 };
    server()
      .on(api.estate.hangs, { ...HANGS, availability: 0.98765, alone: [ref('power')] })
      .on(api.calendars.list, [])
      .on(api.notices.serviceTime, {
        ...{ calendarId: null, maySet: true },
        months: [
          {
            ...month,
            betweenFailures: 6_480_000,
            toRestore: 720_000,
            notices: [{ id: 'n', title: both('Down') }],
          },
        ],
      });
    await openThing({ isWatched: true });
    expect(await screen.findByText('Given what it stands on, it works 98.765 % of the time.')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'power' })).toBeTruthy();
    // What was kept of what is promised, with the notices behind it.
    expect(await screen.findByText('90.00%')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Down' })).toBeTruthy();
    server().on(api.estate.hangs, { ...HANGS, isTooEntangled: true });
    await openThing({ isWatched: true });
    expect(await screen.findByText(/too many things at once/)).toBeTruthy();
  });

  test('it is handed over to somebody; what is missing is said in the dialog', async () => {
    server().on(
      api.estate.act,
      refuse(422, 'fieldsNotValid', { fields: [{ field: 'holderId', code: 'missing' }] }),
    );
    await openThing({ state: 'inStore', holder: null });
    press('Hand over');
    const dialog = within(await screen.findByRole('dialog'));
    fireEvent.click(dialog.getByRole('button', { name: 'Hand over' }));
    expect(await dialog.findByText('This is needed.')).toBeTruthy();
    await userEvent.setup({ delay: null }).type(dialog.getByRole('combobox', { name: 'Who gets it' }), 'Tom');
    fireEvent.click(await screen.findByRole('option', { name: /^Tomás Veiga, Clerk/ }));
    server().on(api.estate.act, { version: 5 });
    fireEvent.click(dialog.getByRole('button', { name: 'Hand over' }));
    await waitFor(() =>
      expect(server().callsOf(api.estate.act).at(-1)!.body).toMatchObject({
        ...{ act: 'handOver', holderId: 'tomas', version: 4, lentUntil: null },
      }),
    );
  });

  test('what needs nothing said is done at once, and what cannot be is told', async () => {
    server().on(api.estate.act, refuse(409, 'stale', { differences: [] }));
    await openThing();
    press('Take back');
    await waitFor(() => expect(server().callsOf(api.estate.act)[0]!.body).toMatchObject({ act: 'takeBack' }));
    expect(await screen.findByText('Someone changed it meanwhile.')).toBeTruthy();
  });

  test('what its holder says stands above all, until it is dealt with', async () => {
    server().on(api.estate.settle, { version: 5 });
    await openThing({ claim: 'haveNot' });
    expect(screen.getByText('Tomás Veiga never got it.')).toBeTruthy();
    press('That is dealt with');
    await waitFor(() => expect(server().callsOf(api.estate.settle)[0]!.body).toEqual({ version: 4 }));
  });

  test('who does not keep it sees no button; its history says from what to what', async () => {
    const changes = [
      { field: 'state', from: 'inStore', to: 'inUse' },
      { field: 'holderId', from: null, to: 'Tomás Veiga' },
      { field: 'cost', from: 100_000, to: 120_000 },
    ];
    const history = [
      { at: NOW, byName: 'Marta Reis', type: 'thingActed', act: 'handOver', claim: null, changes },
    ] as Thing['history'];
    await openThing({ mayKeep: false, acts: [], history });
    expect(screen.queryByRole('button', { name: 'Take back' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Change' })).toBeNull();
    expect(screen.getByText('State: in store → in use')).toBeTruthy();
    expect(screen.getByText('Who has it: nothing → Tomás Veiga')).toBeTruthy();
    expect(screen.getByText('Cost (€): €1,000 → €1,200')).toBeTruthy();
  });

  test('what it needs is said as so many of these; a refusal is told where it stands', async () => {
    server().on(api.estate.list, page([card('L-7', { name: 'Line 7' })]));
    server().on(
      api.estate.setNeeds,
      refuse(422, 'fieldsNotValid', { fields: [{ field: 'needs', code: 'needsItself' }] }),
    );
    server().on(api.estate.hangs, { ...HANGS, needs: [{ atLeast: 1, of: [ref('lineA')], isMet: true }] });
    await openThing();
    fireEvent.click(await screen.findByRole('button', { name: 'Say what it needs' }));
    const dialog = within(await screen.findByRole('dialog'));
    fireEvent.click(dialog.getByRole('button', { name: 'One more need' }));
    const [, second] = dialog.getAllByRole('combobox');
    fireEvent.change(second!, { target: { value: 'Line' } });
    // Closed lists stay mounted: the one that is open comes last.
    fireEvent.click((await dialog.findAllByText(/^Line 7, Laptop/)).at(-1)!);
    fireEvent.click(dialog.getByRole('button', { name: 'Save' }));
    expect(await dialog.findByText('A thing cannot need itself.')).toBeTruthy();
    expect(server().callsOf(api.estate.setNeeds)[0]!.body).toEqual({
      ...{
        version: 4,
        needs: [
          { atLeast: 1, of: ['lineA'] },
          { atLeast: 1, of: ['L-7'] },
        ],
      },
    });
  });
});

test('the map says in a list what it draws, and where it goes on', async () => {
  const mapped = (id: string) => ({
    ...ref(id),
    place: 'Port Alder',
    isWatched: false,
    openTickets: id === 'b' ? 2 : 0,
  });
  server().on(api.estate.map, {
    things: ['a', 'b', 'c'].map(mapped),
    needs: [{ thing: 'a', atLeast: 1, of: ['b', 'c'] }],
    isCut: true,
  });
  await show(
    <Routes>
      <Route path="estate/:id/map" element={<MapPage />} />
    </Routes>,
    { me: ME, address: '/estate/a/map?by=rings&way=below' },
  );
  expect(await screen.findByRole('img', { name: 'Map around a' })).toBeTruthy();
  expect(screen.getByText('There is more than is drawn.')).toBeTruthy();
  expect(screen.getByText(/needs b, c/)).toBeTruthy();
  expect(screen.getByText(/2 open tickets/)).toBeTruthy();
  expect(server().callsOf(api.estate.map)[0]!.query).toEqual({ way: 'below', depth: '3' });
});

test('stock is compared before it is noted', async () => {
  const nothing = {
    here: [],
    missing: [card('L-2')],
    strangers: [card('L-3')],
    unknown: ['Z-9'],
    several: [],
  };
  server().on(api.estate.count, nothing);
  await show(<StockPage />, { me: ME, address: '/estate/stock' });
  fireEvent.click(screen.getByRole('combobox', { name: 'Site' }));
  fireEvent.click(await screen.findByText('Port Alder'));
  fill(/What was scanned/, `L-3\n${window.location.origin}/t/L-4\n\nL-3\nZ-9`);
  expect(screen.getByText('3 scanned')).toBeTruthy();
  press('Compare');
  expect(await screen.findByText('Missing (1)')).toBeTruthy();
  expect(screen.getByText('Here, but should be elsewhere (1)')).toBeTruthy();
  expect(screen.getByText('Z-9')).toBeTruthy();
  expect(server().callsOf(api.estate.count)[0]!.body).toEqual({
    ...{ siteId: 'alder', place: '', marks: ['L-3', 'L-4', 'Z-9'], isKept: false },
  });
});

test('figures name the model that breaks beyond chance', async () => {
  server().on(api.estate.figures, {
    ...{ count: 40, cost: 4_000_000, worth: 1_000_000, byDepartment: [], expiring: [card('L-1')] },
    byYear: [{ name: '', count: 2, cost: 0, worth: 0 }],
    batches: [
      { model: 'Gull 2', all: 20, failed: 14, low: 0.48, high: 0.85, isBad: true },
      { model: 'Tern 14', all: 20, failed: 0, low: 0, high: 0.16, isBad: false },
    ],
  });
  await show(<FiguresPage />, { me: ME, address: '/estate/figures' });
  expect(await screen.findByText('14 of 20 broken: 48 to 85 %', { exact: false })).toBeTruthy();
  expect(screen.getAllByText(/beyond chance/)).toHaveLength(1);
  expect(screen.getByText('not known')).toBeTruthy();
});

test('a kind is written with questions of its own; what does not fit is told at its question', async () => {
  server().on(
    api.estate.createKind,
    refuse(422, 'fieldsNotValid', { fields: [{ field: 'form.q1', code: 'notAChoice' }] }),
  );
  await show(
    <Routes>
      <Route path="workshop/things/:id" element={<KindsPage />} />
    </Routes>,
    { me: HELDER, address: '/workshop/things/new' },
  );
  fireEvent.change(await screen.findByLabelText('Name, en'), { target: { value: 'Radio' } });
  fireEvent.click(screen.getByLabelText(/given to people/));
  press('Save');
  expect(await screen.findByText(/q1: Please choose one of those offered/)).toBeTruthy();
  expect(server().callsOf(api.estate.createKind)[0]!.body).toMatchObject({
    ...{ name: { en: 'Radio', pt: '' }, isHandedOut: false, seenBy: 'everyone' },
  });
  expect(screen.getByDisplayValue('Radio')).toBeTruthy();
});
