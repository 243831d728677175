import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import type { AskedChart, Board } from '../../../contract/measures';
import { api } from '../../../contract';
import { getGivenBoard, type Chart } from '../../../core/measures';
import { figureChart, figuresOf, partOf } from '../../testing/figures';
import { refuse, standIn } from '../../testing/server';
import { show } from '../../testing/show';
import { AT } from '../../testing/ticket';
import { BoardPage } from './BoardPage';
import { BoardsPage } from './BoardsPage';

/** Boards as they are looked at and put together, before a server whose answers fit the contract. */
const server = standIn();
beforeEach(() => sessionStorage.clear());

const TEAMS = figureChart('bars', { by: 'teamId', id: 'teams', isCompared: true });
const PRIORITIES = figureChart('bars', { by: 'priority', id: 'priorities' });
const board = (charts: Chart[] = [TEAMS, PRIORITIES], given: Partial<Board> = {}): Board => ({
  ...{ id: 'b1', name: 'Ours', isGiven: false, owner: { id: 'bia', name: 'Bia Rocha', goesFirst: false } },
  ...{ teamIds: [], isForAll: false, stretch: { last: 4, unit: 'week' }, charts, version: 3 },
  ...{ mayChange: true, problems: {} },
  ...given,
});
const desk = partOf('desk', 40, { name: 'Service desk', before: 30 });
const network = partOf('network', 20, { name: 'Network', before: 25 });
let asked: AskedChart[] = [];

function serve(shown: Board = board()): void {
  asked = [];
  server().on(api.people.teams, []);
  server().on(api.catalogue.list, []);
  server().on(api.teams.sites, []);
  server().on(api.measures.board, shown);
  server().on(api.measures.boards, []);
  server().on(api.measures.chart, ({ body }) => {
    const given = body;
    asked.push(given);
    return given.chart.id === 'priorities'
      ? figuresOf([partOf('P1', 5), partOf('P2', 8)])
      : figuresOf([desk, network]);
  });
}
const page = (address = '/measures/boards/b1') =>
  show(
    <Routes>
      <Route path="/measures/boards" element={<BoardsPage />} />
      <Route path="/measures/boards/:id" element={<BoardPage />} />
    </Routes>,
    { address },
  );
const press = (name: string | RegExp, inside: HTMLElement = document.body) =>
  fireEvent.click(within(inside).getByRole('button', { name }));
const last = (id: string): AskedChart => asked.findLast(({ chart }) => chart.id === id)!;

describe('the list of boards', () => {
  test('has the given ones by their names, and those that are kept', async () => {
    serve();
    server().on(api.measures.boards, [
      { id: 'given-today', name: '', isGiven: true, owner: null, isShared: true, charts: 9 },
      { id: 'b1', name: 'Ours', isGiven: false, owner: board().owner, isShared: false, charts: 2 },
    ]);
    await page('/measures/boards');
    expect((await screen.findByRole('link', { name: /The desk today/ })).getAttribute('href')).toBe(
      '/measures/boards/given-today',
    );
    expect(screen.getByRole('link', { name: /Ours/ }).textContent).toContain('2 charts');
  });

  test('says what to do where none is kept', async () => {
    serve();
    await page('/measures/boards');
    expect(await screen.findByText(/make it yours/)).toBeTruthy();
  });
});

describe('a board', () => {
  test('says of each chart what it counts, with what was before', async () => {
    serve();
    await page();
    const card = await screen.findByRole('region', { name: 'How many tickets opened by team, last 4 weeks' });
    expect(await within(card).findByText('Service desk')).toBeTruthy();
    expect(card.textContent).toContain('40 before: 30');
  });

  test('narrows the other charts by what is chosen, says so, and takes it back', async () => {
    serve();
    await page();
    fireEvent.click(await screen.findByRole('button', { name: 'Service desk' }));
    await waitFor(() => expect(last('priorities').chosen).toEqual({ teams: ['desk'] }));
    expect(last('priorities').beside.map(({ id, by }) => [id, by])).toEqual([
      ['teams', 'teamId'],
      ['priorities', 'priority'],
    ]);
    expect(screen.getByRole('button', { name: 'Service desk' }).getAttribute('aria-pressed')).toBe('true');
    press(/Take away: team: /);
    await waitFor(() =>
      expect(screen.getByRole('button', { name: 'Service desk' }).getAttribute('aria-pressed')).toBe('false'),
    );
    expect(screen.queryByText('Narrowed to')).toBeNull();
  });

  test('is narrowed by its address, several choices and their stretch', async () => {
    serve();
    const chosen = encodeURIComponent(JSON.stringify({ priorities: ['P1', 'P2'] }));
    await page(`/measures/boards/b1?chosen=${chosen}&stretch=7+day`);
    expect(await screen.findByRole('button', { name: 'Take away: priority: P2' })).toBeTruthy();
    expect(last('teams')).toMatchObject({
      chosen: { priorities: ['P1', 'P2'] },
      stretch: { last: 7, unit: 'day' },
    });
    press('Take all away');
    await waitFor(() => expect(last('teams').chosen).toEqual({}));
  });

  test('opens what a figure counts, and each leads to its ticket', async () => {
    serve();
    server().on(api.measures.behind, ({ body }) => {
      expect(body).toMatchObject({ key: 'network', chart: { id: 'teams' } });
      return {
        rows: [
          { number: 1204, title: 'Kiosk frozen', person: 'Tomás Veiga', at: AT, value: null },
          { number: null, title: '', person: 'Inês', at: AT, value: null },
        ],
        isMore: true,
      };
    });
    await page();
    fireEvent.click(await screen.findByRole('button', { name: /Open what it counts: Network/ }));
    expect((await screen.findByRole('link', { name: /1204 Kiosk frozen/ })).getAttribute('href')).toBe(
      '/desk/everything/1204',
    );
    expect(screen.getByText('without a ticket')).toBeTruthy();
    expect(screen.getByText('The latest 2; all of them are in the file.')).toBeTruthy();
  });

  test('shows the same figures as a table', async () => {
    serve(board([TEAMS]));
    await page();
    fireEvent.click(await screen.findByRole('button', { name: 'As a table' }));
    const rows = await screen.findAllByRole('row');
    expect(rows.map((row) => row.textContent)).toEqual([
      'teamFigureCount',
      'Service desk4040',
      'Network2020',
    ]);
  });

  test('shows how tickets came and went as a table too, and that figures are not whole yet', async () => {
    serve(board([figureChart('flow', { every: 'week' })]));
    const flow = [{ opened: 3, ended: 1, open: 2 }];
    const course = { flow, ageing: [], survival: null, expected: [] };
    server().on(api.measures.chart, figuresOf([], { count: 3, buckets: [AT], course, isGathering: true }));
    await page();
    fireEvent.click(await screen.findByRole('button', { name: 'As a table' }));
    const rows = await screen.findAllByRole('row');
    expect(rows.map((row) => row.textContent)).toEqual(['Fromcameendedopen at the end', '25 Nov312']);
    expect(screen.getByText(/still being gathered/)).toBeTruthy();
  });

  test('names of people only those whose figures one may see', async () => {
    serve(board([figureChart('bars', { by: 'assigneeId' })]));
    server().on(
      api.measures.chart,
      figuresOf([partOf('bia', 4, { name: 'Bia Rocha' }), partOf(null, 2)], { more: 2 }),
    );
    await page();
    expect(await screen.findByText('nobody')).toBeTruthy();
    expect(screen.getByText(/and 2 more Figures of other people are for who leads them/)).toBeTruthy();
  });

  test('says which chart asks for what is gone; the others are there', async () => {
    serve(board([TEAMS, PRIORITIES], { problems: { teams: [{ code: 'unknownField', field: 'shoeSize' }] } }));
    await page();
    expect((await screen.findByRole('alert')).textContent).toContain(
      'asks for something that is gone: shoeSize',
    );
    expect(await screen.findByText('P1')).toBeTruthy();
    expect(asked.every(({ chart }) => chart.id === 'priorities')).toBe(true);
  });

  test('says what cannot be read, and reads it again when asked', async () => {
    serve(board([TEAMS]));
    server().on(api.measures.chart, refuse(403, 'notYourPeople'));
    await page();
    expect((await screen.findByRole('alert')).textContent).toContain('Figures of single people');
    server().on(api.measures.chart, figuresOf([desk]));
    press('Try again');
    expect(await screen.findByText('Service desk')).toBeTruthy();
  });

  test('without anything in the stretch says so', async () => {
    serve(board([TEAMS]));
    server().on(api.measures.chart, figuresOf([]));
    await page();
    expect(await screen.findByText('Nothing in this stretch.')).toBeTruthy();
  });

  test('a number that misses its aim says what it was to be', async () => {
    const kept = figureChart('number', {
      what: { share: { field: 'promise', op: 'is', value: 'met' } },
      aim: 90,
      title: 'Kept',
    });
    serve(board([kept]));
    server().on(api.measures.chart, figuresOf([], { total: 84.25, count: 40 }));
    await page();
    const card = await screen.findByRole('region', { name: 'Kept' });
    expect(await within(card).findByRole('button', { name: /84\.3 %/ })).toBeTruthy();
    expect(card.textContent).toContain('aim: 90 %');
    expect(card.textContent).toContain('Share of tickets where promise is in time, last 4 weeks');
  });

  test('says for how long what is open has been so', async () => {
    serve(board([figureChart('ageing')]));
    const ageing = [0, 86_400_000, 259_200_000].map((from, i) => ({ from, count: 3 - i }));
    server().on(
      api.measures.chart,
      figuresOf([], { count: 6, course: { flow: [], ageing, survival: null, expected: [] } }),
    );
    await page();
    const first = await screen.findByText('under 24 h');
    expect(
      within(first.closest('ul')!)
        .getAllByRole('listitem')
        .map((item) => item.textContent),
    ).toEqual(['under 24 h3', '24 h to 3 d2', 'from 3 d1']);
  });
});

describe('a given board', () => {
  const given = getGivenBoard('given-month')!;
  test('cannot be changed, but be made one’s own', async () => {
    serve(
      board(given.charts, {
        id: given.id,
        name: '',
        isGiven: true,
        owner: null,
        mayChange: false,
        version: 0,
      }),
    );
    server().on(api.measures.createBoard, ({ body }) => {
      expect(body).toMatchObject({ name: 'A month, mine', isForAll: false });
      expect((body as Board).charts.map(({ title }) => title)).toContain('Kept in time');
      return { id: 'b2' };
    });
    await page(`/measures/boards/${given.id}`);
    expect(await screen.findByRole('heading', { name: 'A month' })).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Change it' })).toBeNull();
    press('Make it mine');
    expect(await screen.findByText('It is yours now. Change what you like.')).toBeTruthy();
  });
});

describe('a board that is changed', () => {
  const CHANGING = '/measures/boards/b1?change=1';
  const saved: Board[] = [];
  function serveSaving(shown?: Board): void {
    serve(shown);
    saved.length = 0;
    server().on(api.measures.updateBoard, ({ body }) => {
      saved.push(body as Board);
      return { version: 4 };
    });
  }

  test('is named, sized and shared, and kept when one is done', async () => {
    serveSaving();
    await page(CHANGING);
    fireEvent.change(await screen.findByLabelText('Name'), { target: { value: 'Wider' } });
    fireEvent.change(screen.getAllByLabelText('Width')[0]!, { target: { value: '12' } });
    fireEvent.change(screen.getByLabelText('Shared with'), { target: { value: 'withAll' } });
    press('Done');
    await waitFor(() => expect(saved).toHaveLength(1));
    expect(saved[0]).toMatchObject({
      name: 'Wider',
      isForAll: true,
      version: 3,
      charts: [
        { id: 'teams', width: 12 },
        { id: 'priorities', width: 6 },
      ],
    });
    expect(await screen.findByRole('heading', { name: 'Wider' })).toBeTruthy();
  });

  test('keeps what was changed over a reload, until it is given up', async () => {
    serveSaving();
    await page(CHANGING);
    fireEvent.change(await screen.findByLabelText('Name'), { target: { value: 'Half done' } });
    await page(CHANGING);
    expect((await screen.findByLabelText<HTMLInputElement>('Name')).value).toBe('Half done');
    press('Cancel');
    await page(CHANGING);
    expect((await screen.findByLabelText<HTMLInputElement>('Name')).value).toBe('Ours');
  });

  test('a chart is taken out, and another put together and seen at once', async () => {
    serveSaving();
    await page(CHANGING);
    fireEvent.click((await screen.findAllByRole('button', { name: 'Take this chart out' }))[0]!);
    press('Add a chart');
    const editor = await screen.findByRole('dialog');
    fireEvent.change(within(editor).getByLabelText('What of them'), { target: { value: 'median' } });
    fireEvent.change(within(editor).getByLabelText('Which field'), { target: { value: 'toAnswer' } });
    fireEvent.change(within(editor).getByLabelText('Parted by'), { target: { value: 'priority' } });
    fireEvent.change(within(editor).getByLabelText('Aim'), { target: { value: '4' } });
    const sentence = 'Median of time until the first answer of tickets by priority, last 4 weeks';
    expect(await within(editor).findByRole('region', { name: sentence })).toBeTruthy();
    press('Take it onto the board', editor);
    press('Done');
    await waitFor(() => expect(saved).toHaveLength(1));
    expect(saved[0]!.charts).toMatchObject([
      { id: 'priorities' },
      { what: { median: 'toAnswer' }, by: 'priority', aim: 4 * 3_600_000, show: 'bars' },
    ]);
  });

  test('that may not be shared so stays open with what is wrong', async () => {
    serve();
    server().on(api.measures.updateBoard, refuse(422, 'confidentialShared'));
    await page(CHANGING);
    fireEvent.change(await screen.findByLabelText('Shared with'), { target: { value: 'withAll' } });
    press('Done');
    expect((await screen.findByRole('alert')).textContent).toContain('share it with that team alone');
    expect(screen.getByLabelText<HTMLSelectElement>('Shared with').value).toBe('withAll');
  });
});
